import { unproject } from "@bibliotope/core/geo";
import { tileHeightsAnswer } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { ask, json } from "../../testing/shared.ts";

describe("/v1/tiles/heights", () => {
  // the highest ground of Lorramere
  const tile = { z: 12, x: 1804, y: 2476 };
  const path = ({ z, x, y }: typeof tile) => `/v1/tiles/heights/${z}/${x}/${y}`;

  it("gives the heights of a tile on a grid, the same as asked one by one", async () => {
    const { status, body } = await json(path(tile));
    expect(status).toBe(200);
    const { columns, rows, metres } = tileHeightsAnswer.parse(body);
    expect(metres.length).toBe(columns * rows);
    for (const [column, row] of [
      [0, 0],
      [columns - 1, rows - 1],
      [7, 20],
    ]) {
      const { lat, lon } = unproject({
        x: (tile.x + column / (columns - 1)) / 2 ** tile.z,
        y: (tile.y + row / (rows - 1)) / 2 ** tile.z,
      });
      const one = await json(`/v1/height?at=${lat},${lon}`);
      expect(metres[row * columns + column]).toBeCloseTo(one.body.metres, 0);
    }
  });

  it("shares the points of an edge with the next tile", async () => {
    const [a, b] = [(await json(path(tile))).body, (await json(path({ ...tile, x: tile.x + 1 }))).body];
    for (let row = 0; row < a.rows; row++)
      expect(a.metres[row * a.columns + a.columns - 1]).toBe(b.metres[row * b.columns]);
  });

  it("knows nothing far away, and answers 304 to who has it already", async () => {
    const far = await ask("/v1/tiles/heights/5/0/0");
    expect(((await far.json()) as { metres: null[] }).metres.every((metres) => metres === null)).toBe(true);
    const again = await ask("/v1/tiles/heights/5/0/0", {
      headers: { "If-None-Match": far.headers.get("etag")!, "Cache-Control": "" },
    });
    expect(again.status).toBe(304);
  });

  it.each([
    "/v1/tiles/heights/5/32/0",
    "/v1/tiles/heights/21/0/0",
    "/v1/tiles/heights/a/b/c",
    "/v1/tiles/heights/5/-1/0",
  ])("has no tile %s", async (nowhere) => {
    expect((await ask(nowhere)).status).toBe(404);
  });
});
