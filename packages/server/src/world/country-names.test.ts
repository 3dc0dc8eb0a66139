import { expect, it } from "vitest";
import { countryNames } from "./country-names.ts";

it("names a country in each language, the same name once, and none that nobody knows", () => {
  expect(countryNames("AT", ["de", "en"])).toEqual([
    { lang: "de", name: "Österreich" },
    { lang: "en", name: "Austria" },
  ]);
  expect(countryNames("PT", ["pt", "en"])).toEqual([{ lang: "pt", name: "Portugal" }]);
  expect(countryNames("QV", ["en"])).toEqual([]);
});
