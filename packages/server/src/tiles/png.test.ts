import { createCanvas, loadImage } from "@napi-rs/canvas";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { encodePng } from "./png.ts";

/** The pixels that another program reads from a PNG. */
async function decoded(png: Uint8Array): Promise<{ width: number; height: number; rgba: number[] }> {
  const image = await loadImage(Buffer.from(png));
  const canvas = createCanvas(image.width, image.height);
  const context = canvas.getContext("2d");
  context.drawImage(image, 0, 0);
  return {
    width: image.width,
    height: image.height,
    rgba: [...context.getImageData(0, 0, image.width, image.height).data],
  };
}

describe("encodePng", () => {
  it("writes what others read, whatever the picture", async () => {
    const side = fc.integer({ min: 1, max: 24 });
    await fc.assert(
      fc.asyncProperty(side, side, fc.integer({ min: 0, max: 2 ** 31 }), async (width, height, seed) => {
        const rgba = Uint8Array.from({ length: width * height * 4 }, (_, i) =>
          i % 4 === 3 ? 255 : Math.imul(seed + i, 2654435761) >>> 24,
        );
        expect(await decoded(await encodePng(rgba, width, height))).toEqual({ width, height, rgba: [...rgba] });
      }),
      { numRuns: 40 },
    );
  });

  it("packs flat colour to little", async () => {
    const rgba = new Uint8Array(600 * 400 * 4).fill(255);
    expect((await encodePng(rgba, 600, 400)).length).toBeLessThan(6000);
  });
});
