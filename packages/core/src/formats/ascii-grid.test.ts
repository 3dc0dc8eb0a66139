import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { heightOn } from "../geo/index.ts";
import { readAsciiGrid } from "./ascii-grid.ts";

const HEADER = "ncols 3\nnrows 2\nxllcenter -21.5\nyllcenter -35.5\ncellsize 0.5\nNODATA_value -9999\n";

describe("readAsciiGrid", () => {
  it("reads rows from the north, and what is not known", () => {
    const grid = readAsciiGrid(`${HEADER}10 20 30\n1 2 -9999\n`);
    expect(grid).toMatchObject({ west: -21.5, south: -35.5, stepLon: 0.5, stepLat: 0.5, columns: 3, rows: 2 });
    expect([...grid.metres]).toEqual([1, 2, Number.NaN, 10, 20, 30]);
    expect(heightOn(grid, { lat: -35.5, lon: -21.25 })).toBeCloseTo(1.5, 5);
    expect(heightOn(grid, { lat: -35, lon: -21.5 })).toBeCloseTo(10, 5);
    expect(heightOn(grid, { lat: -35.25, lon: -20.75 })).toBeUndefined();
  });

  it("takes a corner for half a cell off the first point, any case, spaces and line ends", () => {
    const grid = readAsciiGrid("NCOLS  2\r\nNROWS 2\r\nXLLCORNER 0\r\nYLLCORNER 0\r\nCELLSIZE 1\r\n 1 2\r\n3\t4");
    expect(grid).toMatchObject({ west: 0.5, south: 0.5 });
    expect([...grid.metres]).toEqual([3, 4, 1, 2]);
  });

  it.each([
    ["", "the header has no ncols"],
    ["ncols\n1 2", 'line 1: a header line is a name and a number, this is "ncols"'],
    [HEADER.replace("ncols 3", "ncols 1"), "a grid has two columns and rows at least, not 1 by 2"],
    [`${HEADER}1 2 3`, "3 columns and 2 rows are 6 heights; the file holds 3"],
    [`${HEADER}1 2 3 4 5 six`, 'height 6 is no number: "six"'],
    [HEADER.replace("-21.5", "421500"), "save it in WGS 84"],
    [HEADER.replace("0.5", "0"), "the cells have no size"],
    [HEADER.replace("ncols 3", "ncols 90000000").replace("0.5", "1e-6"), "at most 40,000,000 heights"],
  ])("says what is wrong with %j", (text, words) => {
    expect(() => readAsciiGrid(text)).toThrow(words);
  });

  it("throws nothing but a RangeError, whatever the file holds", () => {
    fc.assert(
      fc.property(fc.string(), fc.boolean(), (text, withHeader) => {
        try {
          readAsciiGrid(withHeader ? HEADER + text : text);
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError);
        }
      }),
    );
  });
});
