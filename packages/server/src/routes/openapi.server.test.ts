import { execFileSync } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { CALLS, type Call, type CallName, jsonOfQuery } from "@bibliotope/wire";
import openapiTS, { astToString, type OpenAPI3 } from "openapi-typescript";
import { afterAll, describe, expect, it } from "vitest";
import { ask, json, shared } from "../../testing/shared.ts";

const root = fileURLToPath(new URL("../../../..", import.meta.url));
// within the repository, so that the packages it stands on are found
const folder = join(root, ".bibliotope", "openapi-client");
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A program that asks every call of the wire by a client made from the document, and writes down what it reads. */
function program(batch: string): string {
  const lines = (Object.entries(CALLS) as [string, Call][]).flatMap(([name, { path, methods, takes, example }]) => {
    if (takes) return [];
    return methods.map((method) => {
      const { id: _, ...words } = example;
      const inPath = Object.fromEntries(
        [...path.matchAll(/\{(\w+)\}/g)].map(([, part]) => [part, part === "id" ? batch : example[part]]),
      );
      const rest = Object.entries(words).filter(([word]) => !(word in inPath));
      const query = Object.fromEntries(
        rest.map(([word, value]) => [
          word,
          ["limit", "hours", "width", "height"].includes(word) ? Number(value) : value,
        ]),
      );
      const isText = ["still", "batchRows"].includes(name);
      const wanted =
        method === "GET"
          ? `{ params: ${JSON.stringify({ path: filled(inPath), query: filled(query) })}${isText ? ', parseAs: "text"' : ""} }`
          : `{ params: ${JSON.stringify({ path: filled(inPath) })}, body: ${JSON.stringify(bodyOf(CALLS[name as CallName]))}${isText ? ', parseAs: "text"' : ""} }`;
      return `told["${method} ${name}"] = wordOf(await client.${method}("${path}", ${wanted}));`;
    });
  });
  return `import createClient from "openapi-fetch";
import type { paths } from "./wire";
const client = createClient<paths>({ baseUrl: process.argv[2], headers: { Authorization: \`Bearer \${process.argv[3]}\` } });
const told: Record<string, string> = {};
const wordOf = ({ data, error }: { data?: unknown; error?: unknown }) => (error ? JSON.stringify(error) : typeof data);
${lines.join("\n")}
const { data } = await client.GET("/v1/suggest", { params: { query: { q: "12 harb", limit: 1 } } });
const line: string | undefined = data?.suggestions[0]?.line;
told.line = line ?? "";
console.log(JSON.stringify(told));
`;
}

const filled = (words: object) => (Object.keys(words).length ? words : undefined);
/** What is requested by POST, as JSON. */
function bodyOf({ path, example, many }: Call): object {
  const words = Object.entries(example).filter(([word]) => !path.includes(`{${word}}`));
  const requests = Object.entries(jsonOfQuery(words));
  return Object.fromEntries(requests.map(([word, value]) => [word, many ? [value] : value]));
}

describe("a client made from the OpenAPI document", () => {
  it("compiles, and reads the answer of every call", { tags: ["long"] }, async () => {
    const { url, keys } = shared();
    const made = await json("/v1/batches", {
      method: "POST",
      headers: { "content-type": "text/csv" },
      body: "text\n12 Harbour Row Tidewell\n",
    });
    mkdirSync(folder, { recursive: true });
    const document = await (await ask("/v1/openapi.json", { key: null })).json();
    writeFileSync(join(folder, "wire.ts"), astToString(await openapiTS(document as OpenAPI3)));
    writeFileSync(join(folder, "program.ts"), program(made.body.id));
    const tsc = join(root, "node_modules", "typescript", "bin", "tsc");
    const options = ["--strict", "--target", "es2022", "--module", "preserve", "--skipLibCheck", "--types", "node"];
    execFileSync(process.execPath, [tsc, ...options, join(folder, "program.ts")], { cwd: root, encoding: "utf8" });
    const said = execFileSync(process.execPath, [join(folder, "program.js"), url, keys.srv], { encoding: "utf8" });
    const { line, ...told } = JSON.parse(said);
    expect(line).toBe("12 Harbour Row, Tidewell");
    const expected = (Object.entries(CALLS) as [string, Call][]).flatMap(([name, { methods, takes }]) =>
      takes
        ? []
        : methods.map((method) => [`${method} ${name}`, ["still", "batchRows"].includes(name) ? "string" : "object"]),
    );
    expect(told).toEqual(Object.fromEntries(expected));
  });
});
