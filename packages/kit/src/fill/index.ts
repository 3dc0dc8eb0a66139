export { type BindTokensOptions, bindTokens, fillByTokens } from "./fill.ts";
