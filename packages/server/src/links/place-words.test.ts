import { expect, it } from "vitest";
import { placePage } from "./place-page.ts";
import { placeLanguage } from "./place-words.ts";

it.each([
  [["fr-CH", "de"], "fr"],
  [["ja", "pt-BR"], "pt"],
  [["__proto__"], "en"],
  [[], "en"],
])("%j is spoken as %s", (wanted, lang) => {
  expect(placeLanguage(wanted).lang).toBe(lang);
});

it("says all there is in each language, with the day and the title in it, and no word of another", () => {
  const english = Object.values(placeLanguage(["en"]).words);
  for (const lang of ["de", "fr", "es", "it", "nl", "pl", "pt", "el", "ar"]) {
    const { words, dir } = placeLanguage([lang]);
    expect(dir).toBe(lang === "ar" ? "rtl" : "ltr");
    expect(Object.values(words).every(Boolean)).toBe(true);
    const same = Object.values(words).filter((one) => english.includes(one));
    expect(
      same.every((one) => one.length < 9),
      `${lang}: ${same.join(", ")}`,
    ).toBe(true);
    const page = placePage({
      title: "<Here>",
      at: { lat: -35.1, lon: -21.6 },
      record: undefined,
      ...{ map: "/m", mapTwice: "/m2", qr: "/q", size: { width: 600, height: 400 } },
      ends: new Date("2026-12-24T12:00:00Z"),
      sources: "Us",
      language: placeLanguage([lang]),
    });
    expect(page).toContain(`<html lang="${lang}" dir="${dir}">`);
    expect(page).toContain("&lt;Here&gt;");
    expect(page).not.toMatch(/<Here>|\{day\}|\{title\}/);
    expect(page).toContain(
      new Intl.DateTimeFormat(lang, { dateStyle: "long" }).format(new Date("2026-12-24T12:00:00Z")),
    );
  }
});
