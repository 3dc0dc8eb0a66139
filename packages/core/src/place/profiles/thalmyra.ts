import type { CountryProfile } from "../profile.ts";

export const THALMYRA: CountryProfile = {
  code: "QY",
  langs: ["qth-Grek", "qth-Latn"],
  lines: "{region}\n{town}[ {postcode}]\n{district}\n{block or street or place}[, {building}]",
  line: "{region}, {town}[ {postcode}], {district}, {block or street or place}[, {building}]",
  suggestion: "{town}, {district}, {block or street or place}[, {building}]",
  within: "[{region}, ]{country}",
  addressLine: "{block or street}[, {building}]",
  levels: ["region", "town", "district"],
  labels: {
    building: "Building",
    block: "Block",
    district: "Quarter",
    town: "Town",
    region: "Prefecture",
    postcode: "Postcode",
    country: "Country",
  },
  number: { part: "building", stands: "after" },
  postcode: {
    shape: "^ΘΑ-\\d{3}$",
    examples: ["ΘΑ-123", "ΘΑ-208"],
    note: "Only in the south; the north has no postcodes.",
  },
};
