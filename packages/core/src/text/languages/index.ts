import { CROATIAN } from "./croatian.ts";
import { CZECH } from "./czech.ts";
import { DANISH } from "./danish.ts";
import { DUTCH } from "./dutch.ts";
import { ENGLISH } from "./english.ts";
import { ESTONIAN } from "./estonian.ts";
import { FINNISH } from "./finnish.ts";
import { FRENCH } from "./french.ts";
import { GERMAN } from "./german.ts";
import { GREEK } from "./greek.ts";
import { HUNGARIAN } from "./hungarian.ts";
import { INDONESIAN } from "./indonesian.ts";
import { ITALIAN } from "./italian.ts";
import { JAPANESE } from "./japanese.ts";
import { KOREAN } from "./korean.ts";
import { LATVIAN } from "./latvian.ts";
import { LITHUANIAN } from "./lithuanian.ts";
import { NORWEGIAN } from "./norwegian.ts";
import { OVARDIC } from "./ovardic.ts";
import type { LanguagePack } from "./pack.ts";
import { POLISH } from "./polish.ts";
import { PORTUGUESE } from "./portuguese.ts";
import { ROMANIAN } from "./romanian.ts";
import { SLOVAK } from "./slovak.ts";
import { SLOVENE } from "./slovene.ts";
import { SPANISH } from "./spanish.ts";
import { SWEDISH } from "./swedish.ts";
import { THALMYRIC } from "./thalmyric.ts";
import { TURKISH } from "./turkish.ts";

export { type LanguagePack, NAMED_PARTS, type NamedPart, type NumberRole, type Within } from "./pack.ts";

/** All languages, the islands' own among them. */
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
  DANISH,
  NORWEGIAN,
  FINNISH,
  HUNGARIAN,
  ROMANIAN,
  SLOVAK,
  SLOVENE,
  CROATIAN,
  TURKISH,
  ESTONIAN,
  LATVIAN,
  LITHUANIAN,
  INDONESIAN,
  GREEK,
  JAPANESE,
  KOREAN,
  OVARDIC,
  THALMYRIC,
];
