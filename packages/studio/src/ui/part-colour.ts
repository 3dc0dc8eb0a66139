/** The colour that belongs to a part or fact, as a CSS value. */
export function partColour(name: string): string {
  const part = name.split(".")[0];
  return `var(--${COLOUR_OF[part] ?? "slate"})`;
}

const COLOUR_OF: Record<string, string> = {
  house: "madder",
  unit: "madder",
  floor: "madder",
  building: "madder",
  block: "madder",
  street: "madder",
  place: "madder",
  district: "verdigris",
  town: "verdigris",
  county: "verdigris",
  region: "verdigris",
  postcode: "indigo",
  country: "plum",
};
