import { LANGUAGES, NAMED_PARTS, type NamedPart } from "./languages/index.ts";

/** How the parts of an address are called in all languages, in lower case without accents, each name once. */
export const partNames: Readonly<Record<NamedPart, readonly string[]>> = namesOf();

function namesOf(): Record<NamedPart, readonly string[]> {
  const entries = NAMED_PARTS.map((part): [NamedPart, readonly string[]] => {
    const names = LANGUAGES.flatMap((pack) => pack.partNames?.[part]?.split(",").map((name) => name.trim()) ?? []);
    return [part, [...new Set(names)]];
  });
  return Object.fromEntries(entries) as Record<NamedPart, readonly string[]>;
}
