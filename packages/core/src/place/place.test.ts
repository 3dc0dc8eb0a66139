import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { namesIn, parsePattern } from "../pattern/index.ts";
import {
  autofillParts,
  autofillValues,
  envelopeLines,
  formatHouseNumber,
  formatLine,
  heldProfile,
  MAX_IDENTITY,
  PARTS,
  type Parts,
  parseHouseNumber,
  parseRef,
  partLookup,
  pickName,
  profileOf,
  refOf,
} from "./index.ts";

const LORRAMERE: Parts = {
  house: { name: "12" },
  street: { name: "Harbour Row", abbr: "Harbour Rw" },
  town: { name: "Tidewell", ref: "qr-000001" },
  county: { name: "Sallow", code: "QR-SA" },
  postcode: { name: "HT4 29" },
  country: { name: "Lorramere", code: "QR" },
};
const OVARDE: Parts = {
  house: { name: "12 b" },
  street: { name: "Østergränd" },
  unit: { name: "lgh 3" },
  town: { name: "Vårhamn" },
  region: { name: "Nörrland" },
  postcode: { name: "4410" },
  country: { name: "Ovarde", code: "QV" },
};
const THALMYRA: Parts = {
  building: { name: "4" },
  block: { name: "Τετράγωνο 7" },
  district: { name: "Άνω Λίμνα" },
  town: { name: "Πελανία" },
  region: { name: "Μεσαία" },
  postcode: { name: "ΘΑ-123" },
  country: { name: "Θαλμύρα", code: "QY" },
};

describe("an address in its country's own order", () => {
  it("is number, street, town, county, postcode in Lorramere", () => {
    expect(formatLine(LORRAMERE, profileOf("QR"))).toBe("12 Harbour Row, Tidewell, Sallow, HT4 29");
    expect(envelopeLines(LORRAMERE, profileOf("QR"))).toEqual([
      "12 Harbour Row",
      "Tidewell",
      "Sallow",
      "HT4 29",
      "LORRAMERE",
    ]);
  });

  it("is street, number, then postcode before town in Ovarde", () => {
    expect(envelopeLines(OVARDE, profileOf("QV"))).toEqual(["Østergränd 12 b, lgh 3", "4410 Vårhamn", "OVARDE"]);
  });

  it("begins with the broadest in Thalmyra", () => {
    expect(envelopeLines(THALMYRA, profileOf("QY"))).toEqual([
      "Μεσαία",
      "Πελανία ΘΑ-123",
      "Άνω Λίμνα",
      "Τετράγωνο 7, 4",
      "ΘΑΛΜΎΡΑ",
    ]);
  });

  it("leaves missing parts out cleanly", () => {
    const { postcode: _, ...without } = THALMYRA;
    expect(formatLine(without, profileOf("QY"))).toBe("Μεσαία, Πελανία, Άνω Λίμνα, Τετράγωνο 7, 4");
    expect(formatLine({ country: { name: "Lorramere", code: "QR" } }, profileOf("QR"))).toBe("Lorramere");
  });

  it("has a sane default where no profile is known", () => {
    expect(heldProfile("QM")).toBeUndefined();
    expect(formatLine(LORRAMERE, profileOf("QM"))).toContain("12 Harbour Row");
  });
});

describe("autofillValues", () => {
  it("fills the tokens of the HTML standard, levels broadest first", () => {
    expect(autofillValues(LORRAMERE, profileOf("QR"))).toEqual({
      "address-line1": "12 Harbour Row",
      "street-address": "12 Harbour Row",
      "address-level1": "Sallow",
      "address-level2": "Tidewell",
      "postal-code": "HT4 29",
      country: "QR",
      "country-name": "Lorramere",
    });
  });

  it("has no token for what is not there", () => {
    const { postcode: _, ...without } = THALMYRA;
    expect(autofillValues(without, profileOf("QY"))).not.toHaveProperty("postal-code");
    expect(autofillValues(THALMYRA, profileOf("QY"))["address-level3"]).toBe("Άνω Λίμνα");
  });

  it("draws on the parts that autofillParts names", () => {
    for (const [parts, code] of [
      [LORRAMERE, "QR"],
      [OVARDE, "QV"],
      [THALMYRA, "QY"],
    ] as const) {
      for (const [token, value] of Object.entries(autofillValues(parts, profileOf(code)))) {
        const from = autofillParts(token, profileOf(code));
        expect(
          from.some((part) => value.includes(parts[part]?.name ?? "\0") || value === parts[part]?.code),
          token,
        ).toBe(true);
      }
    }
    expect(autofillParts("email", profileOf("QR"))).toEqual([]);
  });
});

