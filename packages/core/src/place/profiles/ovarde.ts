import type { CountryProfile } from "../profile.ts";

export const OVARDE: CountryProfile = {
  code: "QV",
  langs: ["qov-Latn"],
  lines: "{street or place} {house}[, {unit}][, {building}]\n{district}\n{postcode} {town}",
  line: "{street or place} {house}[, {unit}][, {building}], {postcode} {town}, {region}",
  suggestion: "{street or place} {house}[, {unit}], {town}",
  within: "[{region}, ]{country}",
  addressLine: "{street} {house}[, {unit}]",
  levels: ["region", "town"],
  labels: {
    house: "Number",
    unit: "Flat",
    street: "Street",
    district: "District",
    town: "Town",
    county: "Commune",
    region: "Province",
    postcode: "Postcode",
    country: "Country",
  },
  number: { part: "house", stands: "after" },
  postcode: { shape: "^\\d{4}$", examples: ["4410", "2107"] },
};
