import { readFileSync } from "node:fs";
import { Client, LookupError } from "@bibliotope/kit/client";
import { Command } from "commander";
import { candidateLines, suggestionLines } from "./lines.ts";
import { readPosition } from "./position.ts";

/** The `bibliotope` command: asks a server by hand. */
const program = new Command("bibliotope")
  .description("Asks a Bibliotope server from the terminal.")
  .option("--url <url>", "where the server is; the one that npm start runs here when not given")
  .option("--key <key>", "a server key (bt_srv_…)");

program
  .command("suggest <text>")
  .description("lines that a text may become")
  .action((text: string) => answer(async (client) => suggestionLines(await client.suggest(text))));
program
  .command("forward <text>")
  .description("candidates for an address")
  .action((text: string) => answer(async (client) => candidateLines(await client.forward({ q: text }))));
program
  .command("reverse <position>")
  .description("the nearest address to LAT,LON, and the areas around")
  // a southern latitude looks like an option
  .allowUnknownOption()
  .action((text: string) => answer(async (client) => candidateLines(await client.reverse(readPosition(text)))));

await program.parseAsync();

async function answer(ask: (client: Client) => Promise<string[]>): Promise<void> {
  try {
    for (const line of await ask(makeClient())) console.log(line);
  } catch (error) {
    const words = error instanceof LookupError ? (error.problem?.detail ?? error.message) : (error as Error).message;
    program.error(words, { exitCode: 1 });
  }
}

/** The server and key that were given, else those of the server that npm start runs in this folder. */
function makeClient(): Client {
  const { url, key } = program.opts<{ url?: string; key?: string }>();
  if (url && key) return new Client({ url, key });
  try {
    const ready = JSON.parse(readFileSync(".bibliotope/ready.json", "utf8")) as { url: string; keys: { srv: string } };
    return new Client({ url: url ?? ready.url, key: key ?? ready.keys.srv });
  } catch {
    throw new Error("No server runs here: start one with npm start, or give --url and --key.");
  }
}
