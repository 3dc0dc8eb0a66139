import { readFileSync } from "node:fs";
import { Command, Option } from "commander";
import { backup, restore } from "./backup.ts";
import { type BatchOptions, batchFile } from "./batch.ts";
import { ENDS, Stop } from "./ends.ts";
import { type ImportOptions, importFile } from "./import.ts";
import { addLookups } from "./lookups.ts";
import { erasePerson, exportPerson } from "./people.ts";

const VERSION: string = JSON.parse(readFileSync(new URL("../package.json", import.meta.url), "utf8")).version;

/** The `bibliotope` command: asks a server by hand, brings it data, runs batches. */
const program = new Command("bibliotope")
  .description("Asks a Bibliotope server from the terminal.")
  .option("--url <url>", "where the server is; the one that npm start runs here when not given")
  .option("--key <key>", "a server key (bt_srv_…)")
  .version(VERSION)
  // what was wrongly said is told from what went wrong
  .exitOverride(({ exitCode }) => process.exit(exitCode === 0 ? ENDS.done : ENDS.wrongUse))
  .addHelpText(
    "after",
    "\nIt ends with 0 when done, 1 when something failed, 2 when it was called wrongly, 3 when no server answers, 4 when nothing was found.",
  );

addLookups(program);
program
  .command("batch <file>")
  .description("looks up all rows of a CSV or GeoJSON file; they come back with what was found")
  .option("--out <file>", "where they go; the terminal when not given")
  .addOption(new Option("--format <format>", "how they are written").choices(["csv", "geojson", "gpx"]).default("csv"))
  .addOption(new Option("--ask <what>", "what the rows ask").choices(["forward", "reverse", "both"]))
  .option("--register [service]", "asks a register about the rows that are clear")
  .option("--accepted", "only rows that are clear, or that somebody has accepted")
  .addHelpText("after", "\nExample:\n  $ bibliotope batch members.csv --out members-found.csv")
  .action((file: string, options: BatchOptions) => batchFile(file, options, program.opts(), say));
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
  .addHelpText(
    "after",
    "\nExample:\n  $ bibliotope import houses.csv --data-set Houses --licence CC0-1.0 --country QR --publish",
  )
  .action((file: string, options: ImportOptions) => importFile(file, options, say));
program
  .command("export-person <name>")
  .description("writes all that is held of somebody who may sign in, but for hashes and secrets, as JSON")
  .option("--out <file>", "where it goes; the terminal when not given")
  .addHelpText("after", '\nExample:\n  $ bibliotope export-person "Wendeline Oakhurst" --out wendeline.json')
  .action(exportPerson);
program
  .command("erase-person <name>")
  .description("takes somebody out with all that is held of them; what they made for others stays, without their name")
  .option("--yes", "does not ask")
  .addHelpText("after", '\nExample:\n  $ bibliotope erase-person "Wendeline Oakhurst"')
  .action((name: string, options: { yes?: boolean }) => erasePerson(name, options, say));
program
  .command("backup <file>")
  .description("writes all that the database holds into a file")
  .addHelpText("after", "\nExample:\n  $ bibliotope backup all.backup")
  .action((file: string) => backup(file));
program
  .command("restore <file>")
  .description("puts back what backup wrote; what is there now is lost")
  .addHelpText("after", "\nExample:\n  $ bibliotope restore all.backup")
  .action((file: string) => restore(file, say));

try {
  await program.parseAsync();
} catch (error) {
  // what is said goes beside what is asked for: to the error stream
  console.error(`error: ${(error as Error).message}`);
  process.exitCode = error instanceof Stop ? error.end : ENDS.failed;
}

function collect(value: string, before: string[]): string[] {
  return [...before, value];
}

function say(line: string): void {
  console.error(line);
}
