import type { FormDefinition } from "@bibliotope/core/form";
import type { ForwardAnswer, RecordAnswer, RecordFeature } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import type { Asked, Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { placeOf } from "./place-of.ts";

const record = (line: string, exactness: RecordFeature["properties"]["exactness"] = "surveyed") =>
  ({
    type: "Feature",
    id: `qr-${line.slice(0, 2)}`,
    properties: { kind: "address", exactness, at: { lat: -35.2, lon: -21.4 }, line, parts: {}, autofill: {} },
  }) as unknown as RecordFeature;

/** A client that answers what is given, and notes what was asked. */
function answering(answer: Partial<ForwardAnswer> | Error, byRef?: RecordFeature | Error) {
  const asked: unknown[] = [];
  const client = {
    async forward(words: Asked) {
      asked.push(words);
      if (answer instanceof Error) throw answer;
      return { outcome: "matched", advice: [], features: [], ...answer };
    },
    async record(ref: string) {
      asked.push(ref);
      if (byRef instanceof Error) throw byRef;
      return byRef as RecordAnswer;
    },
  } as unknown as Client;
  return { client, asked };
}

const DEFINITION: FormDefinition = {
  title: "Members",
  fields: [
    { name: "street", kind: "text", label: "Street", binding: "{street}" },
    { name: "town", kind: "text", label: "Town", binding: "{town}" },
    { name: "place", kind: "hidden", label: "Ref", binding: "{ref}" },
  ],
  addresses: [{ name: "", exactness: "between" }],
};

describe("the place of a body's address", () => {
  it("is found by the parts that its form's fields hold", async () => {
    const { client, asked } = answering({ features: [record("12 Harbour Row")] });
    const values = { street: "Harbour Row", town: "Tidewell" };
    const place = await placeOf(client, { definition: DEFINITION, values }, { narrow: { countries: "QR" } });
    expect(place).toMatchObject({ ok: true, at: { lat: -35.2, lon: -21.4 }, line: "12 Harbour Row" });
    expect(asked).toEqual([{ street: "Harbour Row", town: "Tidewell", countries: "QR", limit: 5 }]);
  });

  it("is found by the ref that the form holds, and by the fields when that is gone", async () => {
    const values = { street: "Harbour Row", town: "Tidewell", place: "qr-12" };
    const held = answering({}, record("12 Harbour Row"));
    expect(await placeOf(held.client, { definition: DEFINITION, values })).toMatchObject({ ok: true, ref: "qr-12" });
    expect(held.asked).toEqual(["qr-12"]);
    const gone = answering({ features: [record("14 Harbour Row")] }, new LookupError("missing", "gone"));
    expect(await placeOf(gone.client, { definition: DEFINITION, values })).toMatchObject({ ok: true, ref: "qr-14" });
  });

  it("is a problem at the form's field when nothing is known, with the advice", async () => {
    const { client } = answering({ outcome: "none", advice: ["No street is called Harbr."] });
    const place = await placeOf(client, { q: "Harbr", field: "find" });
    expect(place).toEqual({
      ok: false,
      why: "none",
      again: false,
      candidates: [],
      problem: {
        type: "about:blank",
        title: "The address is not known",
        status: 422,
        detail: "No such address is known. No street is called Harbr.",
        issues: [{ parameter: "find", message: "No such address is known. No street is called Harbr." }],
      },
    });
  });

  it("is a problem when several fit, which it names", async () => {
    const features = [record("1 Mill Lane, Tidewell"), record("1 Mill Lane, Sallow")];
    const place = await placeOf(answering({ outcome: "ambiguous", features }).client, {
      parts: { street: "Mill Lane" },
    });
    expect(place).toMatchObject({ ok: false, why: "several", candidates: features });
    expect(!place.ok && place.problem.issues![0].message).toContain("1 Mill Lane, Tidewell; 1 Mill Lane, Sallow.");
  });

  it("is a problem when it is less exact than the form asks for", async () => {
    const features = [record("Harbour Row", "along")];
    const body = { definition: DEFINITION, values: { street: "Harbour Row" } };
    expect(await placeOf(answering({ features }).client, body)).toMatchObject({ ok: false, why: "inexact" });
    expect(await placeOf(answering({ features }).client, body, { exactness: "along" })).toMatchObject({ ok: true });
  });

  it.each([[{ q: "  " }], [{ parts: { street: "" } }], [{ definition: DEFINITION, values: {} }]])(
    "is a problem when there is none in %j, and nothing is asked",
    async (body) => {
      const { client, asked } = answering({});
      expect(await placeOf(client, body)).toMatchObject({ ok: false, why: "empty", problem: { status: 422 } });
      expect(asked).toEqual([]);
    },
  );

  it("says when it could not be looked up, and whether to try again", async () => {
    const limit = answering(new LookupError("limit", "too many", undefined, true));
    expect(await placeOf(limit.client, { q: "12" })).toMatchObject({
      ok: false,
      why: "unreachable",
      again: true,
      problem: { status: 503 },
    });
    const refused = answering(new LookupError("refused", "no"));
    expect(await placeOf(refused.client, { q: "12" })).toMatchObject({ ok: false, again: false });
    const fault = answering(new TypeError("a fault of ours"));
    await expect(placeOf(fault.client, { q: "12" })).rejects.toThrow("a fault of ours");
  });
});
