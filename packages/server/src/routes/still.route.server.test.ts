import { createCanvas, loadImage } from "@napi-rs/canvas";
import { describe, expect, it } from "vitest";
import { ask, json, shared } from "../../testing/shared.ts";

const HERE = "at=-35.184087,-21.625292";

async function still(query: string) {
  const response = await ask(`/v1/still?${query}`);
  expect(response.status, await response.clone().text()).toBe(200);
  expect(response.headers.get("content-type")).toBe("image/png");
  const image = await loadImage(Buffer.from(await response.arrayBuffer()));
  const context = createCanvas(image.width, image.height).getContext("2d");
  context.drawImage(image, 0, 0);
  const colour = (x: number, y: number) => [...context.getImageData(x, y, 1, 1).data.slice(0, 3)];
  return { width: image.width, height: image.height, colour, response };
}
const MADDER = [0x9c, 0x35, 0x28];

describe("/v1/still", () => {
  it("is a picture with a marker in the middle", async () => {
    const { width, height, colour } = await still(HERE);
    expect([width, height]).toEqual([600, 400]);
    expect(colour(300, 200)).toEqual(MADDER);
  });

  it("has the size and density that are requested", async () => {
    const { width, height, colour } = await still(`${HERE}&width=300&height=200&density=2`);
    expect([width, height]).toEqual([600, 400]);
    expect(colour(300, 200)).toEqual(MADDER);
  });

  it("shows a record by its ref, an area as a whole and without a marker", async () => {
    const { suggestions } = (await json("/v1/suggest?q=12+harbour+row,+tidewell&limit=1")).body;
    expect((await still(`of=${suggestions[0].ref}`)).colour(300, 200)).toEqual(MADDER);
    const [town] = (await json("/v1/forward?town=Tidewell&kinds=town&limit=1")).body.features;
    expect((await still(`of=${town.id}`)).colour(300, 200)).not.toEqual(MADDER);
  });

  it("fits all markers and a line into the picture", async () => {
    const { colour } = await still("points=-35.18,-21.7;-35.18,-21.5&line=-35.18,-21.7;-35.18,-21.5");
    // room of a sixth on either hand: rings stand near the sides
    const row = Array.from({ length: 600 }, (_, x) => colour(x, 200).join());
    const rings = row.flatMap((ink, x) => (ink === MADDER.join() ? [x] : []));
    expect(Math.min(...rings)).toBeLessThan(110);
    expect(Math.max(...rings)).toBeGreaterThan(490);
  });

  it("answers the same to the same, and says that nothing changed", async () => {
    const first = await still(HERE);
    const etag = first.response.headers.get("etag")!;
    expect(etag).toBeTruthy();
    const again = await ask(`/v1/still?${HERE}`, { headers: { "If-None-Match": etag, "Cache-Control": "" } });
    expect(again.status).toBe(304);
  });

  it("takes the same words by POST", async () => {
    const response = await ask("/v1/still", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ at: { lat: -35.184087, lon: -21.625292 }, width: 200, height: 100 }),
    });
    expect(response.headers.get("content-type")).toBe("image/png");
  });

  it("may stand in a page of another origin, with that page's key", async () => {
    const response = await ask(`/v1/still?${HERE}&access_token=${shared().keys.try}`, { key: null });
    expect(response.headers.get("cross-origin-resource-policy")).toBe("cross-origin");
    expect(response.headers.get("content-type")).toBe("image/png");
  });

  it.each([
    ["", 400],
    ["of=qr-zzzzzz", 404],
    [`${HERE}&width=2000`, 400],
    [`${HERE}&style=x`, 400],
  ])("refuses %j", async (query, status) => {
    const response = await ask(`/v1/still?${query}`);
    expect(response.status).toBe(status);
    expect(response.headers.get("content-type")).toContain("application/problem+json");
  });

  it("draws a hostile label as text", async () => {
    const label = encodeURIComponent('"><script>alert(1)</script>\u202e😀');
    expect((await still(`${HERE}&label=${label}`)).colour(300, 200)).toEqual(MADDER);
  });
});
