export { type Body, escapeXml, writeBody, writeEnvelope } from "./body.ts";
export { checkService, type ServiceIssue } from "./check.ts";
export { checkInputs, type InputIssue, timeLimitOf } from "./inputs.ts";
export { placeholdersIn, putIn, type Value } from "./placeholders.ts";
export * from "./service.ts";
export { type Follow, followPointer, pointerTo, readValues, textOf } from "./values.ts";
