import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { cpus, totalmem } from "node:os";
import { measureBeside } from "./beside.ts";
import { makeCorpus, SIZES, type SizeName } from "./corpus.ts";
import { measureEngine } from "./engine.ts";
import { measureFleet } from "./fleet.ts";
import { measureFirstPage, suggestLoad } from "./http.ts";
import { measureImport } from "./import.ts";
import { measureGroups, measureMap, measureStills } from "./map.ts";
import type { Measure } from "./measure.ts";
import { measureOverload } from "./overload.ts";
import { measureServices } from "./services.ts";
import { measureSoak } from "./soak.ts";
import { measureSwap } from "./swap.ts";
import { measureThreads } from "./threads.ts";
import { measureTowns } from "./towns.ts";
import { measureTyped } from "./typed.ts";
import { measureUses } from "./uses.ts";
import { measureWorld } from "./world/table.ts";

const [readyFile, database, sizeName = "demo", only, minutes = "60"] = process.argv.slice(2);
if (!(sizeName in SIZES)) throw new Error(`--size is one of ${Object.keys(SIZES).join(", ")}, not ${sizeName}`);
const size = sizeName as SizeName;
/** Addresses that queries are made from. */
const SAMPLES = 10_000;
const machine = `${cpus().length} × ${cpus()[0].model.trim()}, ${Math.round(totalmem() / 2 ** 30)} GiB, Node ${process.versions.node}, ${new Date().toISOString().slice(0, 10)}`;
console.log(`\n  ${machine}\n`);

const measures: Measure[] = [];
const note = (measure: Measure) => {
  measures.push(measure);
  const { holds, unit, value, target, beside } = measure;
  console.log(
    `  ${holds ? "holds " : "MISSED"}  ${measure.measure.padEnd(58)} ${`${value} ${unit}`.padStart(12)}  target ${`${target} ${unit}`.padEnd(8)}  ${beside}`,
  );
};
const ready = JSON.parse(readFileSync(readyFile, "utf8")) as {
  url: string;
  signIn: string;
  pid: number;
  keys: { web: string; srv: string };
};
const map = async () => {
  for await (const measure of measureMap(ready)) note(measure);
  note(await measureStills(ready));
  note(measureGroups());
};
const uses = async () => {
  for await (const measure of measureUses(ready, database)) note(measure);
};
const http = async () => {
  for await (const measure of measureTyped(size)) note(measure);
};
if (only === "map") await map();
else if (only === "http") await http();
else if (only === "overload") for await (const measure of measureOverload(size)) note(measure);
else if (only === "services") for await (const measure of measureServices(ready)) note(measure);
else if (only === "uses") await uses();
else if (only === "beside") for await (const measure of measureBeside(ready, readyFile, database)) note(measure);
else if (only === "soak")
  for await (const measure of measureSoak(ready, readyFile, database, Number(minutes))) note(measure);
else if (only === "threads") for await (const measure of measureThreads(size, database, ready.keys.srv)) note(measure);
else if (only === "fleet") for await (const measure of measureFleet(database, ready.keys.srv)) note(measure);
else if (only === "import") for await (const measure of measureImport(ready, database)) note(measure);
else if (only === "towns") for await (const measure of measureTowns(ready)) note(measure);
else if (size === "demo") {
  // the server first: the engine's corpus would weigh on this process, which also makes the load
  await http();
  for await (const measure of measureOverload(size)) note(measure);
  note(await measureSwap(suggestLoad(ready.url, ready.keys.srv), readyFile, database));
  note(await measureFirstPage(ready.url));
  await uses();
  await map();
}
const about = { isSmall: size !== "10m", isLarge: size === "10m", database };
if (!only && size === "demo") for (const measure of measureWorld()) note(measure);
if (!only) for await (const measure of measureEngine(makeCorpus(size, SAMPLES), about)) note(measure);

mkdirSync("bench-results", { recursive: true });
writeFileSync("bench-results/latest.json", JSON.stringify(measures, null, 2));
console.log("\n  Written to bench-results/latest.json\n");
// what makes the load keeps the process alive
process.exit(0);
