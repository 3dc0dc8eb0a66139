import { putIn, type Value } from "./placeholders.ts";
import type { BodyKind, ServiceInput, SoapRequest } from "./service.ts";

/** A body as it is sent. */
export interface Body {
  mediaType: string;
  text: string;
}
export type JsonBody = { value: unknown } | { problem: string };

/** A body of JSON with inputs in the strings. */
export function readJsonBody(text: string): JsonBody {
  try {
    return { value: JSON.parse(text) };
  } catch (error) {
    return { problem: `it is no JSON: ${(error as Error).message}. Inputs stand within quotes: "{town}"` };
  }
}

const WRITERS: Record<BodyKind, (text: string, value: Value, inputs: readonly ServiceInput[]) => Body> = {
  json: (text, value, inputs) => {
    const read = readJsonBody(text);
    const filled = "value" in read ? withInputs(read.value, value, inputs) : null;
    return { mediaType: "application/json", text: JSON.stringify(filled) };
  },
  form: (text, value) => ({
    mediaType: "application/x-www-form-urlencoded",
    text: text
      .split("&")
      .map((pair) => {
        const [name, ...rest] = pair.trim().split("=");
        return `${encodeURIComponent(name)}=${encodeURIComponent(putIn(rest.join("="), value))}`;
      })
      .join("&"),
  }),
  xml: (text, value) => ({ mediaType: "application/xml", text: putIn(text, value, escapeXml) }),
};

/** Writes a body with values in it; whatever they are, they stay values. */
export function writeBody(
  { kind, text }: { kind: BodyKind; text: string },
  value: Value,
  inputs: readonly ServiceInput[],
): Body {
  return WRITERS[kind](text, value, inputs);
}

/** Puts inputs into the strings of a JSON value; a string that is one number or yes/no and nothing else becomes that. */
function withInputs(existing: unknown, value: Value, inputs: readonly ServiceInput[]): unknown {
  if (typeof existing === "string") {
    const alone = /^\{(\w+)\}$/.exec(existing)?.[1];
    const input = inputs.find(({ name }) => name === alone);
    const written = input && value(input.name);
    if (input && input.kind !== "text" && input.kind !== "date" && (written === undefined || written === ""))
      return null;
    if (input?.kind === "number") return Number(written);
    if (input?.kind === "yesno") return written === "yes";
    return putIn(existing, value);
  }
  if (Array.isArray(existing)) return existing.map((item) => withInputs(item, value, inputs));
  if (typeof existing !== "object" || existing === null) return existing;
  return Object.fromEntries(Object.entries(existing).map(([name, item]) => [name, withInputs(item, value, inputs)]));
}

const SIGNS: Readonly<Record<string, string>> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&apos;",
};

/** A text as XML holds it; signs that XML cannot hold are left out. */
export function escapeXml(text: string): string {
  return text
    .replace(/[^\t\n\r\u{20}-\u{D7FF}\u{E000}-\u{FFFD}\u{10000}-\u{10FFFF}]/gu, "")
    .replace(/[&<>"']/g, (sign) => SIGNS[sign]);
}

const ENVELOPES = {
  "1.1": "http://schemas.xmlsoap.org/soap/envelope/",
  "1.2": "http://www.w3.org/2003/05/soap-envelope",
} as const;

/** The message that asks an operation: its inputs in their order, those left out that are empty and not needed. */
export function writeEnvelope(
  { version, operation, namespace, action, isQualified }: SoapRequest,
  value: Value,
  inputs: readonly ServiceInput[],
): Body & { headers: Record<string, string> } {
  const prefix = isQualified ? "op:" : "";
  const elements = inputs.flatMap(({ name, required }) => {
    const written = value(name) ?? "";
    return written || required ? [`      <${prefix}${name}>${escapeXml(written)}</${prefix}${name}>`] : [];
  });
  const text = `<?xml version="1.0" encoding="UTF-8"?>
<env:Envelope xmlns:env="${ENVELOPES[version]}">
  <env:Body>
    <op:${operation} xmlns:op="${escapeXml(namespace)}">
${elements.join("\n")}
    </op:${operation}>
  </env:Body>
</env:Envelope>
`;
  if (version === "1.1")
    return { mediaType: "text/xml; charset=utf-8", text, headers: { SOAPAction: `"${action ?? ""}"` } };
  const named = action ? `; action="${action.replace(/["\\]/g, "")}"` : "";
  return { mediaType: `application/soap+xml; charset=utf-8${named}`, text, headers: {} };
}
