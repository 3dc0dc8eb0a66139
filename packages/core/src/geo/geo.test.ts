import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MAX_LATITUDE, metresPerPixel, project, unproject } from "./mercator.ts";
import { pointWithin, ringsContain, signedArea } from "./polygon.ts";
import { boxAround, boxContains, isPosition, type Ring, roundDegrees } from "./position.ts";

describe("isPosition", () => {
  it.each([
    [-35.2, -21.4, true],
    [90, 180, true],
    [-90, -180, true],
    [95, 0, false],
    [0, 181, false],
    [Number.NaN, 0, false],
    [0, Number.POSITIVE_INFINITY, false],
  ])("says of %d, %d: %s", (lat, lon, expected) => {
    expect(isPosition(lat, lon)).toBe(expected);
  });
});

describe("boxContains", () => {
  it("holds its edges", () => {
    expect(boxContains([-22, -36, -21, -35], { lat: -35, lon: -22 })).toBe(true);
    expect(boxContains([-22, -36, -21, -35], { lat: -34.9, lon: -21.5 })).toBe(false);
  });

  it("works across the 180th meridian", () => {
    expect(boxContains([170, -10, -170, 10], { lat: 0, lon: 179 })).toBe(true);
    expect(boxContains([170, -10, -170, 10], { lat: 0, lon: -179 })).toBe(true);
    expect(boxContains([170, -10, -170, 10], { lat: 0, lon: 0 })).toBe(false);
  });

  it("holds every point that it was drawn around", () => {
    const point = fc.tuple(
      fc.double({ min: -179, max: 179, noNaN: true }),
      fc.double({ min: -89, max: 89, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 20 }), (points) => {
        const box = boxAround(points);
        for (const [lon, lat] of points) expect(boxContains(box, { lat, lon })).toBe(true);
      }),
    );
  });
});

describe("ringsContain", () => {
  const square: Ring = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
    [0, 0],
  ];
  const hole: Ring = [
    [4, 4],
    [6, 4],
    [6, 6],
    [4, 6],
    [4, 4],
  ];

  it("tells inside from outside", () => {
    expect(ringsContain([square], { lat: 5, lon: 5 })).toBe(true);
    expect(ringsContain([square], { lat: 5, lon: 11 })).toBe(false);
  });

  it("takes a hole as outside, and an island in it as inside", () => {
    const island: Ring = [
      [4.5, 4.5],
      [5.5, 4.5],
      [5.5, 5.5],
      [4.5, 5.5],
      [4.5, 4.5],
    ];
    expect(ringsContain([square, hole], { lat: 5, lon: 5 })).toBe(false);
    expect(ringsContain([square, hole, island], { lat: 5, lon: 5 })).toBe(true);
  });

  it("has a point inside, whatever its shape and its holes", () => {
    expect(pointWithin([square])).toEqual({ lat: 5, lon: 5 });
    // a star around its middle never crosses itself; a hole around its centroid leaves the rest
    const corner = fc.tuple(fc.double({ min: 0.2, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }));
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 9 }), fc.boolean(), (corners, hasHole) => {
        const ring = corners.map(([length, turn], i): [number, number] => {
          const angle = ((i + turn * 0.9) / corners.length) * 2 * Math.PI;
          return [120 + length * Math.cos(angle) * 1e-3, 60 + length * Math.sin(angle) * 1e-3];
        });
        const outer: Ring = [...ring, ring[0]];
        fc.pre(Math.abs(signedArea(outer)) > 1e-8);
        const middle = pointWithin([outer]);
        expect(ringsContain([outer], middle)).toBe(true);
        const round = [
          [-1, -1],
          [1, -1],
          [1, 1],
          [-1, 1],
          [-1, -1],
        ].map(([x, y]): [number, number] => [middle.lon + x * 1e-6, middle.lat + y * 1e-6]);
        if (hasHole) expect(ringsContain([outer, round], pointWithin([outer, round]))).toBe(true);
      }),
    );
  });

  it("has the middle of what has no area", () => {
    expect(
      pointWithin([
        [
          [2, 4],
          [6, 4],
          [2, 4],
        ],
      ]),
    ).toEqual({ lat: 4, lon: 4 });
    expect(pointWithin([[[2, 4]]])).toEqual({ lat: 4, lon: 2 });
  });

  it("does not care which way a ring runs", () => {
    expect(ringsContain([[...square].reverse()], { lat: 5, lon: 5 })).toBe(true);
    expect(signedArea(square)).toBe(200);
    expect(signedArea([...square].reverse())).toBe(-200);
  });
});

describe("the projection", () => {
  it("puts the middle of the map in the middle of the square", () => {
    expect(project({ lat: 0, lon: 0 })).toEqual({ x: 0.5, y: 0.5 });
    expect(project({ lat: MAX_LATITUDE, lon: -180 }).y).toBeCloseTo(0, 9);
  });

  it("comes back to where it started", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -85, max: 85, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (lat, lon) => {
          const back = unproject(project({ lat, lon }));
          expect(back.lat).toBeCloseTo(lat, 8);
          expect(back.lon).toBeCloseTo(lon, 8);
        },
      ),
    );
  });

  it("knows the metres of a pixel", () => {
    expect(metresPerPixel(0, 0)).toBeCloseTo(156_543.03, 1);
    expect(metresPerPixel(16, 60)).toBeCloseTo(metresPerPixel(16, 0) / 2, 6);
  });
});

describe("roundDegrees", () => {
  it("keeps a centimetre", () => {
    expect(roundDegrees(-35.123456789)).toBe(-35.1234568);
  });
});
