import { type Client, LookupError } from "@bibliotope/kit/client";
import { Command, Option } from "commander";
import { backup, restore } from "./backup.ts";
import { type BatchOptions, batchFile } from "./batch.ts";
import { type ImportOptions, importFile } from "./import.ts";
import { candidateLines, suggestionLines } from "./lines.ts";
import { readPosition } from "./position.ts";
import { makeClient } from "./server.ts";

/** The `bibliotope` command: asks a server by hand, brings it data, runs batches. */
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

program
  .command("batch <file>")
  .description("looks up all rows of a CSV or GeoJSON file; they come back with what was found")
  .option("--out <file>", "where they go; the terminal when not given")
  .addOption(new Option("--format <format>", "how they are written").choices(["csv", "geojson", "gpx"]).default("csv"))
  .addOption(new Option("--ask <what>", "what the rows ask").choices(["forward", "reverse", "both"]))
  .option("--accepted", "only rows that are clear, or that somebody has accepted")
  .action((file: string, options: BatchOptions) => doing((say) => batchFile(file, options, program.opts(), say)));
program
  .command("import <file>")
  .description("brings a CSV or GeoJSON file as data of your own, to the server that runs in this folder")
  .requiredOption("--data-set <name>", "the data set that it becomes a version of")
  .requiredOption("--licence <licence>", "under which it may be used, such as CC0-1.0")
  .option("--source <words>", "who made it", "")
  .option("--day <day>", "of which day it is, such as 2026-11-01", new Date().toISOString().slice(0, 10))
  .option("--country <code>", "of rows that name none, such as QR")
  .option("--zone <zone>", "of metres: a zone of UTM, such as 32N")
  .option("--crs <code>", "of metres: a code of EPSG, such as EPSG:25832 or EPSG:27700")
  .option("--column <head=meaning>", "what a column is, where it is not seen; several times", collect, [])
  .option("--join <head+head=meaning>", "columns that make a street or a house number together", collect, [])
  .option("--keep-capitals", "leaves names that stand in capitals as they are")
  .option("--dry-run", "reads and checks all of it, says what would come of it, and keeps nothing")
  .option("--publish", "makes it live, trusted before all others")
  .action((file: string, options: ImportOptions) => doing((say) => importFile(file, options, say)));
program
  .command("backup <file>")
  .description("writes all that the database holds into a file")
  .action((file: string) => doing(() => backup(file)));
program
  .command("restore <file>")
  .description("puts back what backup wrote; what is there now is lost")
  .action((file: string) => doing(() => restore(file)));

await program.parseAsync();

function collect(value: string, before: string[]): string[] {
  return [...before, value];
}

async function answer(ask: (client: Client) => Promise<string[]>): Promise<void> {
  await doing(async (say) => {
    for (const line of await ask(makeClient(program.opts()))) say(line);
  }, console.log);
}

/** Does something, and says what went wrong. What is said goes beside what is asked for: to the error stream. */
async function doing(does: (say: (line: string) => void) => Promise<void>, say = console.error): Promise<void> {
  try {
    await does((line) => say(line));
  } catch (error) {
    const words = error instanceof LookupError ? (error.problem?.detail ?? error.message) : (error as Error).message;
    program.error(words, { exitCode: 1 });
  }
}
