import { readFileSync } from "node:fs";
import { Command, Option } from "commander";
import { backup, restore } from "./backup.ts";
import { type BatchOptions, batchFile } from "./batch.ts";
import { ENDS, Stop } from "./ends.ts";
import { type ImportOptions, importFile } from "./import.ts";
import { addLookups } from "./lookups.ts";
import { erasePerson, exportPerson } from "./people.ts";
import { serve } from "./serve.ts";

const VERSION: string = JSON.parse(readFileSync(new URL("../package.json", import.meta.url), "utf8")).version;

/** The `bibliotope` command: asks a server by hand, brings it data, runs batches. */
const program = new Command("bibliotope")
  .description("Command-line client for a Bibliotope server, and the server itself.")
  .option("--url <url>", "URL of the server (default: the one started by npm start in this folder)")
  .option("--key <key>", "server key (bt_srv_…)")
  .version(VERSION)
  // usage errors are distinguished from failures
  .exitOverride(({ exitCode }) => process.exit(exitCode === 0 ? ENDS.done : ENDS.wrongUse))
  .addHelpText("after", "\nExit codes: 0 success, 1 failure, 2 wrong usage, 3 no server, 4 nothing found.");

addLookups(program);
program
  .command("serve")
  .description("run a server with the settings in the environment (docs/operations.md)")
  .option("--check", "check the settings, print them and exit")
  .addHelpText("after", "\nExample:\n  $ bibliotope serve --check")
  .action(serve);
program
  .command("batch <file>")
  .description("look up all rows of a CSV or GeoJSON file and write them with the results")
  .option("--out <file>", "output file (default: standard output)")
  .addOption(new Option("--format <format>", "output format").choices(["csv", "geojson", "gpx"]).default("csv"))
  .addOption(new Option("--ask <what>", "kind of lookup for each row").choices(["forward", "reverse", "both"]))
  .option("--register [service]", "check clear rows against a register")
  .option("--accepted", "only rows that are clear or accepted")
  .addHelpText("after", "\nExample:\n  $ bibliotope batch members.csv --out members-found.csv")
  .action((file: string, options: BatchOptions) => batchFile(file, options, program.opts(), say));
program
  .command("import <file>")
  .description("import a CSV or GeoJSON file into the server running in this folder")
  .requiredOption("--data-set <name>", "data set to add a version to")
  .requiredOption("--licence <licence>", "licence of the data, for example CC0-1.0")
  .option("--source <words>", "publisher of the data", "")
  .option("--day <day>", "date of the data, for example 2026-11-01", new Date().toISOString().slice(0, 10))
  .option("--country <code>", "country of rows without one, for example QR")
  .option("--zone <zone>", "UTM zone of metre coordinates, for example 32N")
  .option("--crs <code>", "EPSG code of metre coordinates, for example EPSG:25832 or EPSG:27700")
  .option("--column <head=meaning>", "meaning of a column that was not recognised (repeatable)", collect, [])
  .option("--join <head+head=meaning>", "columns that together form a street or house number", collect, [])
  .option("--keep-capitals", "keep names in capitals as they are")
  .option("--dry-run", "read and check the file without importing it")
  .option("--publish", "publish the version, with precedence over all other data")
  .addHelpText(
    "after",
    "\nExample:\n  $ bibliotope import houses.csv --data-set Houses --licence CC0-1.0 --country QR --publish",
  )
  .action((file: string, options: ImportOptions) => importFile(file, options, say));
program
  .command("export-person <name>")
  .description("write all data stored about a person who can sign in, except hashes and secrets, as JSON")
  .option("--out <file>", "output file (default: standard output)")
  .addHelpText("after", '\nExample:\n  $ bibliotope export-person "Wendeline Oakhurst" --out wendeline.json')
  .action(exportPerson);
program
  .command("erase-person <name>")
  .description("delete a person and all data stored about them; what they created for others stays, without their name")
  .option("--yes", "do not ask for confirmation")
  .addHelpText("after", '\nExample:\n  $ bibliotope erase-person "Wendeline Oakhurst"')
  .action((name: string, options: { yes?: boolean }) => erasePerson(name, options, say));
program
  .command("backup <file>")
  .description("back up the database to a file")
  .addHelpText("after", "\nExample:\n  $ bibliotope backup all.backup")
  .action((file: string) => backup(file));
program
  .command("restore <file>")
  .description("restore a backup, replacing the current data")
  .addHelpText("after", "\nExample:\n  $ bibliotope restore all.backup")
  .action((file: string) => restore(file, say));

try {
  await program.parseAsync();
} catch (error) {
  // what is said goes beside what is requested: to the error stream
  console.error(`error: ${(error as Error).message}`);
  process.exitCode = error instanceof Stop ? error.end : ENDS.failed;
}

function collect(value: string, before: string[]): string[] {
  return [...before, value];
}

function say(line: string): void {
  console.error(line);
}
