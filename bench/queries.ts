import { Random, type World } from "@bibliotope/islands";

/** Queries by class, made from the world's own addresses by rules of this file alone. */
export interface QueryClass {
  name: string;
  queries: string[];
}

/** Full lines, beginnings of them, and lines with one typing error. Same seed, same queries. */
export function queryClasses(world: World, count: number, seed = 42): QueryClass[] {
  const random = new Random(seed);
  const streets = new Map(world.streets.map((street) => [street.key, street]));
  const areas = new Map(world.areas.map((area) => [area.key, area]));
  const lines = Array.from({ length: count }, () => {
    const address = random.pick(world.addresses);
    const street = streets.get(address.street)!;
    let area = areas.get(street.area)!;
    while (area.kind !== "town" && area.parent) area = areas.get(area.parent)!;
    return `${address.number}${address.suffix} ${street.names[0].name}, ${area.names[0].name}`;
  });
  return [
    { name: "clean", queries: lines },
    { name: "cut after some letters", queries: lines.map((line) => line.slice(0, random.whole(2, line.length))) },
    { name: "one typing error", queries: lines.map((line) => misspell(line, random)) },
  ];
}

/** One letter replaced, left out, doubled, or swapped with its neighbour, somewhere in a word. */
function misspell(line: string, random: Random): string {
  const places = [...line.matchAll(/\p{L}{4,}/gu)].map((match) => ({ from: match.index, length: match[0].length }));
  if (!places.length) return line;
  const word = random.pick(places);
  const at = word.from + random.whole(1, word.length - 2);
  const kinds = [
    () => line.slice(0, at) + String.fromCharCode(97 + random.whole(0, 25)) + line.slice(at + 1),
    () => line.slice(0, at) + line.slice(at + 1),
    () => line.slice(0, at) + line[at] + line.slice(at),
    () => line.slice(0, at) + line[at + 1] + line[at] + line.slice(at + 2),
  ];
  return random.pick(kinds)();
}
