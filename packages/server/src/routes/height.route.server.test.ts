import { describe, expect, it } from "vitest";
import { ask, json } from "../../testing/shared.ts";

const post = (body: object) =>
  json("/v1/height", { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

describe("/v1/height", () => {
  it("says how high the ground lies in a town, with the source", async () => {
    const { body, status } = await json("/v1/height?at=-35.184087,-21.625292");
    expect(status).toBe(200);
    expect(body.metres).toBeGreaterThan(0);
    expect(body.metres).toBeLessThan(200);
    expect(body.source[0].name).toBe("The islands");
  });

  it("is 0 on the sea around the islands and null far from them", async () => {
    expect((await json("/v1/height?at=-35.2,-21.75")).body.metres).toBe(0);
    expect((await json("/v1/height?at=48,16")).body.metres).toBeNull();
  });

  it("answers for many by POST, in their order", async () => {
    const at = [
      { lat: -35.184087, lon: -21.625292 },
      { lat: 48, lon: 16 },
    ];
    const { body } = await post({ at });
    const { body: one } = await json("/v1/height?at=-35.184087,-21.625292");
    expect(body.heights).toEqual([one.metres, null]);
  });

  it("rises where the map draws its contours", async () => {
    const tile = (await json("/v1/tiles/features/10/450/619")).body;
    const contours = tile.features.filter((f: { properties: { layer: string } }) => f.properties.layer === "contour");
    expect(contours.length).toBeGreaterThan(0);
    for (const { geometry, properties } of contours.slice(0, 5)) {
      const line = geometry.type === "LineString" ? geometry.coordinates : geometry.coordinates[0];
      const [lon, lat] = line[Math.floor(line.length / 2)];
      const { metres } = (await json(`/v1/height?at=${lat},${lon}`)).body;
      expect(Math.abs(metres - properties.height)).toBeLessThan(60);
    }
  });

  it.each([
    ["/v1/height", {}],
    ["/v1/height?at=1", {}],
    ["/v1/height?at=-135,-21", {}],
  ])("refuses %j", async (path) => {
    const response = await ask(path);
    expect(response.status).toBe(400);
  });

  it("refuses more than a thousand at once, and none", async () => {
    const at = Array.from({ length: 1001 }, () => ({ lat: -35, lon: -21 }));
    expect((await post({ at })).status).toBe(400);
    expect((await post({ at: [] })).status).toBe(400);
  });
});
