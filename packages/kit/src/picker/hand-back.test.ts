import type { RecordFeature } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { bridgeOf, type HandedBack, placeOfPicked, redirectOf } from "./hand-back.ts";

const HOUSE = {
  type: "Feature",
  id: "qr-1",
  geometry: { type: "Point", coordinates: [-21.6, -35.2] },
  properties: {
    kind: "address",
    exactness: "surveyed",
    at: { lat: -35.2, lon: -21.6 },
    line: "12 Harbour Row, Tidewell",
    lines: ["12 Harbour Row", "Tidewell"],
    parts: { house: { name: "12" }, street: { name: "Harbour Row" } },
    autofill: {},
  },
} as RecordFeature;

describe("what a picker hands back", () => {
  it("is a record with its own position, wherever the mark stood", () => {
    const place = placeOfPicked({ at: { lat: -35.3, lon: -21.7 }, record: HOUSE }, false);
    expect(place).toMatchObject({ ref: "qr-1", at: HOUSE.properties.at, state: "chosen", exactness: "surveyed" });
  });

  it("is a spot as it is, with no words of what only lies near", () => {
    const at = { lat: -35.201, lon: -21.6 };
    const place = placeOfPicked({ at, record: HOUSE }, true);
    expect(place).toMatchObject({ ref: "", line: "", parts: {}, at, state: "typed" });
    expect(place.near).toEqual({ ref: "qr-1", line: "12 Harbour Row, Tidewell", metres: 111 });
    expect(placeOfPicked({ at }, true)).not.toHaveProperty("near");
    // exactly where a record is, that record is meant
    expect(placeOfPicked({ at: HOUSE.properties.at, record: HOUSE }, true).ref).toBe("qr-1");
  });

  it("goes on to an address with all of it in the query, beside what stood there", () => {
    const back: HandedBack = {
      from: "bibliotope",
      ended: "picked",
      state: "a&b=c",
      place: placeOfPicked({ at: HOUSE.properties.at, record: HOUSE }, false),
    };
    const url = new URL(redirectOf("https://members.example/done?order=7&ref=old#top", back));
    expect(Object.fromEntries(url.searchParams)).toEqual({
      ...{
        order: "7",
        ended: "picked",
        state: "a&b=c",
        ref: "qr-1",
        line: "12 Harbour Row, Tidewell",
        address: "chosen",
      },
      ...{
        lat: "-35.2",
        lon: "-21.6",
        kind: "address",
        exactness: "surveyed",
        "part-house": "12",
        "part-street": "Harbour Row",
      },
    });
    const cancelled = redirectOf("app://localhost/done", { from: "bibliotope", ended: "cancelled", state: "" });
    expect(cancelled).toBe("app://localhost/done?ended=cancelled");
  });

  it("goes over the bridge that there is, by its name", () => {
    const bridge = { postMessage: () => undefined };
    expect(bridgeOf("places", { places: bridge })).toBe(bridge);
    expect(bridgeOf("places", { webkit: { messageHandlers: { places: bridge } } })).toBe(bridge);
    expect(bridgeOf("places", { chrome: { webview: bridge } })).toBe(bridge);
    expect(bridgeOf("places", {})).toBe(undefined);
    expect(bridgeOf("constructor", {})).toBe(undefined);
    expect(bridgeOf("places", { places: "text" })).toBe(undefined);
  });
});
