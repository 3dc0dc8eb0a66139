import { Engine } from "@bibliotope/core/search";
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
