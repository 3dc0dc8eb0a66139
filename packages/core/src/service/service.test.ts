import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  checkInputs,
  checkService,
  escapeXml,
  followPointer,
  pointerTo,
  putIn,
  readValues,
  type Service,
  textOf,
  timeLimitOf,
  writeBody,
  writeEnvelope,
} from "./index.ts";

const COURIER: Service = {
  name: "courier",
  title: "Courier",
  ask: { by: "http", method: "GET", url: "https://courier.example/days{?town}" },
  inputs: [{ name: "town", kind: "text", required: true }],
  values: [{ name: "days", way: "/days", kind: "text", isList: true }],
};
const REGISTER: Service = {
  ...COURIER,
  ask: {
    by: "soap",
    version: "1.2",
    url: "https://register.example/",
    operation: "Confirm",
    namespace: "urn:r",
    action: "urn:r/Confirm",
  },
};
const changed = (part: object): string[] =>
  checkService({ ...COURIER, ...part } as Service).map(({ where, message }) => `${where}: ${message}`);
const request = (part: object) => changed({ ask: { ...COURIER.ask, ...part } });

describe("a description", () => {
  it("is right as it is", () => expect(changed({})).toEqual([]));

  it.each<[string, string[], string]>([
    ["a name in capitals", changed({ name: "Courier" }), "lower-case letters only"],
    ["an input twice", changed({ inputs: [COURIER.inputs[0], COURIER.inputs[0]] }), "there twice"],
    ["a value twice", changed({ values: [COURIER.values[0], COURIER.values[0]] }), "there twice"],
    ["no scheme", request({ url: "courier.example/days" }), "begins with https://"],
    ["another scheme", request({ url: "file:///etc/passwd" }), "begins with https://"],
    ["an input as the host", request({ url: "https://{town}.example/" }), "the host is always the same"],
    ["a password in the address", request({ url: "https://me:it@courier.example/" }), "belong into a secret"],
    ["a secret in the address", request({ url: "https://courier.example/{secret.token}" }), "into a header"],
    ["an input nobody declared", request({ headers: [{ name: "X-Town", value: "{city}" }] }), "which is no input"],
    ["a header of the connection", request({ headers: [{ name: "Host", value: "x" }] }), "written by itself"],
    ["a line break in a header", request({ headers: [{ name: "X-A", value: "a\r\nB: c" }] }), "line break"],
    ["a name of a header", request({ headers: [{ name: "X A", value: "a" }] }), "no name of a header"],
    ["a body of GET", request({ body: { kind: "json", text: "{}" } }), "has no body"],
    ["a body that is no JSON", request({ method: "POST", body: { kind: "json", text: "{town}" } }), "within quotes"],
    ["a time limit of no input", changed({ timeLimitFrom: "patience" }), "is no input"],
    ["a register without a standing", changed({ register: { countries: ["QR"] } }), "standing"],
    ["a register of nowhere", changed({ register: { countries: [] } }), "no country"],
    ["an operation that is no name", changed({ ask: { ...REGISTER.ask, operation: "a><b" } }), "no name of XML"],
    ["an item's way into XML", changed({ values: [{ ...COURIER.values[0], way: "//a", each: "b" }] }), "JSON Pointer"],
  ])("with %s is told of", (_, issues, words) => expect(issues.join("\n")).toContain(words));
});

