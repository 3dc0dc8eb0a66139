import { type Constants, type Fleet, type Needs, needsOf } from "./fleet-model.ts";

/*
 * The tables of docs/scale.md: what fleets of some sizes need, worked out from what was measured. `paper.test.ts` holds the
 * page to it.
 */

/** A constant, and where it was measured. */
interface Measured {
  value: number;
  name: string;
  unit: string;
  from: string;
}

const MEASURED: Record<keyof Constants, Measured> = {
  indexBytes: {
    value: 39.5,
    name: "index of an address",
    unit: "bytes",
    from: "ten million addresses; `npm run bench -- --size 10m`",
  },
  segmentHolds: {
    value: 50e6,
    name: "addresses of one segment",
    unit: "",
    from: "its positions in the file are 32 bits, less than half of them used",
  },
  baseBytes: {
    value: 840e6,
    name: "memory of a server with the demo data",
    unit: "MB",
    from: "the most in an hour of load, publications and imports; `npm run bench -- soak`",
  },
  threadBytes: {
    value: 126e6,
    name: "memory of each further thread",
    unit: "MB",
    from: "`npm run bench -- threads`",
  },
  buildMicroseconds: {
    value: 15.5,
    name: "publication of an address, from tables to the index in use",
    unit: "µs",
    from: "a million addresses, best of five runs; `npm run bench -- import`",
  },
  lookup: {
    value: 0.93,
    name: "processor time of a lookup",
    unit: "ms",
    from: "`suggest` by HTTP with the demo data, no answer that was kept; `npm run bench -- fleet`",
  },
  idleTransactions: {
    value: 4.4,
    name: "transactions of a process at rest",
    unit: "a second",
    from: "`npm run bench -- fleet`",
  },
  connections: {
    value: 5,
    name: "connections of a process at rest",
    unit: "",
    from: "`npm run bench -- fleet`; each thread opens up to 8",
  },
  useTransactions: {
    value: 0.4,
    name: "transactions that write the use of keys",
    unit: "a second",
    from: "once in 2.5 seconds while lookups are asked",
  },
  rowTransactions: {
    value: 3532,
    name: "transactions on one row of the database",
    unit: "a second",
    from: "eight connections, one waits for the other; `npm run bench -- fleet`",
  },
};

const CONSTANTS = Object.fromEntries(Object.entries(MEASURED).map(([name, { value }]) => [name, value])) as Record<
  keyof Constants,
  number
>;

/** A store behind a link of ten gigabits a second. */
const LINK = 1.25e9;

const FLEETS: readonly (Omit<Fleet, "storeBytes"> & { name: string })[] = [
  { name: "3 machines, 10 million addresses", machines: 3, threads: 4, addresses: 10e6 },
  { name: "10 machines, 100 million", machines: 10, threads: 8, addresses: 100e6 },
  { name: "1,000 machines, 100 million", machines: 1000, threads: 8, addresses: 100e6 },
  { name: "1,000 machines, 1 billion on each", machines: 1000, threads: 8, addresses: 1e9 },
  { name: "one of 20 groups of 50 machines, 50 million in each", machines: 50, threads: 8, addresses: 50e6 },
];

const COLUMNS: readonly [string, (needs: Needs) => string][] = [
  ["segments", ({ segments }) => String(segments)],
  ["memory of a machine", ({ memory }) => inUnit(memory, 1e9, "GB")],
  ["building", ({ build }) => duration(build)],
  ["a publication sends", ({ sent }) => inUnit(sent, 1e9, "GB")],
  ["and takes", ({ sending }) => duration(sending)],
  ["lookups a second", ({ lookups }) => rounded(lookups)],
  ["connections", ({ connections }) => rounded(connections)],
  ["transactions a second", ({ transactions }) => rounded(transactions)],
  ["writes a second on one key", ({ keyTransactions }) => rounded(keyTransactions)],
  ["the same, held by 8 threads", ({ heldTransactions }) => rounded(heldTransactions)],
  ["of what one row takes", ({ keyShare }) => `${rounded(100 * keyShare)} %`],
];

/** Both tables, as Markdown. */
export function paperTables(): string {
  const constants = Object.values(MEASURED).map(
    ({ name, value, unit, from }) => `| ${name} | ${inUnit(value, unit === "MB" ? 1e6 : 1, unit)} | ${from} |`,
  );
  const fleets = FLEETS.map(({ name, ...fleet }) => ({
    name,
    needs: needsOf({ ...fleet, storeBytes: LINK }, CONSTANTS),
  }));
  const rows = COLUMNS.map(([name, read]) => `| ${name} | ${fleets.map(({ needs }) => read(needs)).join(" | ")} |`);
  return [
    "| what was measured | | where |",
    "| --- | --- | --- |",
    ...constants,
    "",
    `| | ${fleets.map(({ name }) => name).join(" | ")} |`,
    `| --- |${" --- |".repeat(fleets.length)}`,
    ...rows,
  ].join("\n");
}

const inUnit = (value: number, of: number, unit: string) => `${rounded(value / of)} ${unit}`.trim();

/** Three digits: what was measured has no more. */
const rounded = (value: number) => value.toLocaleString("en", { maximumSignificantDigits: 3 });

const duration = (seconds: number) => {
  if (seconds < 100) return `${rounded(seconds)} s`;
  return seconds < 6000 ? `${rounded(seconds / 60)} min` : `${rounded(seconds / 3600)} h`;
};
