import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { stillParamsOfFormer } from "./former-params.ts";
import { jsonOfQuery, stillRequest } from "./lookup-requests.ts";

const ask = (query: string) => jsonOfQuery(new URLSearchParams(query));

describe("a still's former parameters", () => {
  it("mean the same as those of today", () => {
    const former = stillParamsOfFormer(ask("markers=-35.2,-21.4;-35.3,-21.5&size=300x200&scale=2&sheet=heights"));
    const now = ask("points=-35.2,-21.4;-35.3,-21.5&width=300&height=200&density=2&style=heights");
    expect(former).toEqual(now);
    expect(stillRequest.parse(former)).toEqual(stillRequest.parse(now));
  });

  it("leave requests of today as they are, whatever is in them", () => {
    const names = fc.constantFrom(
      "at",
      "of",
      "points",
      "line",
      "width",
      "height",
      "density",
      "style",
      "__proto__",
      "q",
    );
    fc.assert(
      fc.property(fc.dictionary(names, fc.jsonValue()), (params) => {
        expect(stillParamsOfFormer(params)).toEqual(params);
      }),
    );
  });

  it("give way to a name of today", () => {
    expect(stillParamsOfFormer({ size: "300x200", width: 100, scale: 1, density: 2 })).toEqual({
      width: 100,
      height: 200,
      density: 2,
    });
  });

  it.each(["300", "x", "1e3x400", 7, { length: 1 }])("keep a size that is none, so that it is refused: %j", (size) => {
    expect(stillParamsOfFormer({ at: "x", size })).toEqual({ at: "x", size });
  });
});
