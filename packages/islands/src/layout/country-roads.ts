import type { Point } from "../ground/plane.ts";
import { distance } from "../ground/plane.ts";
import type { World } from "../world.ts";
import type { Town } from "./areas.ts";
import { setHouses } from "./frontage.ts";
import type { Road } from "./roads.ts";
import { addStreet, type Ground, numberBothSides, type PostcodeFor } from "./streets.ts";

/** Draws the roads between towns; where addresses go by street, farms stand along them, half for each town. */
export function buildRoads(
  world: World,
  ground: Ground,
  roads: readonly Road[],
  towns: readonly Town[],
  postcodeFor: PostcodeFor,
): void {
  roads.forEach((road, i) => {
    world.features.push({
      layer: "street",
      rank: 1,
      names: [],
      properties: {},
      geometry: { type: "LineString", coordinates: road.points.map((point) => ground.plane.pair(point)) },
    });
    if (ground.code === "QY") return;
    const half = Math.floor(road.points.length / 2);
    addFarms(world, ground, road.points.slice(0, half + 1), road.from, road.to, towns, postcodeFor, i);
    addFarms(world, ground, road.points.slice(half).reverse(), road.to, road.from, towns, postcodeFor, i);
  });
}

function addFarms(
  world: World,
  ground: Ground,
  line: Point[],
  near: number,
  far: number,
  towns: readonly Town[],
  postcodeFor: PostcodeFor,
  number: number,
): void {
  const town = towns[near];
  const outside = line.filter((point) => distance(point, town.site.at) > town.site.radius * 1.25);
  if (outside.length < 6) return;
  const houses = setHouses(
    outside,
    {
      gap: [110, 420],
      setBack: 24,
      sides: ["left", "right"],
      built: 0.8,
      blocked: (at) => ground.heights.sample(at) < 1,
    },
    ground.random,
  );
  if (houses.length < 3) return;
  const there = towns[far].names[0].name;
  const name =
    ground.code === "QR"
      ? { lang: "en", name: `${there} Road`, abbr: `${there} Rd` }
      : { lang: "qov-Latn", name: `${there}väg` };
  addStreet(
    world,
    ground,
    {
      key: `${town.key}/road/${far}`,
      area: town.key,
      names: [name],
      at: outside[Math.floor(outside.length / 2)],
      kind: "street",
      importance: 0.1,
    },
    numberBothSides(houses, ground),
    postcodeFor(town, near, 300 + number),
  );
}
