import { readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { CALLS, type Call } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { shared } from "../../testing/shared.ts";

/** The examples of docs/api.md, each with its answer. `UPDATE_DOCS=1 npm test` writes the answers anew. */
const file = fileURLToPath(new URL("../../../../docs/api.md", import.meta.url));
let text = readFileSync(file, "utf8");
const EXAMPLE = /```sh\n(curl(?:(?!```)[\s\S])*)```\n\n```json\n([\s\S]*?)```/g;
const examplesIn = (of: string) =>
  [...of.matchAll(EXAMPLE)].map(([, command, answer]) => ({ command: command.trim(), answer }));
const examples = examplesIn(text);

const isTold = ({ path }: Call) => new RegExp(path.replace(/\{\w+\}/g, "[\\w-]+")).test(text);

/** A call as the page tells of it, its answer still to be filled in. */
function sectionOf({ path, methods, summary, description, example }: Call): string {
  const left = new URLSearchParams({ ...example });
  const filled = path.replace(/\{(\w+)\}/g, (_, part: string) => {
    left.delete(part);
    return example[part];
  });
  const isGet = methods.some((method) => method === "GET");
  const address = `$URL${filled}${isGet && left.size ? `?${left}` : ""}`;
  const body = isGet
    ? `"${address}"`
    : `-H "Content-Type: application/json" "${address}" -d '${JSON.stringify(Object.fromEntries(left))}'`;
  return `\n## ${summary}\n\n${description}\n\n\`\`\`sh\ncurl -H "Authorization: Bearer $KEY" ${body}\n\`\`\`\n\n\`\`\`json\n{}\n\`\`\`\n`;
}

/** What a curl command would send: its URL, headers and body. */
async function run(command: string): Promise<unknown> {
  const { url, keys } = shared();
  const filled = command.replaceAll("$URL", url).replaceAll("$KEY", keys.srv).replaceAll("\\\n", " ");
  const address = /"(http[^"]+)"/.exec(filled)![1];
  const headers = Object.fromEntries(
    [...filled.matchAll(/-H "([^:"]+): ([^"]+)"/g)].map(([, name, value]) => [name, value]),
  );
  const body = /-d '([^']+)'/.exec(filled)?.[1];
  const response = await fetch(address, { method: body ? "POST" : "GET", headers, body });
  return response.json();
}

/** An answer without what differs from one installation to the next. */
const settled = (answer: unknown) =>
  JSON.parse(
    JSON.stringify(
      answer,
      (name, value) => (value === null ? value : SETTLED[name]) ?? (LINK.test(value) ? linkOf(value) : value),
    ),
  );
/** Links are signed, and those of each installation are others. */
const LINK = /^https?:\/\/[^/]+\/p\/[\w.-]+/;
const linkOf = (url: string) => url.replace(LINK, "http://localhost:4870/p/Xk2p.WzEyLDE3.q0Zt7");
/** Values that differ from one time to the next. */
const SETTLED: Readonly<Record<string, unknown>> = {
  published: "2026-11-01T12:00:00.000Z",
  took: 2.4,
  kept: false,
  endsAt: "2026-11-02T12:00:00.000Z",
};

/** JSON as a person would write it: short lists on one line. */
const written = (answer: unknown) =>
  JSON.stringify(answer, null, 2).replace(
    /\[\s+([^[\]{}]{1,90}?)\s+\]/g,
    (_, inside: string) => `[${inside.replace(/\s*\n\s*/g, " ")}]`,
  );

describe("docs/api.md", () => {
  it("has an example of every call", () => {
    for (const call of Object.values(CALLS) as Call[]) expect(isTold(call), call.path).toBe(true);
    expect(examples.length).toBeGreaterThan(14);
  });

  it.runIf(process.env.UPDATE_DOCS)("is written anew", async () => {
    // a call that is not told of yet is told as it is declared
    for (const call of Object.values(CALLS) as Call[]) if (!isTold(call)) text += sectionOf(call);
    const examples = examplesIn(text);
    const answers: string[] = [];
    for (const { command } of examples) answers.push(written(settled(await run(command))));
    const updated = text.replace(
      EXAMPLE,
      (_, command: string) => `\`\`\`sh\n${command}\`\`\`\n\n\`\`\`json\n${answers.shift()}\n\`\`\``,
    );
    writeFileSync(file, updated);
  });

  it.skipIf(process.env.UPDATE_DOCS).each(examples)("tells the truth: $command", async ({ command, answer }) => {
    expect(settled(await run(command))).toEqual(JSON.parse(answer));
  });
});
