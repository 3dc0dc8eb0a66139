import { Segment } from "@bibliotope/core/index";
import { Engine } from "@bibliotope/core/search";
import { expect, it, vi } from "vitest";
import { generateIslands, segmentOfWorld } from "./index.ts";

it("suggests places without reading what is known of them, however much that is", { tags: ["long"] }, () => {
  const world = generateIslands();
  const segment = new Segment(segmentOfWorld(world));
  const engine = new Engine(segment);
  const read = vi.spyOn(segment, "factsOf");
  let found = 0;
  for (const { names } of world.places.slice(0, 300))
    for (const q of [names[0].name.slice(0, 4), names[0].name])
      found += engine.suggest({ q }).suggestions.filter(({ kind }) => kind === "place").length;
  expect(found).toBeGreaterThan(300);
  expect(read).not.toHaveBeenCalled();
  engine.forward({ q: world.places[0].names[0].name, limit: 1 });
  expect(read).toHaveBeenCalled();
});