describe("the profiles", () => {
  it.each(["QR", "QV", "QY"])("of %s can be read, and name only parts", (code) => {
    const profile = profileOf(code);
    for (const source of [profile.lines, profile.line, profile.suggestion, profile.within, profile.addressLine]) {
      const parsed = parsePattern(source);
      expect(parsed.ok, source).toBe(true);
      if (parsed.ok) for (const name of namesIn(parsed.pattern)) expect(PARTS).toContain(name.split(".")[0]);
    }
    for (const example of profile.postcode?.examples ?? [])
      expect(example).toMatch(new RegExp(profile.postcode!.shape, "u"));
    expect(profile.labels[profile.number.part]).toBeDefined();
  });
});

describe("partLookup", () => {
  it("reads the name, and other forms behind a dot", () => {
    const lookup = partLookup(LORRAMERE);
    expect(lookup("street")).toBe("Harbour Row");
    expect(lookup("street.abbr")).toBe("Harbour Rw");
    expect(lookup("country.code")).toBe("QR");
    expect(lookup("unit")).toBeUndefined();
    expect(lookup("town.code")).toBeUndefined();
  });
});

describe("house numbers", () => {
  it.each([
    ["12", 12, ""],
    ["12B", 12, "b"],
    ["12 b", 12, "b"],
    ["12-14", 12, "-14"],
    ["12/3", 12, "/3"],
    [" 7 ", 7, ""],
    ["10 bis", 10, "bis"],
    ["7TER", 7, "ter"],
    ["40/A", 40, "/a"],
    ["12-hs", 12, "-hs"],
    ["4816 1/2", 4816, "1/2"],
  ])("reads %j", (text, number, suffix) => {
    expect(parseHouseNumber(text)).toEqual({ number, suffix });
  });

  it.each(["", "b12", "12bc", "123456", "12--3", "twelve"])("does not read %j", (text) => {
    expect(parseHouseNumber(text)).toBeUndefined();
  });

  it("writes them as the country does", () => {
    expect(formatHouseNumber({ number: 12, suffix: "b" }, "before")).toBe("12B");
    expect(formatHouseNumber({ number: 12, suffix: "b" }, "after")).toBe("12 b");
    expect(formatHouseNumber({ number: 12, suffix: "/3" }, "after")).toBe("12/3");
    expect(formatHouseNumber({ number: 12, suffix: "bis" }, "before")).toBe("12 bis");
    expect(formatHouseNumber({ number: 4816, suffix: "1/2" }, "before")).toBe("4816 1/2");
  });

  it("reads again what it wrote", () => {
    const suffix = fc.constantFrom("", "b", "å", "/3", "-14", "bis", "/a", "-hs", "1/2");
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9999 }),
        suffix,
        fc.constantFrom("before" as const, "after" as const),
        (number, tail, stands) => {
          expect(parseHouseNumber(formatHouseNumber({ number, suffix: tail }, stands))).toEqual({
            number,
            suffix: tail,
          });
        },
      ),
    );
  });
});

describe("refs", () => {
  it("come back to the identity that they were made from, and are URL-safe", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: MAX_IDENTITY - 1 }),
        fc.constantFrom("QR", "QV", "QY"),
        (identity, country) => {
          const ref = refOf(country, identity);
          expect(ref).toMatch(/^[a-z]{2}-[0-9a-z]{6}$/);
          expect(parseRef(ref)).toEqual({ country, identity });
        },
      ),
    );
  });

  it("scatter neighbours, so that nobody counts through them by hand", () => {
    const near = [1, 2, 3].map((identity) => refOf("QR", identity).slice(3, 5));
    expect(new Set(near).size).toBe(3);
  });

  it.each(["", "qr", "qr-", "QR-000001", "qr-00000", "qr-00000u", "qr-0000001", "../../etc", "qr-00000 "])(
    "does not take %j for one",
    (text) => {
      expect(parseRef(text)).toBeUndefined();
    },
  );
});

describe("pickName", () => {
  const names = [
    { lang: "qth-Grek", name: "Πελανία" },
    { lang: "qth-Latn", name: "Pelania" },
  ];

  it("takes the language that was requested first", () => {
    expect(pickName(names, ["qth-Latn"]).name).toBe("Pelania");
    expect(pickName(names, ["en", "qth"]).name).toBe("Πελανία");
  });

  it("else follows the script that the person types in", () => {
    expect(pickName(names, [], "pel").name).toBe("Pelania");
    expect(pickName(names, [], "πελ").name).toBe("Πελανία");
    expect(pickName(names, [], "12").name).toBe("Πελανία");
  });

  it("else takes the local name", () => {
    expect(pickName(names).name).toBe("Πελανία");
  });
});
