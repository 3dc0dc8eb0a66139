import { describe, expect, it } from "vitest";
import { recorder } from "../../testing/recorder.ts";
import { project } from "../geo/index.ts";
import type { MapFeature } from "./features.ts";
import { drawLabels } from "./letter.ts";
import { isPainted, MAP_STYLES, type MapStyle, paintInSlices, paintPart, paintTile, partOf } from "./paint.ts";
import { DAY, NIGHT } from "./palettes.ts";
import { drawAim, drawGroup, drawMarker } from "./signs.ts";
import { paperAt } from "./steps.ts";

const { x, y } = project({ lat: -35.5, lon: -21.5 });
const tile = { z: 14, x: Math.floor(x * 2 ** 14), y: Math.floor(y * 2 ** 14) };
const street: MapFeature = {
  type: "Feature",
  geometry: {
    type: "LineString",
    coordinates: [
      [-21.51, -35.5],
      [-21.49, -35.5],
    ],
  },
  properties: { layer: "street", rank: 2 },
};
const land: MapFeature = {
  type: "Feature",
  geometry: {
    type: "Polygon",
    coordinates: [
      [
        [-22, -36],
        [-21, -36],
        [-21, -35],
        [-22, -36],
      ],
    ],
  },
  properties: { layer: "land", rank: 1 },
};
const park: MapFeature = {
  type: "Feature",
  geometry: {
    type: "Polygon",
    coordinates: [
      [
        [-21.5, -35.5],
        [-21.49, -35.5],
        [-21.49, -35.49],
        [-21.5, -35.5],
      ],
    ],
  },
  properties: { layer: "park", rank: 1 },
};

const painted = (features: MapFeature[], palette = DAY, at = tile) => {
  const { painter, calls } = recorder();
  paintTile(painter, features, at, { palette });
  return calls;
};

describe("paintPart", () => {
  it("paints a tile's square as the tile", () => {
    const { painter, calls } = recorder();
    const part = { z: tile.z, left: tile.x * 256, top: tile.y * 256, width: 256, height: 256 };
    paintPart(painter, [land, park, street], part, { palette: DAY });
    expect(calls).toEqual(painted([land, park, street]));
  });

  it("goes on with the hatching wherever a part begins", () => {
    const rows = (top: number) => {
      const { painter, calls } = recorder();
      paintPart(painter, [], { z: 14, left: 0, top, width: 64, height: 32 }, { palette: DAY });
      return calls.flatMap((call) => (call.startsWith("moveTo ") ? [Number(call.split(" ")[2]) + top] : []));
    };
    expect(rows(1003).length).toBeGreaterThan(3);
    for (const y of rows(1003)) expect(y % 8).toBe(4);
    expect(rows(1003)).toEqual(expect.arrayContaining(rows(1008).slice(0, 2)));
  });
});

describe("paintTile", () => {
  it("begins with the sea, over the whole tile", () => {
    const calls = painted([]);
    expect(calls).toContain("fillRect 0 0 256 256");
    expect(calls.indexOf(`fillStyle = ${DAY.sea}`)).toBeLessThan(calls.indexOf("fillRect 0 0 256 256"));
  });

  it("hatches the sea with lines that run on in the next tile", () => {
    const rows = painted([])
      .filter((call) => call.startsWith("moveTo -2"))
      .map((call) => Number(call.split(" ")[2]));
    expect(rows).toHaveLength(32);
    expect(new Set(rows.slice(1).map((row, i) => row - rows[i]))).toEqual(new Set([8]));
    expect(rows[0] + 256 - rows.at(-1)!).toBe(8);
  });

  it("lays land over the sea, and streets over the land", () => {
    const calls = painted([street, land]);
    const at = (colour: string) => calls.findIndex((call) => call.endsWith(colour));
    expect(at(DAY.sea)).toBeLessThan(at(DAY.land));
    expect(at(DAY.land)).toBeLessThan(at(DAY.casing));
    expect(at(DAY.casing)).toBeLessThan(at(DAY.mainStreet));
  });

  it("inks the coasts of coarse land and of what was laid beside it before either is filled, and tints towns over both", () => {
    const ranked = (rank: number): MapFeature => ({ ...land, properties: { layer: "land", rank } });
    const town: MapFeature = { ...land, properties: { layer: "town", rank: 1 } };
    const inks = painted([ranked(2), ranked(3), town]).flatMap((call) => {
      const [, palette, colour] = /^(strokeStyle|fillStyle) = (\S+)$/.exec(call) ?? [];
      return colour === DAY.coast || colour === DAY.land || colour === DAY.town ? [`${palette} ${colour}`] : [];
    });
    const [coast, ground] = [`strokeStyle ${DAY.coast}`, `fillStyle ${DAY.land}`];
    expect(inks).toEqual([coast, coast, ground, ground, `fillStyle ${DAY.town}`]);
    // land that was surveyed has its coast inked over what lies on it
    const own = painted([land]).flatMap((call) => (call.includes(DAY.coast) || call.includes(DAY.land) ? [call] : []));
    expect(own).toEqual([`fillStyle = ${DAY.land}`, `strokeStyle = ${DAY.coast}`]);
  });

  it("stipples parks within their own edge only", () => {
    const calls = painted([park]);
    expect(calls.findIndex((call) => call.startsWith("clip"))).toBeGreaterThan(0);
    expect(calls.filter((call) => call === "save")).toHaveLength(calls.filter((call) => call === "restore").length);
  });

  it("takes its inks from the palette alone", () => {
    const night = painted([street, land, park], NIGHT);
    for (const ink of [DAY.sea, DAY.land, DAY.mainStreet]) expect(night.some((call) => call.includes(ink))).toBe(false);
  });

  it("draws streets broader, the closer one looks", () => {
    const widest = (z: number) => {
      const at = { z, x: Math.floor(x * 2 ** z), y: Math.floor(y * 2 ** z) };
      return Math.max(
        ...painted([street], DAY, at)
          .filter((call) => call.startsWith("lineWidth"))
          .map((call) => Number(call.split(" = ")[1])),
      );
    };
    expect(widest(17)).toBeGreaterThan(widest(14));
    expect(widest(14)).toBeGreaterThan(widest(10));
  });
});

