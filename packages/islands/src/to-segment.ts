import { SegmentBuilder } from "@bibliotope/core/index";
import { WORLD_VERSION } from "./generate.ts";
import type { World } from "./world.ts";

/** Builds a segment straight from a world, without a database: for benchmarks and tests. Identities count from 1. */
export function segmentOfWorld(world: World): ArrayBuffer {
  const identities = new Map<string, number>();
  for (const list of [world.areas, world.postcodes, world.streets, world.addresses, world.places]) {
    for (const { key } of list) identities.set(key, identities.size + 1);
  }
  const of = (key: string) => identities.get(key)!;
  const builder = new SegmentBuilder();
  for (const area of world.areas)
    builder.addArea({ ...area, identity: of(area.key), parent: area.parent === null ? null : of(area.parent) });
  for (const code of world.postcodes)
    builder.addPostcode({ ...code, identity: of(code.key), area: of(code.area), importance: 0.2 });
  for (const street of world.streets) builder.addStreet({ ...street, identity: of(street.key), area: of(street.area) });
  for (const a of world.addresses) {
    builder.addAddress({
      ...a,
      identity: of(a.key),
      street: of(a.street),
      postcode: a.postcode === null ? null : of(a.postcode),
    });
  }
  for (const p of world.places) {
    builder.addPlace({
      ...p,
      identity: of(p.key),
      area: of(p.area),
      address: p.address === null ? null : of(p.address),
    });
  }
  return builder.finish({
    name: `islands-${WORLD_VERSION}`,
    sources: [{ name: "The islands", day: "2026-11-01", licence: "CC0-1.0" }],
  });
}
