import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { profileOf } from "../place/index.ts";
import { splitWhole } from "./line.ts";

const split = (line: string, country: string) =>
  splitWhole(line, profileOf(country), (text) => text === "Australia" || text === "Brasil");

describe("a whole address in one text", () => {
  it.each([
    ["Lindenweg 12b, 6013 Seebach am Rain", "CH", "Lindenweg", "12b", "6013", "Seebach am Rain"],
    ["12 Mill Lane, Tidewell, BS3 4NN", "GB", "Mill Lane", "12", "BS3 4NN", "Tidewell"],
    ["12 Mill Lane, Tidewell BS3 4NN", "GB", "Mill Lane", "12", "BS3 4NN", "Tidewell"],
    ["Flat 2, 12 Mill Lane, Tidewell, BS3 4NN", "GB", "Mill Lane", "12", "BS3 4NN", "Tidewell", "Flat 2"],
    ["12 Mill Rd, Unit 3, Wattle Creek, VIC 3600, Australia", "AU", "Mill Rd", "12", "3600", "Wattle Creek", "Unit 3"],
    ["840 Maple Street, Ashford, IL 62701", "US", "Maple Street", "840", "62701", "Ashford"],
    ["Calle Olmo, 12, 28013 Arboleda", "ES", "Calle Olmo", "12", "28013", "Arboleda"],
    [
      "Rua das Flores, 120, Bairro Velho, Campo Lindo, 01310-100",
      "BR",
      "Rua das Flores",
      "120",
      "01310-100",
      "Campo Lindo",
    ],
    ["Storgatan 5\n111 22 Björkby", "SE", "Storgatan", "5", "111 22", "Björkby"],
    ["Via dei Tigli; 7; 00184 Castelnero", "IT", "Via dei Tigli", "7", "00184", "Castelnero"],
    ["улица Липовая, 12", "KZ", "улица Липовая", "12", undefined, undefined],
    ["601000, Липово, улица Липовая, 12b", "RU", "улица Липовая", "12b", "601000", "Липово"],
    ["20100, Липове, вулиця Шкільна 7", "UA", "вулиця Шкільна", "7", "20100", "Липове"],
    ["Mill Lane, Tidewell", "GB", "Mill Lane", undefined, undefined, "Tidewell"],
    ["Harbour Row 12", "NL", "Harbour Row", "12", undefined, undefined],
  ])("%s in %s", (line, country, street, house, postcode, town, unit?: string) => {
    const found = split(line, country);
    const number = found.house && `${found.house.number}${found.house.suffix}`;
    expect([found.street, number, found.postcode, found.town, found.unit]).toEqual([
      street,
      house,
      postcode,
      town,
      unit,
    ]);
  });

  it("says a region by its code, and leaves no postcode with it", () => {
    expect(split("840 Maple Street, Ashford, IL 62701", "US")).toMatchObject({ region: "IL", postcode: "62701" });
  });

  it("loses no street and invents nothing, whatever stands there", () => {
    const pieces = fc.array(fc.string({ maxLength: 30 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(pieces, fc.constantFrom("GB", "DE", "BR", "JP", "US"), (parts, country) => {
        const line = parts.join(", ");
        const { street, unit, town, region } = split(line, country);
        for (const part of [street, town, region, ...(unit?.split(", ") ?? [])]) if (part) expect(line).toContain(part);
        if (line.replace(/[,;\s]/g, "")) expect(street).not.toBe("");
      }),
    );
  });
});
