import type { ForwardAnswer, RecordFeature } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import type { Client } from "../client/client.ts";
import { findMarker } from "./marker.ts";

const HOUSE = { type: "Feature", id: "qr-1" } as RecordFeature;

function answering(outcome: ForwardAnswer["outcome"], features = [HOUSE]): Client {
  return {
    forward: async () => ({ outcome, features, advice: [], source: [], type: "FeatureCollection" }),
    record: async (ref: string) => ({ ...HOUSE, id: ref }),
  } as unknown as Client;
}

describe("where a marker is to stand", () => {
  it("is where the address is that is meant", async () => {
    expect(await findMarker(answering("matched"), { address: "12 Harbour Row, Tidewell" })).toBe(HOUSE);
    expect(await findMarker(answering("matched"), { ref: "qr-7" })).toMatchObject({ id: "qr-7" });
  });

  it.each(["differs", "ambiguous", "none"] as const)("is nowhere for an address that is %s", async (outcome) => {
    const features = outcome === "none" ? [] : [HOUSE];
    expect(await findMarker(answering(outcome, features), { address: "12b Harbour Row" })).toBeUndefined();
  });
});
