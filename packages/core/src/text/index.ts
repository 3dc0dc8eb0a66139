export { ABBREVIATIONS, otherForms, SMALL_WORDS } from "./abbreviations.ts";
export { type Folded, fold, hasOtherScript } from "./fold.ts";
export { MAX_TOKEN_LENGTH, MAX_TOKENS, type Token, tokenize } from "./tokens.ts";
