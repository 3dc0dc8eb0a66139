import { putIn, type Service, type Value, writeBody, writeEnvelope } from "@bibliotope/core/service";
import { parseTemplate } from "url-template";
import { CallFailed } from "./call-failed.ts";
import type { OutRequest } from "./caller.ts";

/** A service's request with the inputs and secrets in it. @throws CallFailed for a secret that is not set */
export function writeRequest(service: Service, value: Value): OutRequest {
  const { ask, inputs } = service;
  const given = Object.fromEntries(inputs.map(({ name }) => [name, value(name) || undefined]));
  const url = parseTemplate(ask.url).expand(given as Record<string, string>);
  const headers: Record<string, string> = { accept: "application/json, application/xml;q=0.9, */*;q=0.5" };
  for (const { name, value: written } of ask.headers ?? []) headers[name.toLowerCase()] = putIn(written, value);
  if (ask.by === "soap") {
    const { mediaType, text, headers: more } = writeEnvelope(ask, value, inputs);
    return { method: "POST", url, headers: { ...headers, "content-type": mediaType, ...more }, body: text };
  }
  if (!ask.body) return { method: ask.method, url, headers };
  const { mediaType, text } = writeBody(ask.body, value, inputs);
  return { method: ask.method, url, headers: { ...headers, "content-type": mediaType }, body: text };
}

/** Values by name: inputs as they were given, secrets as they are. @throws CallFailed for a secret that is not set */
export function valuesFrom(
  inputs: Readonly<Record<string, string>>,
  secret: (name: string) => string | undefined,
): Value {
  return (name) => {
    if (!name.startsWith("secret.")) return inputs[name];
    const found = secret(name.slice("secret.".length));
    if (found !== undefined) return found;
    throw new CallFailed("refused", `The secret “${name.slice("secret.".length)}” is not set.`);
  };
}

/** A request as a shell writes it; secrets stand in variables. */
export function curlOf(service: Service, inputs: Readonly<Record<string, string>>): string {
  const { method, url, headers, body } = writeRequest(service, (name) =>
    name.startsWith("secret.") ? `\u0001${name.slice("secret.".length)}\u0002` : inputs[name],
  );
  const quoted = (text: string) =>
    `'${text.replaceAll("'", `'\\''`)}'`.replace(
      /\u0001([^\u0002]*)\u0002/g,
      (_, name: string) => `'"$${name.toUpperCase().replaceAll("-", "_")}"'`,
    );
  return [
    `curl --request ${method} ${quoted(url)}`,
    ...Object.entries(headers).map(([name, value]) => `  --header ${quoted(`${name}: ${value}`)}`),
    ...(body === undefined ? [] : [`  --data-binary ${quoted(body)}`]),
  ].join(" \\\n");
}
