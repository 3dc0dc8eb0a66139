import { type AnswerOf, CALLS, type Call, type CallName } from "@bibliotope/wire";
import { type Command, Option } from "commander";
import type * as z from "zod";
import { ENDS, Stop } from "./ends.ts";
import { candidateLines, distanceLines, heightLines, suggestionLines } from "./lines.ts";
import { readPosition } from "./position.ts";
import { answerOf, type ServerOptions, serverOf } from "./server.ts";

/** How an answer is written for people; as JSON where it does not stand here. */
const LINES: { readonly [N in CallName]?: (answer: AnswerOf<N>) => string[] } = {
  suggest: suggestionLines,
  forward: candidateLines,
  reverse: candidateLines,
  record: ({ source: _, ...feature }) => candidateLines({ features: [feature], advice: [] }),
  postcodes: candidateLines,
  distance: distanceLines,
  height: heightLines,
};
/** What `q` and `at` are called for people. */
const SAID: Readonly<Record<string, string>> = { q: "text", at: "position" };
const POSITIONS = new Set(["at", "from", "to"]);
/** Words that mean nothing in a terminal. */
const LEFT_OUT = new Set(["format", "typed"]);

/** Adds a command for every lookup of the wire: its name, its words and what they mean are those of the wire. */
export function addLookups(program: Command): void {
  for (const [name, call] of Object.entries(CALLS) as [CallName, Call][])
    if (call.tag === "Lookups") addLookup(program, name, call);
}

function addLookup(program: Command, name: CallName, call: Call): void {
  const { params, isNeeded } = askedOf(call);
  const command = program.command(name).description(call.summary);
  for (const word of params) command.argument(isNeeded ? `<${SAID[word] ?? word}>` : `[${SAID[word] ?? word}]`);
  // a southern latitude looks like an option
  if (params.some((word) => POSITIONS.has(word))) command.allowUnknownOption();
  for (const [word, schema] of Object.entries(wordsOf(call))) {
    if (params.includes(word) || LEFT_OUT.has(word)) continue;
    const flag = schema.def.type === "default" && typeof schema.parse(undefined) === "boolean";
    command.addOption(
      new Option(flag ? `--${word}` : `--${word} <value>`, schema.meta()?.description ?? "Part of the request."),
    );
  }
  command.addOption(new Option("--json", "print the full response as JSON"));
  command.addHelpText("after", `\nExample:\n  $ bibliotope ${name} ${exampleOf(call, params)}`);
  command.action(async (...given: unknown[]) => {
    const { json, ...options } = given[params.length] as Record<string, string | boolean>;
    const words = Object.fromEntries(
      params.flatMap((word, i) => (given[i] === undefined ? [] : [[word, String(given[i])]])),
    );
    for (const word of params) if (POSITIONS.has(word)) readPosition(words[word]);
    const answer = await ask(call, { ...words, ...options }, program.opts());
    const lines = json ? undefined : (LINES[name] as ((of: unknown) => string[]) | undefined);
    const shown = lines?.(answer) ?? [JSON.stringify(answer, null, 2)];
    for (const line of shown) console.log(line);
    if (answer.outcome === "none") process.exitCode = ENDS.nothingFound;
  });
}

/** What is behind the command's name: what is in the path and what must be said, else the text, which may be left out. */
function askedOf(call: Call): { params: string[]; isNeeded: boolean } {
  const inPath = Array.from(call.path.matchAll(/\{(\w+)\}/g), ([, part]) => part);
  const needed = Object.entries(wordsOf(call)).flatMap(([word, schema]) =>
    schema.safeParse(undefined).success ? [] : [word],
  );
  const params = [...inPath, ...needed];
  return params.length ? { params, isNeeded: true } : { params: ["q"], isNeeded: false };
}

const wordsOf = ({ asks }: Call) => ((asks as z.ZodObject | undefined)?.shape ?? {}) as Record<string, z.ZodType>;

/** The wire's example as it is written in a terminal. */
function exampleOf({ example }: Call, params: readonly string[]): string {
  const quoted = (value: string) => (/^[\w.,-]+$/.test(value) ? value : `"${value}"`);
  const options = Object.entries(example).filter(([word]) => !params.includes(word));
  return [
    ...params.map((word) => quoted(example[word])),
    ...options.map(([word, value]) => `--${word} ${quoted(value)}`),
  ].join(" ");
}

async function ask(call: Call, words: Record<string, string | boolean>, server: ServerOptions) {
  const { url, key } = serverOf(server);
  const query = new URLSearchParams(
    Object.entries(words).map(([word, value]): [string, string] => [word, String(value)]),
  );
  const path = call.path.replace(/\{(\w+)\}/g, (_, part: string) => {
    const value = query.get(part) ?? "";
    query.delete(part);
    return encodeURIComponent(value);
  });
  const headers = { Authorization: `Bearer ${key}`, Accept: call.mediaType };
  return answerOf<{ outcome?: string }>(fetch(`${url}${path}?${query}`, { headers })).catch((error: unknown) => {
    if (!(error instanceof Stop)) throw error;
    // a ref that nothing has is an answer too
    if (error.status === 404 || error.status === 410) throw new Stop(error.message, ENDS.nothingFound);
    throw error.status === 400 ? new Stop(error.message, ENDS.wrongUse) : error;
  });
}
