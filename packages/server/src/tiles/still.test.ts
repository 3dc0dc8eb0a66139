import type { MapFeature } from "@bibliotope/core/map";
import { createCanvas, loadImage } from "@napi-rs/canvas";
import { describe, expect, it } from "vitest";
import { paintStill, type Still, StillSource } from "./still.ts";

const at = { lat: -35.5, lon: -21.5 };
const square = (west: number, east: number): MapFeature => ({
  type: "Feature",
  geometry: {
    type: "Polygon",
    coordinates: [
      [
        [west, -36],
        [east, -36],
        [east, -35],
        [west, -35],
        [west, -36],
      ],
    ],
  },
  properties: { layer: "land", rank: 1 },
});
const source = new StillSource([square(-21.5, -21)]);
const still = (how: Partial<Still> = {}): Still => ({
  view: { at, zoom: 12 },
  size: { width: 200, height: 120 },
  density: 1,
  night: false,
  style: "streets",
  langs: [],
  over: {},
  ...how,
});

/** The colour at a spot of a picture, as #rrggbb; its size. */
async function look(png: Uint8Array) {
  const image = await loadImage(Buffer.from(png));
  const context = createCanvas(image.width, image.height).getContext("2d");
  context.drawImage(image, 0, 0);
  const colour = (x: number, y: number) =>
    `#${[...context.getImageData(x, y, 1, 1).data.slice(0, 3)].map((part) => part.toString(16).padStart(2, "0")).join("")}`;
  return { width: image.width, height: image.height, colour };
}

describe("paintStill", () => {
  it("paints sea to the west and land to the east of a coast in the middle", async () => {
    const { width, height, colour } = await look(await paintStill(source, still()));
    expect([width, height]).toEqual([200, 120]);
    expect(colour(150, 30)).toBe("#f6f2e6");
    expect(["#dfe5e2", "#b9c9ca"]).toContain(colour(30, 32));
  });

  it("has more pixels at twice the density, of the same thing", async () => {
    const { width, height, colour } = await look(await paintStill(source, still({ density: 2 })));
    expect([width, height]).toEqual([400, 240]);
    expect(colour(300, 60)).toBe("#f6f2e6");
  });

  it("has the colours of the night", async () => {
    expect((await look(await paintStill(source, still({ night: true })))).colour(150, 30)).toBe("#26262a");
  });

  it("puts the marker's ring on the spot", async () => {
    const { colour } = await look(await paintStill(source, still({ over: { markers: [{ at, marked: true }] } })));
    expect(colour(100, 60)).toBe("#9c3528");
  });

  it("takes markup in a label for text", async () => {
    const plain = await paintStill(source, still({ over: { markers: [{ at, label: "x" }] } }));
    const hostile = await paintStill(
      source,
      still({ over: { markers: [{ at, label: '<img src="x" onerror="alert(1)">\u202e\u0000' }] } }),
    );
    expect(Buffer.from(hostile).equals(Buffer.from(plain))).toBe(false);
  });

  it("takes markup in a name of the data for text: as broad as its letters", async () => {
    const named = (text: string): MapFeature => ({
      type: "Feature",
      geometry: { type: "Point", coordinates: [-21.5, -35.5] },
      properties: { layer: "name", rank: 1, what: "town", names: [{ lang: "en", name: text }] },
    });
    const inkOf = async (text: string) => {
      const { width, height, colour } = await look(
        await paintStill(
          new StillSource([square(-22, -21), named(text)]),
          still({ size: { width: 600, height: 120 } }),
        ),
      );
      let columns = 0;
      for (let x = 0; x < width - 160; x++) {
        let isInked = false;
        for (let y = 20; y < height - 40; y++) isInked ||= colour(x, y) === "#23262d";
        columns += Number(isInked);
      }
      return columns;
    };
    expect(await inkOf('<b onclick="x">Keel</b>')).toBeGreaterThan(2 * (await inkOf("Keel")));
  });

  it("has its length in the first language whose letters the fonts have, else in English", async () => {
    const pixels = async (...langs: string[]) => Buffer.from(await paintStill(source, still({ langs })));
    const [english, french] = [await pixels("en"), await pixels("fr")];
    const finnish = await pixels("ar", "fi");
    for (const langs of [["ar"], ["he", "ar"], ["not a tag"], []])
      expect((await pixels(...langs)).equals(english), langs.join()).toBe(true);
    expect(finnish.equals(await pixels("fi"))).toBe(true);
    // "m" and "km" are the same in both
    expect(french.equals(english)).toBe(true);
    expect((await pixels("ar", "el")).equals(english)).toBe(false);
  });

  it("goes on over the 180th meridian", async () => {
    const both = new StillSource([square(179, 180), square(-180, -179)]);
    const { colour } = await look(await paintStill(both, still({ view: { at: { lat: -35.5, lon: 180 }, zoom: 12 } })));
    expect(colour(20, 30)).toBe("#f6f2e6");
    expect(colour(180, 30)).toBe("#f6f2e6");
  });

  it("is the same for the same request, to the byte", async () => {
    const [one, other] = await Promise.all([paintStill(source, still()), paintStill(source, still())]);
    expect(Buffer.from(one).equals(Buffer.from(other))).toBe(true);
  });
});