describe("signs", () => {
  it("stand with the ring on the exact spot", () => {
    const { painter, calls } = recorder();
    drawMarker(painter, { x: 40, y: 50 }, DAY);
    expect(calls).toContain("translate 40 50");
    expect(calls).toContain("arc 0 0 8 0 6.3");
  });

  it("carry a label as text, and a number on a hollow ribbon", () => {
    const { painter, calls } = recorder();
    drawMarker(painter, { x: 0, y: 0, label: "<b>Old Mill</b>", number: 2 }, DAY);
    expect(calls.some((call) => call.startsWith('fillText "<b>Old Mill</b>"'))).toBe(true);
    expect(calls.some((call) => call.startsWith('fillText "2"'))).toBe(true);
  });

  it("leave the spot free that is aimed at", () => {
    const { painter, calls } = recorder();
    drawAim(painter, { x: 30, y: 20 }, DAY);
    expect(calls).toContain("translate 30 20");
    const strokes = calls.filter((call) => /^(moveTo|lineTo)/.test(call));
    expect(strokes).toHaveLength(16);
    for (const [, x, y] of strokes.map((call) => call.split(" ").map(Number)))
      expect(Math.abs(x) + Math.abs(y)).toBeGreaterThanOrEqual(6);
  });

  it("of a group say how many there are", () => {
    const { painter, calls } = recorder();
    drawGroup(painter, { x: 0, y: 0 }, "218", "#74476f", DAY);
    expect(calls.some((call) => call.startsWith('fillText "218"'))).toBe(true);
    expect(calls.filter((call) => call === "save")).toHaveLength(calls.filter((call) => call === "restore").length);
  });
});

describe("drawLabels", () => {
  it("writes land names with a halo, and water in its own ink without one", () => {
    const label = { key: "a", rank: 2, x: 0, y: 0, turn: 0, run: 0 };
    const { painter, calls } = recorder();
    drawLabels(painter, [{ label: { ...label, text: "Tidewell", what: "town" }, x: 10, y: 20 }], DAY);
    expect(calls.some((call) => call.startsWith('strokeText "Tidewell"'))).toBe(true);
    const water = recorder();
    drawLabels(water.painter, [{ label: { ...label, text: "Cask", what: "water" }, x: 0, y: 0 }], DAY);
    expect(water.calls.some((call) => call.startsWith("strokeText"))).toBe(false);
    expect(water.calls).toContain(`fillStyle = ${DAY.waterInk}`);
  });
});

