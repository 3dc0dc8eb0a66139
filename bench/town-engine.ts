import { Segment, SegmentBuilder } from "@bibliotope/core/index";
import { Engine } from "@bibliotope/core/search";

/** A search over nothing but towns of one country. @param towns importance from 0 to 1 */
export function townEngine(towns: readonly { name: string; importance: number; lat: number; lon: number }[]): Engine {
  const builder = new SegmentBuilder();
  const named = (name: string) => ({ names: [{ lang: "en", name }], rings: [] });
  const at = { lat: 40, lon: -100 };
  builder.addArea({
    ...named("United States"),
    identity: 1,
    kind: "country",
    parent: null,
    code: "US",
    at,
    importance: 1,
  });
  for (const [i, { name, importance, lat, lon }] of towns.entries())
    builder.addArea({ ...named(name), identity: i + 2, kind: "town", parent: 1, at: { lat, lon }, importance });
  return new Engine(new Segment(builder.finish({ name: "towns", sources: [] })));
}
