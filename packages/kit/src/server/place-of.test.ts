import type { FormDefinition } from "@bibliotope/core/form";
import type { ForwardAnswer, RecordAnswer, RecordFeature } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import type { Client, Params } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { StandIn } from "../testing/index.ts";
import { placeOf, placesOf } from "./place-of.ts";

const record = (line: string, exactness: RecordFeature["properties"]["exactness"] = "surveyed") =>
  ({
    type: "Feature",
    id: `qr-${line.slice(0, 2)}`,
    properties: {
      kind: "address",
      exactness,
      at: { lat: -35.2, lon: -21.4 },
      line,
      parts: { house: { name: line.split(" ")[0] }, street: { name: "Harbour Row" }, town: { name: "Tidewell" } },
      autofill: {},
    },
  }) as unknown as RecordFeature;

/** A client that answers what is given, and notes what was requested. */
function answering(answer: Partial<ForwardAnswer> | Error, byRef?: RecordFeature | Error) {
  const queries: unknown[] = [];
  const client = {
    async forward(words: Params) {
      queries.push(words);
      if (answer instanceof Error) throw answer;
      return { outcome: "matched", advice: [], features: [], ...answer };
    },
    async record(ref: string) {
      queries.push(ref);
      if (byRef instanceof Error) throw byRef;
      return byRef as RecordAnswer;
    },
  } as unknown as Client;
  return { client, queries };
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

describe("a register", () => {
  const definition: FormDefinition = {
    title: "Offer",
    fields: [
      { name: "street", kind: "text", label: "Street", binding: "{street}" },
      { name: "house", kind: "text", label: "House", binding: "{house}" },
      { name: "town", kind: "text", label: "Town", binding: "{town}" },
      { name: "ref", kind: "hidden", label: "Ref", binding: "{ref}" },
    ],
    services: [
      { ask: "register", when: { on: "chosen" }, with: { street: "{street}", house: "{house}" }, register: "ask" },
    ],
  };
  const at = { lat: -35.2, lon: -21.6 };
  const parts = { house: "12", street: "Harbour Row", town: "Tidewell" };
  const records = [{ ref: "qr-000001", line: "12 Harbour Row, Tidewell", at, parts }];
  const official = { standing: "otherwise", street: "Harbour Rows", number: "4-118" };
  const values = { street: "Harbour Rows", house: "12", town: "Tidewell", ref: "qr-000001" };

  it("is asked with the record, and its own form of it is the record's", async () => {
    const standIn = new StandIn({ records, services: { register: official } });
    const client = standIn.client();
    expect(await placeOf(client, { definition, values }, { register: true })).toMatchObject({
      ok: true,
      ref: "qr-000001",
      register: { service: "register", standing: "otherwise", values: official },
    });
    expect(standIn.requests.at(-1)).toMatchObject({ call: "service", words: { street: "Harbour Row", house: "12" } });
    const { places } = (await placesOf(client, { definition, values }, { register: true })) as { places: object };
    expect(places).toMatchObject({ place: { ref: "qr-000001", register: { standing: "otherwise" } } });
    // whoever writes a third form has written neither
    const other = { ...values, street: "Harbour Road" };
    expect((await placeOf(client, { definition, values: other }, { register: true })).ok).toBe(false);
    expect((await placeOf(client, { definition, values })).ok).toBe(false);
  });

  it("that does not know the address vouches for nothing, whatever it answers beside that", async () => {
    const standIn = new StandIn({ records, services: { register: { ...official, standing: "unknown" } } });
    expect((await placeOf(standIn.client(), { definition, values }, { register: true })).ok).toBe(false);
  });

  it("is the first that covers the address, in the form's order", async () => {
    const rule = definition.services![0];
    const both = { ...definition, services: [{ ...rule, ask: "north" }, rule] };
    const outside = { service: "north", outcome: "outside" as const, values: {}, took: 0, kept: false };
    const standIn = new StandIn({ records, services: { north: official, register: official } });
    const asked = () => standIn.requests.flatMap(({ call, words }) => (call === "service" ? [words.name] : []));
    const confirmed = () => placeOf(standIn.client(), { definition: both, values }, { register: true });
    expect(await confirmed()).toMatchObject({ ok: true, register: { service: "north" } });
    expect(asked()).toEqual(["north"]);
    standIn.answers({ call: "service", words: { name: "north" }, answer: outside });
    expect(await confirmed()).toMatchObject({ ok: true, register: { service: "register", standing: "otherwise" } });
    expect(asked().slice(1)).toEqual(["north", "register"]);
  });

  it("that does not answer holds nothing up", async () => {
    const same = { ...values, street: "Harbour Row" };
    const none = new StandIn({ records }).client();
    expect(await placeOf(none, { definition, values: same }, { register: true })).toMatchObject({
      ok: true,
      register: { service: "register", values: {} },
    });
    const standIn = new StandIn({ records, services: { register: official } });
    const answers = { service: "register", outcome: "outside" as const, values: {}, took: 0, kept: false };
    standIn.answers({ call: "service", answer: answers });
    expect(await placeOf(standIn.client(), { definition, values: same }, { register: true })).not.toHaveProperty(
      "register",
    );
  });
});

describe("the place of a body's address", () => {
  it("is found by the parts that its form's fields hold", async () => {
    const { client, queries } = answering({ features: [record("12 Harbour Row")] });
    const values = { street: "Harbour Row", town: "Tidewell" };
    const place = await placeOf(client, { definition: DEFINITION, values }, { narrow: { countries: "QR" } });
    expect(place).toMatchObject({ ok: true, at: { lat: -35.2, lon: -21.4 }, line: "12 Harbour Row" });
    expect(queries).toEqual([{ street: "Harbour Row", town: "Tidewell", countries: "QR", limit: 5 }]);
  });

  it("is found by the ref that the form holds, and by the fields when that is gone", async () => {
    const values = { street: "Harbour Row", town: "Tidewell", place: "qr-12" };
    const stored = answering({}, record("12 Harbour Row"));
    expect(await placeOf(stored.client, { definition: DEFINITION, values })).toMatchObject({ ok: true, ref: "qr-12" });
    expect(stored.queries).toEqual(["qr-12"]);
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
      isTyped: false,
      candidates: [],
      differences: [],
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
    expect(await placeOf(answering({ features }).client, body)).toMatchObject({
      ok: false,
      why: "differs",
      problem: { title: "The address is not exact enough" },
    });
    expect(await placeOf(answering({ features }).client, body, { exactness: "along" })).toMatchObject({ ok: true });
  });

  it.each([[{ q: "  " }], [{ parts: { street: "" } }], [{ definition: DEFINITION, values: {} }]])(
    "is a problem when there is none in %j, and nothing is asked",
    async (body) => {
      const { client, queries } = answering({});
      expect(await placeOf(client, body)).toMatchObject({
        ok: false,
        why: "none",
        problem: { status: 422, title: "The address is missing" },
      });
      expect(queries).toEqual([]);
    },
  );

  it("says when it could not be looked up, and whether to try again", async () => {
    const limit = answering(new LookupError("limit", "too many", undefined, true));
    expect(await placeOf(limit.client, { q: "12" })).toMatchObject({
      ok: false,
      why: "unsure",
      again: true,
      problem: { status: 503 },
    });
    const refused = answering(new LookupError("refused", "no"));
    expect(await placeOf(refused.client, { q: "12" })).toMatchObject({
      ok: false,
      again: false,
      problem: { status: 500 },
    });
    const fault = answering(new TypeError("a fault of ours"));
    await expect(placeOf(fault.client, { q: "12" })).rejects.toThrow("a fault of ours");
  });

  it("is what the fields say, not what a ref says that was sent with them", async () => {
    const values = { street: "Elsewhere Lane", town: "Sandmouth", place: "qr-12" };
    const { client, queries } = answering({ outcome: "none" }, record("12 Harbour Row"));
    expect(await placeOf(client, { definition: DEFINITION, values })).toMatchObject({ ok: false, why: "none" });
    expect(queries).toEqual(["qr-12", { street: "Elsewhere Lane", town: "Sandmouth", limit: 5 }]);
    const elsewhere = answering({ features: [record("99 Elsewhere Lane")] }, record("12 Harbour Row"));
    expect(await placeOf(elsewhere.client, { definition: DEFINITION, values })).toMatchObject({
      ok: true,
      ref: "qr-99",
    });
  });

  it("is not one of which something that was written is not so", async () => {
    const first = record("12 Harbour Row");
    first.properties.differences = [{ part: "house", written: "12b", held: "12", how: "nearby" }];
    const { client } = answering({ outcome: "differs", features: [first] });
    expect(await placeOf(client, { parts: { street: "Harbour Row", house: "12b" } })).toMatchObject({
      ok: false,
      why: "differs",
      candidates: [first],
      differences: first.properties.differences,
      problem: { status: 422, detail: "“12b” is not known here, but “12” is." },
    });
    // a flat of a house that is known
    first.properties.differences = [{ part: "unit", written: "9", how: "absent" }];
    const unit = answering({ outcome: "matched", features: [first] });
    expect(await placeOf(unit.client, { q: "Flat 9, 12 Harbour Row" })).toMatchObject({ ok: true });
  });
});

describe("the places of a body's addresses", () => {
  const LETTERS: FormDefinition = {
    title: "Members",
    fields: [
      ...DEFINITION.fields,
      { name: "sure", kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
      { name: "letters", kind: "choice", label: "Letters go", options: [] },
      {
        name: "to",
        kind: "text",
        label: "To",
        binding: "{street}",
        address: "letters",
        show: { field: "letters", is: "elsewhere" },
      },
      { name: "to-ref", kind: "hidden", label: "Ref", binding: "{ref}", address: "letters" },
    ],
  };
  const body = (values: Record<string, string>) => ({ definition: LETTERS, values });

  it("are of those that people see", async () => {
    const stored = answering({ features: [record("14 Harbour Row")] }, record("12 Harbour Row"));
    const values = {
      street: "Harbour Row",
      town: "Tidewell",
      place: "qr-12",
      letters: "here",
      to: "Old Row",
      "to-ref": "qr-99",
    };
    const place = { ref: "qr-12", line: "12 Harbour Row", exactness: "surveyed", lat: -35.2, lon: -21.4 };
    expect(await placesOf(stored.client, body(values))).toEqual({ ok: true, places: { place } });
    const both = answering({ features: [record("14 Harbour Row")] }, record("12 Harbour Row"));
    const found = await placesOf(both.client, body({ ...values, letters: "elsewhere", "to-ref": "" }));
    expect(found).toMatchObject({ ok: true, places: { place, letters: { ref: "qr-14" } } });
  });

  it("are positions as they were sent, where the form lets them be anywhere", async () => {
    const definition: FormDefinition = {
      title: "A stop",
      fields: [
        { name: "spot", kind: "text", label: "Position", binding: "{position}" },
        { name: "beside", kind: "shown", label: "Beside", binding: "{line}" },
      ],
      addresses: [{ name: "", anywhere: true, start: { on: "never" } }],
    };
    const { client, queries } = answering({ features: [record("12 Harbour Row")] });
    const values = { spot: "-35.25, -21.5" };
    expect(await placesOf(client, { definition, values })).toEqual({
      ok: true,
      places: { place: { lat: -35.25, lon: -21.5 } },
    });
    expect(queries).toEqual([]);
    for (const spot of ["", "here", "91,0", "-35.25"])
      expect(await placesOf(client, { definition, values: { spot } })).toMatchObject({
        ok: false,
        problem: { status: 422, title: "The position is missing" },
      });
  });

  it("are no more than typed where somebody requested that, and a problem where nobody did", async () => {
    const { client } = answering({ outcome: "none" });
    const values = { street: "Nosuch Lane", town: "Tidewell", letters: "here" };
    expect(await placesOf(client, body({ ...values, sure: "no" }))).toEqual({
      ok: true,
      places: { place: { typed: true } },
    });
    expect(await placesOf(client, body(values))).toMatchObject({ ok: false, problem: { status: 422 } });
  });
});
