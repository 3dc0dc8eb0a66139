import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { EXACTNESS_WORDS } from "@bibliotope/core/form";
import { KINDS } from "@bibliotope/core/place";
import { afterEach, describe, expect, it } from "vitest";
import { STYLE_NAMES } from "../map/controls.ts";
import { loadWords, setWords, WORD_LANGUAGES } from "./index.ts";
import { say, type Words } from "./say.ts";

const SOURCES = join(import.meta.dirname, "..");

/** Every sentence that the kit says: those written where they are said, and those said by name. */
function sentences(): string[] {
  const said = readdirSync(SOURCES, { recursive: true, encoding: "utf8" })
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.|words\//.test(file))
    .flatMap((file) =>
      [...readFileSync(join(SOURCES, file), "utf8").matchAll(/\bsay\(\s*("(?:[^"\\]|\\.)*")/g)].map(
        ([, text]) => JSON.parse(text) as string,
      ),
    );
  const named = [
    ...KINDS.filter((kind) => kind !== "address"),
    ...Object.values(EXACTNESS_WORDS),
    ...Object.values(STYLE_NAMES),
    "Zoom in",
    "Zoom out",
  ];
  return [...new Set([...said, ...named])].filter(Boolean).sort();
}

const valuesIn = (text: string) => [...text.matchAll(/\{(\w+)\}/g)].map(([, name]) => name).sort();

describe("the kit's words", () => {
  const others = WORD_LANGUAGES.filter((lang) => lang !== "en");

  it("are there in ten languages and more", () => {
    expect(WORD_LANGUAGES.length).toBeGreaterThanOrEqual(10);
  });

  it.each(others)("in %s are all there, with the same values in them, and no others", async (lang) => {
    const { words, lang: own } = (await loadWords(lang))!;
    expect(own).toBe(lang);
    expect(Object.keys(words).sort()).toEqual(sentences());
    const categories = new Intl.PluralRules(lang).resolvedOptions().pluralCategories;
    for (const [english, text] of Object.entries(words)) {
      if (typeof text === "string") {
        expect(valuesIn(text), english).toEqual(valuesIn(english));
        continue;
      }
      expect(english).toContain("|");
      const used = Object.keys(text);
      // the sciences' "many" of millions is nothing that a form says
      expect(used, english).toEqual(
        expect.arrayContaining(categories.filter((one) => one !== "many" || lang === "ar" || lang === "pl")),
      );
      const wanted = new Set(valuesIn(english));
      for (const form of Object.values(text)) for (const value of valuesIn(form!)) expect(wanted).toContain(value);
    }
  });
});

describe("say", () => {
  afterEach(() => setWords(undefined));
  const suggestions = (n: number) => say("{n} suggestion.|{n} suggestions.", { n });

  it("says it in English, for one and for many", () => {
    expect([0, 1, 2].map(suggestions)).toEqual(["0 suggestions.", "1 suggestion.", "2 suggestions."]);
    expect(say("Close")).toBe("Close");
  });

  it("follows the plural rules of a language", async () => {
    setWords(await loadWords("pl-PL"));
    expect([1, 3, 5].map(suggestions)).toEqual(["1 podpowiedź.", "3 podpowiedzi.", "5 podpowiedzi."]);
    setWords(await loadWords("ar"));
    expect([1, 2, 3].map(suggestions)).toEqual(["اقتراح واحد.", "اقتراحان.", "3 اقتراحات."]);
  });

  it("takes the first language that there is, and English for none of them", async () => {
    expect((await loadWords("xx", "de-AT", "fr"))?.lang).toBe("de");
    expect(await loadWords("en-GB", "de")).toBeUndefined();
    expect(await loadWords("xx")).toBeUndefined();
    expect(await loadWords("constructor")).toBeUndefined();
  });

  it("takes words of the developer's own, and English where they have none", () => {
    const own: Words = { lang: "en", words: { Close: "Shut" } };
    setWords(own);
    expect([say("Close"), say("Choose")]).toEqual(["Shut", "Choose"]);
  });

  it("puts values in as they are, once", () => {
    expect(say("Copied: {text}", { text: "{text} {n} $&" })).toBe("Copied: {text} {n} $&");
  });
});
