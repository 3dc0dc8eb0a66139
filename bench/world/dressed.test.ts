import { Engine } from "@bibliotope/core/search";
import { LANGUAGES } from "@bibliotope/core/text";
import { Random } from "@bibliotope/islands";
import { describe, expect, it } from "vitest";
import { type Address, makeWorld, SMALL } from "./make.ts";
import { lineOf } from "./questions.ts";
import { groupsOf } from "./score.ts";

const { segment, addresses } = makeWorld(SMALL);
const engine = new Engine(segment);
const random = new Random(5);
const some = [...groupsOf(addresses, ({ ways }) => ways.code).values()].flatMap((all) => [
  random.pick(all),
  // a street called after its town
  all.find(({ street, town }) => street.name.includes(town)) ?? random.pick(all),
]);

const encoded = (text: string) => encodeURIComponent(text).replaceAll("%20", "+");

/** What people and programs put around an address, and what they put between its parts. */
const DRESSES: Readonly<Record<string, (line: string, address: Address) => string>> = {
  "a question": (line) => `Where is ${line}?`,
  "a question in German": (line) => `Wo ist ${line}?`,
  "a sentence": (line) => `The shop is at ${line}, open daily.`,
  "an order": (line) => `Please deliver it to ${line}`,
  "bytes of the web": (line) => encodeURIComponent(line),
  "a link": (line) => `https://example.org/search?q=${encoded(line)}`,
  "the country's code": (line, { ways }) => `${line}, ${ways.code}`,
  "the country in English": (line, { ways }) => `${line}\n${ways.names[1].toUpperCase()}`,
  "the country first": (line, { ways }) => `${ways.names[1]}, ${line}`,
  "a full stop": (line) => `${line}.`,
  quotes: (line) => `„${line}“`,
  "a place in a list": (line) => `3) ${line}`,
  "a bullet": (line) => `• ${line}`,
  "a picture": (line) => `📍${line}`,
  "a person": (line) => `Frau Dr. Ines Palaro\n${line}`,
  "a firm": (line) => `Wrenfield Books Ltd\n${line}`,
  "a telephone": (line) => `${line}\nTel. +49 30 1234567`,
  "an e-mail": (line) => `${line}, mara@example.org`,
  "a remark": (line) => `${line} (near the station)`,
  "its position": (line, { at }) => `${line} (${at.lat.toFixed(5)}, ${at.lon.toFixed(5)})`,
  bars: (line) => line.replaceAll(", ", " | "),
  dots: (line) => line.replaceAll(", ", " · "),
  tabulators: (line) => line.replaceAll(", ", "\t"),
  "empty lines": (line) => line.replaceAll(", ", "\r\n\r\n"),
  "line ends of a program": (line) => line.replaceAll(", ", "\\n"),
  "hard spaces": (line) => line.replaceAll(" ", "\u00A0"),
  "a soft hyphen": (line) => line.replace(/(\p{L}{3})(?=\p{L}{3})/u, "$1\u00AD"),
  "wide letters": (line) => line.replace(/[!-~]/g, (one) => String.fromCharCode(one.charCodeAt(0) + 0xfee0)),
  marks: (line) => `**${line}**`,
  capitals: (line) => line.toUpperCase(),
  "the sign for a number": (line, { street, number }) =>
    line.replace(`${street.name} ${number}`, `${street.name} nº${number}`),
  "a bracket round the town": (line, { town }) =>
    line.endsWith(town) ? `${line.slice(0, -town.length)}(${town})` : line,
};

describe("what is around an address changes nothing of the answer", () => {
  it.each(Object.keys(DRESSES))("%s", (name) => {
    const wrong: string[] = [];
    for (const address of some) {
      const plain = engine.forward({ q: lineOf(address) });
      const q = DRESSES[name](lineOf(address), address);
      const { outcome, candidates } = engine.forward({ q });
      if (outcome !== plain.outcome || candidates[0]?.ref !== plain.candidates[0].ref)
        wrong.push(`${q}: ${outcome} ${candidates[0]?.line}`);
    }
    expect(wrong).toEqual([]);
  });

  it("“#” before the number of a house, which is no flat there", () => {
    for (const address of some) {
      const { street, number, ways } = address;
      if (ways.latin || ways.number === "after comma") continue;
      const line = lineOf(address);
      const core = ways.number === "before" ? `${number} ${street.name}` : `${street.name} ${number}`;
      const hashed = core.replace(number, `#${number}`);
      const { candidates } = engine.forward({ q: line.replace(core, hashed) });
      expect(candidates[0]?.ref, hashed).toBe(engine.forward({ q: line }).candidates[0].ref);
      const [unit] = engine.forward({ q: line.replace(core, `${core}, #7`) }).candidates;
      expect(unit.ref, "a flat").toBe(address.ref);
    }
  });
});

