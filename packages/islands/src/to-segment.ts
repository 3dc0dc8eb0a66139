import { type RecordSink, SegmentBuilder } from "@bibliotope/core/index";
import { WORLD_VERSION } from "./generate.ts";
import type { World } from "./world.ts";

/** Gives the records of a world to a sink, without a database: for benchmarks and tests. Identities count from 1. */
export function pourWorld(world: World, sink: RecordSink): void {
  const identities = new Map<string, number>();
  for (const list of [world.areas, world.postcodes, world.streets, world.addresses, world.places]) {
    for (const { key } of list) identities.set(key, identities.size + 1);
  }
  const of = (key: string) => identities.get(key)!;
  for (const area of world.areas)
    sink.addArea({ ...area, identity: of(area.key), parent: area.parent === null ? null : of(area.parent) });
  for (const code of world.postcodes)
    sink.addPostcode({ ...code, identity: of(code.key), area: of(code.area), importance: 0.2 });
  for (const street of world.streets) sink.addStreet({ ...street, identity: of(street.key), area: of(street.area) });
  for (const a of world.addresses) {
    sink.addAddress({
      ...a,
      identity: of(a.key),
      street: of(a.street),
      postcode: a.postcode === null ? null : of(a.postcode),
    });
  }
  for (const p of world.places) {
    sink.addPlace({
      ...p,
      identity: of(p.key),
      area: of(p.area),
      address: p.address === null ? null : of(p.address),
    });
  }
}

/** Builds a segment straight from a world. */
export function segmentOfWorld(world: World): ArrayBuffer {
  const builder = new SegmentBuilder();
  pourWorld(world, builder);
  return builder.finish({
    name: `islands-${WORLD_VERSION}`,
    sources: [{ name: "The islands", day: "2026-11-01", licence: "CC0-1.0" }],
  });
}
