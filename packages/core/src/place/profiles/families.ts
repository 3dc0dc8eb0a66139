import type { CountryProfile } from "../profile.ts";

type Shape = Pick<CountryProfile, "lines" | "line" | "suggestion" | "within" | "addressLine" | "number">;

/** What countries that write their addresses alike have in common: patterns, and where the number goes. */
export const FAMILIES = {
  /** Street and number, then postcode and town. */
  streetFirst: {
    lines: "[{building}\n]{street or place} {house}[, {unit}]\n{district}\n{postcode} {town}",
    line: "[{building}, ]{street or place} {house}[, {unit}], {postcode} {town}",
    suggestion: "{street or place} {house}[, {unit}], {town}",
    within: "[{region}, ]{country}",
    addressLine: "{street} {house}[, {unit}]",
    number: { part: "house", stands: "after" },
  },
  /** Street and number, then postcode, town and the province behind it. */
  streetFirstProvince: {
    lines:
      "[{building}\n]{street or place}, {house}[, {unit}]\n{district}\n{postcode} {town}[ ({county.code or region.abbr})]",
    line: "[{building}, ]{street or place}, {house}[, {unit}], {postcode} {town}[ ({county.code or region.abbr})]",
    suggestion: "{street or place}, {house}[, {unit}], {town}",
    within: "[{county}, ][{region}, ]{country}",
    addressLine: "{street}, {house}[, {unit}]",
    number: { part: "house", stands: "after" },
  },
  /** Street and number, then town, and the postcode on a line of its own. */
  streetFirstTown: {
    lines: "[{building}\n]{street or place} {house}[, {unit}]\n{district}\n{town}\n{county}\n{postcode}",
    line: "[{building}, ]{street or place} {house}[, {unit}], {town}, {county}, {postcode}",
    suggestion: "{street or place} {house}[, {unit}], {town}",
    within: "[{county}, ]{country}",
    addressLine: "{street} {house}[, {unit}]",
    number: { part: "house", stands: "after" },
  },
  /** Number and street, then postcode and town. */
  numberFirst: {
    lines: "[{building}\n][{unit}, ]{house} {street or place}\n{district}\n{postcode} {town}",
    line: "[{building}, ][{unit}, ]{house} {street or place}, {postcode} {town}",
    suggestion: "[{unit}, ]{house} {street or place}, {town}",
    within: "[{county}, ][{region}, ]{country}",
    addressLine: "[{unit}, ]{house} {street}",
    number: { part: "house", stands: "before" },
  },
  /** Number and street, then town, and the postcode on a line of its own. */
  townThenPostcode: {
    lines: "[{building}\n][{unit}, ]{house} {street or place}\n{district}\n{town}\n{county}\n{postcode}",
    line: "[{building}, ][{unit}, ]{house} {street or place}, {town}, {county}, {postcode}",
    suggestion: "[{unit}, ]{house} {street or place}, {town}",
    within: "[{county}, ]{country}",
    addressLine: "[{unit}, ]{house} {street}",
    number: { part: "house", stands: "before" },
  },
  /** Number and street, then town, state and postcode on one line. */
  townStatePostcode: {
    lines: "[{building}\n]{house} {street or place}[, {unit}]\n{district}\n{town}, {region.abbr or region} {postcode}",
    line: "[{building}, ]{house} {street or place}[, {unit}], {town}, {region.abbr or region} {postcode}",
    suggestion: "{house} {street or place}[, {unit}], {town}",
    within: "[{region}, ]{country}",
    addressLine: "{house} {street}[, {unit}]",
    number: { part: "house", stands: "before" },
  },
  /** Street and number, district, then town and state, the postcode before or below. */
  streetFirstState: {
    lines:
      "[{building}\n]{street or place}, {house}[, {unit}]\n{district}\n{town}[ - {region.abbr or region}]\n{postcode}",
    line: "[{building}, ]{street or place}, {house}[, {unit}], {district}, {town}[ - {region.abbr or region}], {postcode}",
    suggestion: "{street or place}, {house}[, {unit}], {town}",
    within: "[{region}, ]{country}",
    addressLine: "{street}, {house}[, {unit}]",
    number: { part: "house", stands: "after" },
  },
  /** Postcode and town first, then street and number. */
  townFirst: {
    lines: "[{building}\n]{town}\n{street or place} {house}[, {unit}]\n{postcode}",
    line: "{town}, {street or place} {house}[, {unit}], {postcode}",
    suggestion: "{street or place} {house}[, {unit}], {town}",
    within: "[{county}, ]{country}",
    addressLine: "{street} {house}[, {unit}]",
    number: { part: "house", stands: "after" },
  },
  /** Broadest first: prefecture, town, district, block and building. */
  broadestFirst: {
    lines: "{postcode}\n{region}{town}\n{district}{block or street or place} {building}[ {unit}]",
    line: "{postcode}, {region}, {town}, {district}, {block or street or place}[ {building}][, {unit}]",
    suggestion: "{town}, {district}, {block or street or place}[ {building}]",
    within: "[{region}, ]{country}",
    addressLine: "{district} {block or street}[ {building}][, {unit}]",
    number: { part: "building", stands: "after" },
  },
  /** Broadest first, then street and number: region, town, street. */
  broadestFirstStreet: {
    lines: "{region} {town}\n{district}\n{street or place} {house}[, {unit}][\n{building}]\n{postcode}",
    line: "{region}, {town}, {street or place} {house}[, {unit}][ ({building})][, {postcode}]",
    suggestion: "{town}, {street or place} {house}[, {unit}]",
    within: "[{region}, ]{country}",
    addressLine: "{street} {house}[, {unit}]",
    number: { part: "house", stands: "after" },
  },
} as const satisfies Record<string, Shape>;

export type Family = keyof typeof FAMILIES;
