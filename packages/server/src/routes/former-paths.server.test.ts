import { createCanvas, loadImage } from "@napi-rs/canvas";
import { expect, it } from "vitest";
import { answerOf, ask, json, signedIn } from "../../testing/shared.ts";

/** Pixels of a picture, since two PNGs of one picture may be packed differently. */
async function pixelsOf(response: Response): Promise<string> {
  expect(response.status, await response.clone().text()).toBe(200);
  const image = await loadImage(Buffer.from(await response.arrayBuffer()));
  const context = createCanvas(image.width, image.height).getContext("2d");
  context.drawImage(image, 0, 0);
  const { data } = context.getImageData(0, 0, image.width, image.height);
  return `${image.width}x${image.height} ${Buffer.from(data).toString("base64")}`;
}

it.each(["features/16/28831/39618", "heights/9/225/309", "features/9/512/0", "heights/a/b/c"])(
  "a tile under its former path is the same: %s",
  async (tile) => {
    const [former, now] = await Promise.all([ask(`/v1/sheets/${tile}`), ask(`/v1/tiles/${tile}`)]);
    expect(former.status).toBe(now.status);
    if (!now.ok) return;
    const text = await now.text();
    expect(text).not.toContain('"features":[]');
    expect(await former.text()).toBe(text);
  },
);

it("a still by its former parameters is the same picture", async () => {
  const points = "-35.18,-21.7;-35.18,-21.5";
  const former = await ask(`/v1/still?markers=${points}&size=200x100&scale=2&sheet=heights`);
  const now = await ask(`/v1/still?points=${points}&width=200&height=100&density=2&style=heights`);
  expect(await pixelsOf(former)).toBe(await pixelsOf(now));
  const body = { markers: [{ lat: -35.18, lon: -21.7 }], size: "200x100" };
  const posted = { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) };
  expect((await ask("/v1/still", posted)).status).toBe(200);
});

it("a size that is none is refused, and so are former names of other calls", async () => {
  for (const query of ["still?at=-35.2,-21.4&size=big", "still?at=-35.2,-21.4&size=9x9", "suggest?q=x&sheet=streets"])
    expect((await json(`/v1/${query}`)).status, query).toBe(400);
});

it("a link's picture may have its former size", async () => {
  const { body } = await json("/v1/links?at=-35.1841,-21.6253&shows=still&size=320x200&scale=2");
  const image = await loadImage(Buffer.from(await (await fetch(body.url)).arrayBuffer()));
  expect([image.width, image.height]).toEqual([640, 400]);
});

it("a key that is limited to tiles may fetch them under both paths, and one that is not under neither", async () => {
  const browser = await signedIn();
  const make = async (calls: string[]) =>
    (await answerOf(await browser.send("POST", "/api/keys", { kind: "srv", name: "Tiles", calls }))).body.key as string;
  const [tiles, other] = [await make(["tiles"]), await make(["suggest"])];
  for (const path of ["/v1/sheets/features/9/225/309", "/v1/tiles/features/9/225/309"]) {
    expect((await ask(path, { key: tiles })).status, path).toBe(200);
    expect((await ask(path, { key: other })).status, path).toBe(403);
  }
});

it("only today's paths are in the OpenAPI document", async () => {
  const text = JSON.stringify((await json("/v1/openapi.json")).body);
  expect(text).toContain("/v1/tiles/features/{z}/{x}/{y}");
  expect(text).not.toContain("sheets");
});