describe("a body", () => {
  const inputs: Service["inputs"] = [
    { name: "town", kind: "text" },
    { name: "books", kind: "number" },
    { name: "soon", kind: "yesno" },
  ];
  const given = (values: Record<string, string>) => (name: string) => values[name];

  it("of JSON holds numbers and yes or no as such, and nothing as null", () => {
    const text = '{ "to": "{town}", "label": "for {town}", "books": "{books}", "soon": "{soon}", "more": ["{town}"] }';
    const write = (values: Record<string, string>) =>
      JSON.parse(writeBody({ kind: "json", text }, given(values), inputs).text);
    expect(write({ town: 'A "B" \\ C', books: "3", soon: "yes" })).toEqual({
      ...{ to: 'A "B" \\ C', label: 'for A "B" \\ C', books: 3, soon: true },
      more: ['A "B" \\ C'],
    });
    expect(write({ town: "" })).toMatchObject({ to: "", books: null, soon: null });
  });

  it("keeps its shape, whatever is put in: by properties", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), (town) => {
        const json = writeBody({ kind: "json", text: '{ "a": ["{town}"], "b": 1 }' }, given({ town }), inputs);
        expect(JSON.parse(json.text)).toEqual({ a: [town], b: 1 });
        const form = writeBody({ kind: "form", text: "a={town}&b=1" }, given({ town }), inputs);
        expect([...new URLSearchParams(form.text)]).toEqual([
          ["a", town],
          ["b", "1"],
        ]);
        const xml = writeBody({ kind: "xml", text: "<a t='{town}'>{town}</a>" }, given({ town }), inputs).text;
        expect(xml.replace(/&(amp|lt|gt|quot|apos);/g, "")).toMatch(/^<a t='[^<>&'"]*'>[^<>&'"]*<\/a>$/);
      }),
    );
  });

  it("of SOAP has its inputs in their order, and in the namespace only where that is requested", () => {
    const value = given({ town: "A <b> & c", house: "" });
    const fields: Service["inputs"] = [
      { name: "house", kind: "text" },
      { name: "town", kind: "text", required: true },
    ];
    const ask = REGISTER.ask as Extract<Service["ask"], { by: "soap" }>;
    const twelve = writeEnvelope(ask, value, fields);
    expect(twelve.mediaType).toBe('application/soap+xml; charset=utf-8; action="urn:r/Confirm"');
    expect(twelve.text).toContain("<town>A &lt;b&gt; &amp; c</town>");
    expect(twelve.text).not.toContain("house");
    const eleven = writeEnvelope({ ...ask, version: "1.1", isQualified: true }, value, fields);
    expect(eleven.headers).toEqual({ SOAPAction: '"urn:r/Confirm"' });
    expect(eleven.text).toContain("<op:town>");
    expect(eleven.text).toContain('xmlns:env="http://schemas.xmlsoap.org/soap/envelope/"');
  });

  it("leaves out what XML cannot hold", () => expect(escapeXml("a\0b\u0007\ud800c")).toBe("abc"));
});

describe("placeholders", () => {
  it("are filled once: what is put in is not looked into again", () => {
    expect(putIn("{a} {b} {secret.x} { c }", (name) => ({ a: "{b}", b: "2", "secret.x": "s" })[name])).toBe(
      "{b} 2 s { c }",
    );
  });
});

