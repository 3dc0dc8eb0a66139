import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { project, TILE } from "../geo/index.ts";
import { MarkerGroups } from "./groups.ts";

const position = fc.record({
  lat: fc.double({ min: -37, max: -34, noNaN: true }),
  lon: fc.double({ min: -23, max: -20, noNaN: true }),
});
const positions = fc.array(position, { maxLength: 60 });
const zoom = fc.integer({ min: 0, max: 17 });

describe("MarkerGroups", () => {
  it("has every marker in just one group, at any zoom", () => {
    fc.assert(
      fc.property(positions, zoom, (its, z) => {
        const groups = new MarkerGroups(its).at(z);
        expect(groups.reduce((sum, { count }) => sum + count, 0)).toBe(its.length);
        expect(new Set(groups.map(({ first }) => first)).size).toBe(groups.length);
      }),
    );
  });

  it("never joins again what came apart on the way closer", () => {
    fc.assert(
      fc.property(positions, (its) => {
        const groups = new MarkerGroups(its);
        for (let z = 0; z < 17; z++) expect(groups.at(z).length).toBeLessThanOrEqual(groups.at(z + 1).length);
        // the first of each group is the first of one of the groups it is made of
        for (let z = 0; z < 17; z++) {
          const closer = new Set(groups.at(z + 1).map(({ first }) => first));
          for (const { first } of groups.at(z)) expect(closer.has(first)).toBe(true);
        }
      }),
    );
  });

  it("is the same whichever zoom was requested first", () => {
    fc.assert(
      fc.property(positions, zoom, zoom, (its, a, b) => {
        const groups = new MarkerGroups(its);
        groups.at(a);
        expect(groups.at(b)).toEqual(new MarkerGroups(its).at(b));
      }),
    );
  });

  it("has the mean of those of its markers that have a value, however often groups were joined", () => {
    const valued = fc.tuple(position, fc.option(fc.integer({ min: -1000, max: 1000 }), { nil: Number.NaN }));
    fc.assert(
      fc.property(fc.array(valued, { maxLength: 60 }), zoom, (its, z) => {
        const values = its.map(([, value]) => value);
        const known = values.filter((value) => !Number.isNaN(value));
        const groups = new MarkerGroups(
          its.map(([at]) => at),
          undefined,
          values,
        );
        const alone = groups.at(z).filter(({ count }) => count === 1);
        for (const { first, mean } of alone) expect(mean).toBe(Number.isNaN(values[first]) ? undefined : values[first]);
        // at the very least zoom, where a mean is of all of a group: no value is lost, none counted twice
        const [most] = groups.at(0).toSorted((a, b) => b.count - a.count);
        if (most?.count === its.length && known.length)
          expect(most.mean).toBeCloseTo(known.reduce((sum, value) => sum + value, 0) / known.length, 9);
      }),
    );
  });

  it("tells the kind that all markers of a group are of", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(position, fc.nat(2)), { maxLength: 60 }), zoom, (its, z) => {
        const groups = new MarkerGroups(
          its.map(([at]) => at),
          its.map(([, kind]) => kind),
        );
        const byKind = [0, 1, 2].map((kind) => groups.at(z).filter((group) => group.kind === kind));
        for (const [kind, same] of byKind.entries())
          expect(same.reduce((sum, { count }) => sum + count, 0)).toBeLessThanOrEqual(
            its.filter(([, its]) => its === kind).length,
          );
        for (const { first, kind, count } of groups.at(z))
          if (count === 1 || kind !== undefined) expect(kind).toBe(its[first][1]);
      }),
    );
    const at = { lat: -35.2, lon: -21.4 };
    expect(new MarkerGroups([at, at], [1, 1]).at(5)[0].kind).toBe(1);
    expect(new MarkerGroups([at, at], [1, 2]).at(5)[0].kind).toBeUndefined();
  });

  it("joins two markers that would touch, and no others", () => {
    const at = { lat: -35.2, lon: -21.4 };
    const pixels = (count: number, z: number) => ({ lat: at.lat, lon: at.lon + (360 * count) / (TILE * 2 ** z) });
    const groups = new MarkerGroups([at, pixels(30, 12), pixels(200, 12)]);
    expect(
      groups
        .at(12)
        .map(({ count }) => count)
        .sort(),
    ).toEqual([1, 2]);
    expect(groups.at(13).map(({ count }) => count)).toEqual([1, 1, 1]);
    expect(groups.apartAt({ first: 0, count: 2 })).toBe(13);
  });

  it("do not count as apart while nearly all of a group is still together", () => {
    const at = (i: number) => ({ lat: -35.2 + (i % 20) * 1e-4, lon: -21.6 + Math.floor(i / 20) * 1e-4 });
    const groups = new MarkerGroups(Array.from({ length: 400 }, (_, i) => at(i)));
    const [whole] = groups.at(11);
    expect(whole.count).toBe(400);
    const zoom = groups.apartAt(whole);
    expect(groups.at(zoom).find(({ first }) => first === whole.first)!.count).toBeLessThanOrEqual(300);
    expect(groups.at(zoom - 1).find(({ first }) => first === whole.first)!.count).toBeGreaterThan(300);
  });

  it("puts a group in the middle of its markers", () => {
    const [a, b] = [
      { lat: -35.2, lon: -21.4 },
      { lat: -35.2, lon: -21.39 },
    ];
    const [{ x }] = new MarkerGroups([a, b]).at(6);
    expect(x).toBeCloseTo((project(a).x + project(b).x) / 2, 12);
  });

  it("lets markers on the very same spot stand alone only at the closest zooms", () => {
    const at = { lat: -35.2, lon: -21.4 };
    const groups = new MarkerGroups([at, at, at]);
    expect(groups.at(16)).toHaveLength(1);
    expect(groups.at(18)).toHaveLength(3);
  });

  it("is empty without markers", () => {
    expect(new MarkerGroups([]).at(10)).toEqual([]);
  });
});

describe("those in sight", () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const position = fc.record({
    lat: fc.double({ min: -80, max: 80, noNaN: true }),
    lon: fc.double({ min: -180, max: 180, noNaN: true }),
  });

  it("are all those that lie in the frame, and no others, over the 180th meridian too", () => {
    fc.assert(
      fc.property(fc.array(position, { maxLength: 60 }), share, share, share, (positions, x, y, size) => {
        const groups = new MarkerGroups(positions).prepare();
        const frame = { left: x - size / 2, right: x + size / 2, top: y - size / 2, bottom: y + size / 2 };
        const isIn = (group: { x: number; y: number }) =>
          [-1, 0, 1].some((copy) => group.x >= frame.left + copy && group.x <= frame.right + copy) &&
          group.y >= frame.top &&
          group.y <= frame.bottom;
        for (const zoom of [6, 10, 17]) {
          const byFirst = (list: { first: number }[]) => list.map(({ first }) => first).sort((a, b) => a - b);
          expect(byFirst(groups.at(zoom, frame))).toEqual(byFirst(groups.at(zoom).filter(isIn)));
        }
      }),
    );
  });

  it("say from which zoom on a marker stands alone", () => {
    const near = { lat: -35.2, lon: -21.4 };
    const groups = new MarkerGroups([near, { lat: -35.2, lon: -21.399 }, { lat: -36.9, lon: -22.9 }]);
    const zoom = groups.aloneAt(1);
    expect(groups.at(zoom).find(({ first }) => first === 1)?.count).toBe(1);
    expect(groups.at(zoom - 1).some(({ first, count }) => first === 1 && count === 1)).toBe(false);
    expect(groups.aloneAt(2)).toBeLessThan(zoom);
  });
});
