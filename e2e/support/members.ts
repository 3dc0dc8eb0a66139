import { generateIslands } from "@bibliotope/islands";

let world: ReturnType<typeof generateIslands> | undefined;

/** Addresses of the islands as people write them; every fifth is damaged in one of ways that are common. */
export function members(count: number): string[] {
  world ??= generateIslands();
  const { addresses, streets, areas, postcodes } = world;
  const by = <T extends { key: string }>(list: readonly T[]) => new Map(list.map((one) => [one.key, one]));
  const [street, area, postcode] = [by(streets), by(areas), by(postcodes)];
  return Array.from({ length: count }, (_, i) => {
    const one = addresses[(i * 7919) % addresses.length];
    const its = street.get(one.street)!;
    let town = area.get(its.area)!;
    while (town.kind !== "town" && town.parent) town = area.get(town.parent)!;
    const house = one.number === null ? (one.name ?? "") : `${one.number}${one.suffix}`;
    const name = its.names[0].name;
    const line = one.country === "QR" ? `${house} ${name}` : `${name} ${house}`;
    const whole = [line, town.names[0].name, one.postcode ? postcode.get(one.postcode)!.code : ""];
    if (i % 5) return whole;
    return [
      [line.slice(0, 3) + line.slice(4), whole[1], whole[2]],
      [name, whole[1], ""],
      [line, "", ""],
      ["see the notes", "", ""],
    ][(i / 5) % 4];
  }).map((cells, i) => [`m${i}`, ...cells].map((cell) => (/[",]/.test(cell) ? `"${cell}"` : cell)).join(","));
}
