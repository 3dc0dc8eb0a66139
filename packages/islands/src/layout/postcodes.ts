import type { World } from "../world.ts";
import type { Town } from "./areas.ts";
import type { PostcodeFor } from "./streets.ts";

/** Streets that share a postcode in Lorramere. */
const STREETS_A_CODE = 4;

/** Postcodes as each country writes them, made when the first street asks for one. */
export function postcodesOf(
  world: World,
  country: string,
  position: (town: Town) => { lat: number; lon: number },
): PostcodeFor {
  const known = new Set<string>();
  const letterOf = new Map<number, string>();
  return (town, number, street) => {
    const code = codeFor(country, town, number, street, letterOf);
    if (code === null) return null;
    const key = `${country}/postcode/${code}`;
    if (!known.has(key)) {
      known.add(key);
      world.postcodes.push({ key, country, code, area: town.key, at: position(town) });
    }
    return key;
  };
}

function codeFor(
  country: string,
  town: Town,
  number: number,
  street: number,
  letterOf: Map<number, string>,
): string | null {
  const two = (n: number) => String(n).padStart(2, "0");
  if (country === "QR") {
    if (!letterOf.has(town.county)) letterOf.set(town.county, COUNTY_LETTERS[town.county % COUNTY_LETTERS.length]);
    return `${letterOf.get(town.county)}${number % 10} ${two((10 + Math.floor(street / STREETS_A_CODE) + Math.floor(number / 10) * 40) % 100)}`;
  }
  if (country === "QV") return `${town.region + 2}${two(number)}${street % 10}`;
  // the south of Thalmyra has postcodes, the north has none
  return town.region === 0 ? null : `ΘΑ-${100 + number * 10 + (street % 5)}`;
}

const COUNTY_LETTERS = ["HT", "SM", "CK", "TF", "PN", "RN", "QL", "BF"];
