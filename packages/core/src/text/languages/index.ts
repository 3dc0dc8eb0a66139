import { CZECH } from "./czech.ts";
import { DUTCH } from "./dutch.ts";
import { ENGLISH } from "./english.ts";
import { FRENCH } from "./french.ts";
import { GERMAN } from "./german.ts";
import { GREEK } from "./greek.ts";
import { ITALIAN } from "./italian.ts";
import { JAPANESE } from "./japanese.ts";
import { KOREAN } from "./korean.ts";
import { OVARDIC } from "./ovardic.ts";
import type { LanguagePack } from "./pack.ts";
import { POLISH } from "./polish.ts";
import { PORTUGUESE } from "./portuguese.ts";
import { SPANISH } from "./spanish.ts";
import { SWEDISH } from "./swedish.ts";
import { THALMYRIC } from "./thalmyric.ts";

export type { LanguagePack, NumberRole } from "./pack.ts";

/** All languages held, the islands' own among them. */
export const LANGUAGES: readonly LanguagePack[] = [
  ENGLISH,
  GERMAN,
  FRENCH,
  SPANISH,
  ITALIAN,
  PORTUGUESE,
  DUTCH,
  SWEDISH,
  POLISH,
  CZECH,
  GREEK,
  JAPANESE,
  KOREAN,
  OVARDIC,
  THALMYRIC,
];