describe("styles", () => {
  const square = (west: number, south: number, side: number): [number, number][][] => [
    [
      [west, south],
      [west + side, south],
      [west + side, south + side],
      [west, south + side],
      [west, south],
    ],
  ];
  const area = (properties: MapFeature["properties"]): MapFeature => ({
    type: "Feature",
    geometry: { type: "Polygon", coordinates: square(-21.505, -35.505, 0.02) },
    properties,
  });
  const wood = area({ layer: "cover", rank: 1, what: "wood" });
  const fields = [0, 1, 2].map((tilth) => area({ layer: "cover", rank: 2, what: "field", tilth }));
  const contours = [100, 120].map((height) => area({ layer: "contour", rank: height === 100 ? 2 : 3, height }));
  const everything = [land, wood, ...fields, ...contours, park, street];
  const on = (style: MapStyle, features = everything, palette = DAY) => {
    const { painter, calls } = recorder();
    paintTile(painter, features, tile, { palette, style });
    return calls;
  };

  it("show covers on the ground alone, and streets everywhere else", () => {
    for (const style of ["ground", "named-ground"] as const) {
      expect(on(style)).toContain(`fillStyle = ${DAY.covers.wood.paper}`);
      expect(on(style)).toContain(`fillStyle = ${DAY.fields[1]}`);
    }
    for (const style of ["streets", "heights"] as const) expect(on(style).join()).not.toContain(DAY.covers.wood.paper);
    expect(on("ground").join()).not.toContain(DAY.mainStreet);
    for (const style of ["streets", "named-ground"] as const) expect(on(style).join()).toContain(DAY.mainStreet);
    expect(on("heights").join()).toContain(DAY.thinRoad);
  });

  it("lay the steps of the ground on one another, the lowest first, lit from the north-west", () => {
    const calls = on("heights");
    const papers = [100, 120].map((height) => calls.indexOf(`fillStyle = ${paperAt(DAY, height)}`));
    expect(papers[0]).toBeGreaterThan(0);
    expect(papers[1]).toBeGreaterThan(papers[0]);
    expect(calls).toContain(`strokeStyle = ${DAY.lit}`);
    expect(calls).toContain(`strokeStyle = ${DAY.shaded}`);
  });

  it("give the light to the western and northern edges of a hill", () => {
    const calls = on("heights", [contours[0]]);
    const pathBefore = (ink: string) => {
      const end = calls.indexOf(`strokeStyle = ${ink}`);
      return calls
        .slice(calls.lastIndexOf("beginPath", end) + 1, end)
        .map((call) => call.split(" ").slice(1).map(Number));
    };
    const sides = (ink: string) => {
      const spots = pathBefore(ink);
      expect(spots.length).toBe(4);
      return [spots.slice(0, 2), spots.slice(2)].map(([[ax, ay], [bx, by]]) =>
        ax === bx ? `x ${ax}` : `y ${ay === by ? ay : "?"}`,
      );
    };
    const [north, west] = sides(DAY.lit);
    const [south, east] = sides(DAY.shaded);
    const at = (side: string) => Number(side.slice(2));
    expect([north[0], west[0], south[0], east[0]].join("")).toBe("yxyx");
    expect(at(north)).toBeLessThan(at(south));
    expect(at(west)).toBeLessThan(at(east));
  });

  it("ink no outline where a tile cut an area", () => {
    const lines = (cuts?: number[][]) =>
      on("heights", [{ ...contours[0], properties: { ...contours[0].properties, ...(cuts ? { cuts } : {}) } }]).filter(
        (call) => call.startsWith("lineTo"),
      ).length;
    expect(lines([[0, 1]])).toBe(lines() - 2);
  });

  it("go on with textures from tile to tile", () => {
    const marks = (left: number) => {
      const { painter, calls } = recorder();
      paintPart(
        painter,
        [land, wood],
        { z: 14, left, top: tile.y * 256, width: 128, height: 64 },
        { palette: DAY, style: "ground" },
      );
      return calls.flatMap((call) =>
        call.startsWith("arc ") ? [`${Math.round(Number(call.split(" ")[1]) + left)} ${call.split(" ")[2]}`] : [],
      );
    };
    const left = tile.x * 256 + 100;
    const shared = marks(left + 40).filter((mark) => marks(left).includes(mark));
    expect(shared.length).toBeGreaterThan(10);
  });

  it("can be painted in slices, the same in the end", () => {
    const { painter, calls } = recorder();
    const slices = [...paintInSlices(painter, everything, partOf(tile), { palette: NIGHT, style: "named-ground" })];
    expect(slices.length).toBeGreaterThan(5);
    expect(calls).toEqual(on("named-ground", everything, NIGHT));
  });

  it("paint the same from what they show as from everything", () => {
    for (const style of MAP_STYLES)
      expect(
        on(
          style,
          everything.filter(({ properties }) => isPainted(properties, style)),
        ),
      ).toEqual(on(style));
  });

  it("have a paper for every height", () => {
    expect(paperAt(DAY, -5)).toBe(DAY.steps[0][1]);
    expect(paperAt(DAY, 9000)).toBe(DAY.steps.at(-1)![1]);
    expect(paperAt(DAY, DAY.steps[2][0])).toBe(DAY.steps[2][1]);
    for (let height = 0; height < 1500; height += 10) expect(paperAt(NIGHT, height)).toMatch(/^#[0-9a-f]{6}$/);
  });
});