/** What people write of a floor, a stair or a flat, by country. */
const WITHIN: Readonly<Record<string, string>> = {
  US: "Apt 4B|Ste 200|#4|3rd Floor|Bldg C|Penthouse 2|Rear|Basement|Trlr 4|Apt. 12-C|Building 4 Apt 12",
  GB: "Flat 2|First Floor|Ground Floor Flat|2F1|Block C|The Annexe|Flat 3 First Floor|2nd Floor Flat",
  IE: "Unit 5|Block B Apartment 3",
  DE: "2. OG|EG links|4. OG mitte|Hinterhaus|WE 12|Aufgang B|Haus 3|1. Stock links|Dachgeschoss|Zimmer 4",
  AT: "Top 5|Stiege 2 Tür 5|Stg 2/Top 5|Haus 3",
  NL: "2e verdieping|3 hoog|bg|2 hoog achter|begane grond",
  BE: "bus 4|boîte 3|verdieping 2",
  FR: "Appt 4|Bât B|RDC|Hall B|1er étage gauche|fond de cour|Rez-de-chaussée|Immeuble C",
  ES: "3º B|2º izq|bajo|Bajo A|entresuelo 1ª|4ºC|Piso 2 puerta 4|portal 4|Esc. A 3º 2ª|2ª planta",
  PT: "3º Dto|R/C|r/c Dto|Lote 4|Cave|3.º andar|rés-do-chão",
  BR: "apto 101|apto. 101 bloco B|casa 3|fundos|cj. 45|2º andar|térreo|torre A",
  IT: "int. 4|scala B int. 4|piano terra|secondo piano|palazzina B|pal. C|p.t.",
  PL: "m. 5|klatka B|parter|II p.|II piętro|piętro 2",
  SE: "lgh 1203|2 tr|vån 2|BV|uppgång B",
  CZ: "byt 5|2. patro|přízemí|vchod B|1. p.",
  JP: "101号室|3階",
  KR: "101동 202호|3층|지하 1층",
};
/** Between the number and what is behind it. */
const PLACES = { "behind the number": " ", "behind a comma": ", ", "in a line of its own": "\n" };

describe("what is written of a floor, a stair or a flat is of no street, and takes no house's number away", () => {
  it.each(Object.keys(WITHIN))("%s", (country) => {
    const wrong: string[] = [];
    for (const address of some.filter(({ ways }) => ways.code === country)) {
      const line = lineOf(address);
      const [plain] = engine.forward({ q: line }).candidates;
      const end = Math.max(
        ...[address.number, address.street.name].map((part) => line.lastIndexOf(part) + part.length),
      );
      const core = address.ways.isBroadestFirst || address.ways.latin ? line.length : end;
      for (const within of WITHIN[country].split("|"))
        for (const [place, gap] of Object.entries(PLACES)) {
          const q = `${line.slice(0, core)}${gap}${within}${line.slice(core)}`;
          const { outcome, candidates } = engine.forward({ q });
          const isOther = candidates[0]?.differences.some(({ part }) => part !== "unit" && part !== "floor");
          if (candidates[0]?.ref !== plain.ref || isOther)
            wrong.push(`${place}: ${q}: ${outcome} ${candidates[0]?.line}`);
        }
    }
    expect(wrong).toEqual([]);
  });

  it.each([
    // what is behind a dash, and a street called after its town
    ["20 Mill Drive - Green Gate, Cedarville, NP 61079", "20 Mill Drive, Cedarville, North Prairie 61079"],
    ["Nové Lipno 6, 320 88 City of Nové Lipno", "Nové Lipno 6, 320 88 Nové Lipno"],
    ["Björkgatan 17, 84017 Stenhamra", "Björkgatan 17, 840 17 Stenhamra"],
    ["4Rue de l'Pont, 10240 Villeneuve-les-Ormes", "4 Rue de l'Pont, 10240 Villeneuve-les-Ormes"],
  ])("%j is %j", (q, line) => {
    const { outcome, candidates } = engine.forward({ q });
    expect([outcome, candidates[0]?.line]).toEqual(["matched", line]);
  });

  it("whatever word of any language is behind the number, no answer is matched to the street alone", () => {
    const words = LANGUAGES.flatMap(({ within, before, after = {} }) => [
      ...(within ? [...(within.before ?? []), ...(within.after ?? []), ...within.alone] : []),
      ...[before, after].flatMap((roles) => Object.values(roles).flat()),
    ]);
    const plain = some.filter(({ ways }) => !ways.latin && !ways.isBroadestFirst);
    const lost: string[] = [];
    [...new Set(words)].forEach((word, i) => {
      const address = plain[i % plain.length];
      const line = lineOf(address);
      const end = Math.max(
        ...[address.number, address.street.name].map((part) => line.lastIndexOf(part) + part.length),
      );
      const q = `${line.slice(0, end)} ${word}${line.slice(end)}`;
      const { outcome, candidates } = engine.forward({ q });
      if (outcome === "matched" && candidates[0].kind !== "address") lost.push(`${q}: ${candidates[0].line}`);
    });
    expect(words.length).toBeGreaterThan(300);
    expect(lost).toEqual([]);
  });

  it("and where nothing is known of such words, they are named as what differs", () => {
    const address = some.find(({ ways }) => ways.code === "DE")!;
    const { outcome, candidates } = engine.forward({
      q: lineOf(address).replace(address.number, `${address.number} Zugang vom Hof`),
    });
    expect([outcome, candidates[0].ref]).toEqual(["matched", address.ref]);
    expect(candidates[0].differences).toEqual([{ part: "unit", written: "Zugang vom Hof", how: "unknown" }]);
  });
});
