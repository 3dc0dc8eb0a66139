import { createCanvas, loadImage } from "@napi-rs/canvas";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type Running, run } from "./stand-in.ts";
import { survey } from "./survey.ts";

const COMPILED = new URL("../dist/survey.worker.js", import.meta.url);

let running: Running;
beforeAll(async () => {
  running = await run(survey(COMPILED));
});
afterAll(() => running.stop());

const ask = (path: string) => fetch(`${running.url}${path}`);

/** Mean red, green and blue of a picture. */
async function colourOf(response: Response): Promise<number[]> {
  const image = await loadImage(Buffer.from(await response.arrayBuffer()));
  const context = createCanvas(image.width, image.height).getContext("2d");
  context.drawImage(image, 0, 0);
  const { data } = context.getImageData(0, 0, image.width, image.height);
  return [0, 1, 2].map((channel) => {
    let sum = 0;
    for (let i = channel; i < data.length; i += 4) sum += data[i];
    return sum / (data.length / 4);
  });
}

it("shows sea and land from the air, by XYZ and by WMTS alike", { tags: ["long"], timeout: 60_000 }, async () => {
  const sea = await ask("/survey/13/10/10.jpg");
  expect(sea.headers.get("content-type")).toBe("image/jpeg");
  expect(sea.headers.get("access-control-allow-origin")).toBe("*");
  const [seaRed, , seaBlue] = await colourOf(sea);
  expect(seaBlue).toBeGreaterThan(seaRed + 20);
  const xyz = await ask("/survey/16/28831/39618.jpg");
  const [landRed, , landBlue] = await colourOf(xyz.clone() as Response);
  expect(landRed).toBeGreaterThan(landBlue);
  const wmts = await ask("/wmts?SERVICE=WMTS&REQUEST=GetTile&LAYER=survey&TILEMATRIX=16&TILECOL=28831&TILEROW=39618");
  expect(Buffer.from(await wmts.arrayBuffer())).toEqual(Buffer.from(await xyz.arrayBuffer()));
});

it.each([
  ["/survey/18/1/1.jpg", 404],
  ["/survey/2/9/1.jpg", 404],
  ["/survey/2/-1/1.jpg", 404],
  ["/survey/2/1e3/1.jpg", 404],
  ["/wmts?REQUEST=GetCapabilities", 400],
  ["/wmts?REQUEST=GetTile&LAYER=other", 400],
  ["/wmts?REQUEST=GetTile&LAYER=survey&TILEMATRIX=x", 404],
])("answers %s with %i", async (path, status) => {
  expect((await ask(path)).status).toBe(status);
});
