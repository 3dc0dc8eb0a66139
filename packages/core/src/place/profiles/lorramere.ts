import type { CountryProfile } from "../profile.ts";

export const LORRAMERE: CountryProfile = {
  code: "QR",
  langs: ["en"],
  lines: "[{building}\n][{unit}, ]{house} {street or place}\n{district}\n{town}\n{county}\n{postcode}",
  line: "[{building}, ][{unit}, ]{house} {street or place}, {town}, {county}, {postcode}",
  suggestion: "[{building}, ][{unit}, ]{house} {street or place}, {town}",
  within: "[{county}, ]{country}",
  addressLine: "[{unit}, ]{house} {street}",
  levels: ["county", "town"],
  labels: {
    house: "House number",
    unit: "Flat",
    street: "Street",
    district: "District",
    town: "Town",
    county: "County",
    region: "Region",
    postcode: "Postcode",
    country: "Country",
  },
  number: { part: "house", stands: "before" },
  postcode: { shape: "^[A-Z]{2}\\d \\d{2}$", examples: ["HT4 29", "SM1 07"] },
};
