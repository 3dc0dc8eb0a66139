import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { geoUri, handOn } from "./hand-on.ts";

const at = { lat: -35.1739871234, lon: -21.6308961234 };

describe("handOn", () => {
  it("makes a geo: URI with the label, and text to copy, when nothing else is set", () => {
    expect(handOn(at, "Old Mill & Co; 2")).toEqual({
      show: "geo:-35.1739871,-21.6308961;name=Old%20Mill%20%26%20Co%3B%202",
      text: "-35.1739871, -21.6308961",
    });
  });

  it("fills templates for the place and for the way there", () => {
    const templates = {
      show: "https://maps.example/at/{lat},{lon}{?label}",
      way: "https://maps.example/way{?to*,lat,lon}",
    };
    expect(handOn(at, "A/B?", templates)).toMatchObject({
      show: "https://maps.example/at/-35.1739871,-21.6308961?label=A%2FB%3F",
      way: "https://maps.example/way?lat=-35.1739871&lon=-21.6308961",
    });
  });

  it.each(["javascript:alert({lat})", "data:text/html,{label}", "{label}", "/at/{lat}"])(
    "refuses a template that makes no link elsewhere: %s",
    (show) => {
      expect(() => handOn(at, "javascript:alert(1)", { show })).toThrow(RangeError);
    },
  );

  it("lets no label out of its place, whatever it holds", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), (label) => {
        const uri = geoUri({ lat: 1, lon: 2 }, label);
        const [place, ...parameters] = uri.split(";");
        expect(place).toBe("geo:1,2");
        expect(parameters.length).toBe(label ? 1 : 0);
        if (label) expect(decodeURIComponent(parameters[0].slice("name=".length))).toBe(label);
        expect(uri).not.toMatch(/[\s"<>]/);
      }),
    );
  });
});