describe("values", () => {
  const answer = {
    days: ["Monday", "Friday", 7, null, { day: "x" }],
    slots: [{ day: "Monday" }, { day: "Friday" }, {}],
    cost: "4.50",
    one: "alone",
    "a/b~c": { "": 1 },
    open: true,
    from: "2026-06-01",
  };
  const read = (value: Partial<Service["values"][number]>) =>
    readValues({ values: [{ name: "v", way: "", kind: "text", ...value }] }, (way) => followPointer(answer, way)).values
      .v;

  it.each<[string, object, string | string[]]>([
    ["a list", { way: "/days", isList: true }, ["Monday", "Friday", "7"]],
    ["a list of things", { way: "/slots", each: "/day", isList: true }, ["Monday", "Friday"]],
    ["a list where one is expected", { way: "/days" }, "Monday"],
    ["one where a list is expected", { way: "/one", isList: true }, ["alone"]],
    ["a number", { way: "/cost", kind: "number" }, "4.5"],
    ["no number", { way: "/one", kind: "number" }, ""],
    ["yes or no", { way: "/open", kind: "yesno" }, "yes"],
    ["a date", { way: "/from", kind: "date" }, "2026-06-01"],
    ["no date", { way: "/one", kind: "date", missing: "some day" }, "some day"],
    ["nothing", { way: "/nowhere" }, ""],
    ["nothing, with words for it", { way: "/nowhere", missing: "not known" }, "not known"],
    ["an empty list", { way: "/nowhere", isList: true }, []],
    ["an object", { way: "/slots/0" }, ""],
    ["a way with signs in it", { way: "/a~1b~0c/", kind: "number" }, "1"],
    ["what every object has", { way: "/constructor/name" }, ""],
    ["no place of a list", { way: "/days/length" }, ""],
  ])("of %s", (_, value, expected) => expect(read(value)).toEqual(expected));

  it("that are a line become positions, of a long one as many as are good", () => {
    const line = (count: number) => ({
      type: "LineString",
      coordinates: Array.from({ length: count }, (_, i) => [i / 1000, -i / 2000]),
    });
    expect(textOf(line(3), "line")).toBe("0,0 -0.0005,0.001 -0.001,0.002");
    const long = textOf(line(5000), "line")!.split(" ");
    expect(long.length).toBeLessThanOrEqual(501);
    expect(long.at(-1)).toBe("-2.4995,4.999");
    expect(textOf("1,2 3,4", "line")).toBe("1,2 3,4");
    for (const wrong of [
      ...[
        "1,2",
        "a,b c,d",
        null,
        7,
        { type: "Point", coordinates: [1, 2] },
        { type: "LineString", coordinates: [[1, 2]] },
      ],
      {
        type: "LineString",
        coordinates: [
          [200, 1],
          [1, 2],
        ],
      },
      { type: "LineString", coordinates: ["x", "y"] },
    ])
      expect(textOf(wrong, "line"), JSON.stringify(wrong)).toBeUndefined();
  });

  it("are found again by the pointers to them", () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { minLength: 1, maxLength: 5 }), (keys) => {
        const stored = keys.reduceRight<unknown>((inner, key) => Object.fromEntries([[key, inner]]), "found");
        const pointer = keys.reduce<string>((way, key) => pointerTo(way, key), "");
        expect(followPointer(stored, pointer)).toEqual(["found"]);
      }),
    );
  });

  it("are never undefined, not a number, or an object: by properties", () => {
    fc.assert(
      fc.property(fc.anything(), fc.constantFrom("text", "number", "date", "yesno"), (value, kind) => {
        const text = textOf(value, kind as "text");
        if (text !== undefined) expect(text).not.toMatch(/^(undefined|NaN|\[object.*|)$/);
      }),
      { examples: [[Number.NaN, "number"]] },
    );
  });
});

describe("inputs", () => {
  it("are told of when they are missing, unknown or of another kind", () => {
    const inputs: Service["inputs"] = [
      { name: "town", kind: "text", required: true },
      { name: "books", kind: "number" },
      { name: "day", kind: "date" },
      { name: "soon", kind: "yesno" },
    ];
    const given = { books: "many", day: "1.6.", soon: "perhaps", length: "3" };
    expect(checkInputs({ inputs }, given).map(({ name }) => name)).toEqual(["length", "town", "books", "day", "soon"]);
    expect(checkInputs({ inputs }, { town: "Tidewell", books: "3", day: "2026-06-01", soon: "yes" })).toEqual([]);
  });

  it("may say how long is waited, never longer than is good", () => {
    const service = { timeLimit: 3, timeLimitFrom: "wait" };
    expect([
      timeLimitOf(service, {}),
      timeLimitOf(service, { wait: "2" }),
      timeLimitOf(service, { wait: "900" }),
      timeLimitOf(service, { wait: "-1" }),
      timeLimitOf({}, {}, 7),
    ]).toEqual([3000, 2000, 30_000, 3000, 7000]);
  });
});
