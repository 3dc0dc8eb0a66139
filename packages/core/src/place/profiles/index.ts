import type { CountryProfile } from "../profile.ts";
import { LORRAMERE } from "./lorramere.ts";
import { OVARDE } from "./ovarde.ts";
import { THALMYRA } from "./thalmyra.ts";
import { WORLD } from "./world.ts";

/** What a country without a profile of its own gets. */
export const PLAIN_PROFILE: CountryProfile = {
  ...LORRAMERE,
  code: "ZZ",
  langs: ["und"],
  postcode: undefined,
};

const PROFILES: ReadonlyMap<string, CountryProfile> = new Map(
  [LORRAMERE, OVARDE, THALMYRA, ...WORLD].map((profile) => [profile.code, profile]),
);

/** The profile of a country that has one of its own. */
export function heldProfile(country: string): CountryProfile | undefined {
  return PROFILES.get(country);
}

/** The profile of a country by its ISO 3166-1 code; a plain one when there is none. */
export function profileOf(country: string): CountryProfile {
  return PROFILES.get(country) ?? { ...PLAIN_PROFILE, code: country };
}

/** All profiles that there are. */
export function allProfiles(): readonly CountryProfile[] {
  return [...PROFILES.values()];
}
