import { type JsonBody, readJsonBody } from "./body.ts";
import { placeholdersIn } from "./placeholders.ts";
import { INPUT_NAME, SECRET_NAME, SERVICE_NAME, type Service, STANDINGS_OF_REGISTER } from "./service.ts";

/** What is wrong with a description, and where. */
export interface ServiceIssue {
  where: string;
  message: string;
}

const HEADER_NAME = /^[!#$%&'*+.^_`|~0-9A-Za-z-]{1,60}$/;
/** Headers that go with the connection, not with the request. */
const NOT_OURS =
  /^(host|connection|content-length|content-type|transfer-encoding|upgrade|te|trailer|keep-alive|expect|accept-encoding|proxy-.*)$/i;
const XML_NAME = /^[\p{L}_][\p{L}\p{N}_.-]{0,99}$/u;

/** Finds what would go wrong when a service is called: names given twice, inputs that nobody declared, bodies that cannot be read. */
export function checkService(service: Service): ServiceIssue[] {
  const { name, ask, inputs, values, timeLimitFrom, register } = service;
  const known = new Set(inputs.map((input) => input.name));
  const issues: ServiceIssue[] = [];
  const say = (where: string, message: string) => issues.push({ where, message });
  const named = (where: string, names: readonly string[], shape = SERVICE_NAME, like = "lower-case letters only") => {
    for (const one of names) if (!shape.test(one)) say(where, `“${one}” is no name: ${like}`);
    for (const one of new Set(names.filter((same, i) => names.indexOf(same) !== i)))
      say(where, `“${one}” is there twice`);
  };
  const asks = (where: string, text: string) => {
    for (const { name: input, isSecret } of placeholdersIn(text)) {
      if (isSecret && !SECRET_NAME.test(input)) say(where, `“${input}” is no name of a secret`);
      if (!isSecret && !known.has(input)) say(where, `it asks for “${input}”, which is no input`);
    }
  };
  named("name", [name]);
  named(
    "inputs",
    inputs.map((input) => input.name),
    INPUT_NAME,
    "letters, digits and _, a letter first",
  );
  named(
    "values",
    values.map((value) => value.name),
  );
  if (timeLimitFrom !== undefined && !known.has(timeLimitFrom)) say("timeLimitFrom", `“${timeLimitFrom}” is no input`);
  checkUrl(ask.url, say);
  for (const { name: header, value } of ask.headers ?? []) {
    if (!HEADER_NAME.test(header)) say("headers", `“${header}” is no name of a header`);
    else if (NOT_OURS.test(header)) say("headers", `${header} is written by itself`);
    if (/[\r\n\0]/.test(value)) say("headers", `${header} has a line break in it`);
    asks("headers", value);
  }
  if (ask.by === "soap") {
    if (!XML_NAME.test(ask.operation)) say("operation", `“${ask.operation}” is no name of XML`);
    if (!ask.namespace.trim()) say("namespace", "the operation has no namespace");
  } else if (ask.body) {
    if (ask.method === "GET") say("body", "a GET has no body");
    asks("body", ask.body.text);
    if (ask.body.kind === "json") checkJson(ask.body.text, say);
  }
  if (register) {
    if (!register.countries.length) say("register", "it speaks for no country");
    if (!values.some((value) => value.name === "standing"))
      say("register", `a register answers “standing”: ${STANDINGS_OF_REGISTER.join(", ")}`);
  }
  for (const { name: value, way, each } of values) {
    const isPointer = way === "" || way.startsWith("/");
    if (each !== undefined && !isPointer) say("values", `${value}: an XPath finds each item by itself`);
    if (each !== undefined && each !== "" && !each.startsWith("/"))
      say("values", `${value}: “each” is no JSON Pointer`);
  }
  return issues;
}

function checkUrl(url: string, say: (where: string, message: string) => void): void {
  const found = /^(https?):\/\/([^/?#]+)/i.exec(url);
  if (!found) say("url", "an address begins with https:// or http://");
  else if (found[2].includes("@")) say("url", "name and password belong into a secret, not into the address");
  else if (/[{}]/.test(found[2])) say("url", "the host is always the same one: inputs stand behind it");
  if (/\{[^}]*$/.test(url) || /^[^{]*\}/.test(url)) say("url", "a brace has no other one");
  if (/\{secret\./.test(url)) say("url", "a secret belongs into a header or the body: addresses are written into logs");
}

function checkJson(text: string, say: (where: string, message: string) => void): void {
  const body: JsonBody = readJsonBody(text);
  if ("problem" in body) say("body", body.problem);
}
