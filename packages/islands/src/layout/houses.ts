import type { Random } from "../random.ts";
import type { World, WorldAddress } from "../world.ts";

/** Shares of the houses that are more than a number. */
const WITH_FLATS = 0.03;
const WITH_NAME = 0.015;
/** Of the houses with a name, those that have no number. */
const WITHOUT_NUMBER = 0.3;
/** Of the houses beside a gap in the numbers, those that carry the number of the gap too. */
const TWO_IN_ONE = 0.5;
const MOST_FLATS = 9;

const FIRST =
  "Rose Gull Kelp Heron Thrift Samphire Pebble Curlew Driftwood Lantern Bracken Marram Quayside Osprey Heather";
const SECOND = "Cottage House Lodge Barn Croft Rest View Farm";

/**
 * Lorramere's houses as people know them: some are two in one ("12-14"), some have flats, some in the country a name.
 * @param addresses those of one town, street by street; what is added goes to the world's
 */
export function furnishHouses(world: World, addresses: readonly WorldAddress[], random: Random): void {
  const numbers = new Map<string, Set<number | null>>();
  for (const { street, number } of addresses) {
    const own = numbers.get(street) ?? new Set();
    numbers.set(street, own.add(number));
  }
  const named = new Set<string>();
  for (const address of addresses) {
    const those = numbers.get(address.street)!;
    if (address.suffix || address.number === null) continue;
    if (!those.has(address.number + 2) && those.has(address.number + 4) && random.chance(TWO_IN_ONE))
      address.suffix = `-${address.number + 2}`;
    else if (random.chance(WITH_FLATS)) addFlats(world, address, random.integer(2, MOST_FLATS));
    else if (random.chance(WITH_NAME)) giveName(address, named, random);
  }
}

/** The flats stand where their building stands, and are reached through it. */
function addFlats(world: World, building: WorldAddress, count: number): void {
  for (let flat = 1; flat <= count; flat++)
    world.addresses.push({ ...building, key: `${building.key}/flat-${flat}`, unit: `Flat ${flat}` });
}

function giveName(house: WorldAddress, taken: Set<string>, random: Random): void {
  const name = `${random.pick(FIRST.split(" "))} ${random.pick(SECOND.split(" "))}`;
  if (taken.has(`${house.street} ${name}`)) return;
  taken.add(`${house.street} ${name}`);
  house.name = name;
  if (random.chance(WITHOUT_NUMBER)) house.number = null;
}
