export { asPeopleWrite, isInCapitals } from "./capitals.ts";
export { addressIn, NOTHING } from "./copied.ts";
export { type Folded, fold, hasOtherScript, plainName } from "./fold.ts";
export { LANGUAGES, type LanguagePack, NAMED_PARTS, type NamedPart, type NumberRole } from "./languages/index.ts";
export { countBits, lettersOf } from "./letter-sets.ts";
export { Lexicon, lexiconOf } from "./lexicon.ts";
export { partNames } from "./part-names.ts";
export { MAX_TOKEN_LENGTH, MAX_TOKENS, type Token, tokenize } from "./tokens.ts";
