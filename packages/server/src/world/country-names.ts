import type { Name } from "@bibliotope/core/place";

/**
 * What a country is called in some languages, each name once.
 * @param country ISO 3166-1 alpha-2
 * @returns empty for a code that nobody knows
 */
export function countryNames(country: string, langs: readonly string[]): Name[] {
  const names: Name[] = [];
  for (const lang of langs) {
    const name = new Intl.DisplayNames(lang, { type: "region", fallback: "none" }).of(country);
    if (name && !names.some((names) => names.name === name)) names.push({ lang, name });
  }
  return names;
}
