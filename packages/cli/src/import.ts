import { factNameOf, formOf, gridOf, type Meaning, type Projection } from "@bibliotope/core/import";
import { FACT_KINDS } from "@bibliotope/core/place";
import type { FileStart, JobSummary, TableReading } from "@bibliotope/wire";
import { follow } from "./progress.ts";
import { Workbench } from "./server.ts";

export interface ImportOptions {
  dataSet: string;
  licence: string;
  source: string;
  day: string;
  country?: string;
  zone?: string;
  crs?: string;
  column: string[];
  join: string[];
  dryRun?: boolean;
  keepCapitals?: boolean;
  publish?: boolean;
}

/** Share of the rows from which the check itself is in doubt. */
const DOUBTFUL = 0.2;

/** Brings a file as a new version of a data set; the same as in the workbench. @param say hears what is done */
export async function importFile(file: string, options: ImportOptions, say: (line: string) => void): Promise<void> {
  const workbench = await Workbench.open();
  const uploaded = await workbench.handIn(file);
  const dataSet = { name: options.dataSet, licence: options.licence, source: options.source };
  const seen = await workbench.ask("inspectFile", { parts: { id: uploaded.id }, asks: { dataSet: dataSet.name } });
  const reading = readingOf(seen, options);
  const start = await workbench.ask("inspectFile", {
    parts: { id: uploaded.id },
    asks: { format: seen.format, reading },
  });
  // why a column was taken so is known of what was seen, not of what was then said
  const columns = start.columns.map(({ use, why }, i) => {
    const isAsSeen = JSON.stringify(use) === JSON.stringify(seen.columns[i]?.use);
    return { use, why: isAsSeen ? seen.columns[i].why : `set by hand; ${why}` };
  });
  for (const line of [...columnLines({ ...start, columns }), ...widerLines(seen, start)]) say(line);
  const { format, heads } = start;
  const { job } = await workbench.ask("makeLoad", {
    asks: {
      ...{ file: uploaded.id, format, heads, reading: start.reading, dataSet },
      ...{ day: options.day, ...(options.dryRun ? { isTrial: true } : {}) },
    },
  });
  const loaded = await ended(workbench, job);
  say(`${loaded.words}.`);
  const { version, checks, counts } = loaded.result as {
    version?: number;
    checks: Record<string, number>;
    counts: { rows: number };
  };
  for (const [kind, rows] of Object.entries(checks)) {
    const isDoubtful = rows > counts.rows * DOUBTFUL;
    const doubt = isDoubtful
      ? "; more than a fifth of all rows: the check may not apply to this data, or the file may be read incorrectly"
      : "";
    say(`  ${rows.toLocaleString("en")} ${rows === 1 ? "row" : "rows"}: ${kind.replaceAll("-", " ")}${doubt}`);
  }
  if (version === undefined) return;
  if (!options.publish) return;
  const { dataSets, publications } = await workbench.ask("data", {});
  const same = dataSets.find(({ name }) => name === options.dataSet)?.versions.map(({ id }) => id) ?? [];
  const others = (publications[0]?.versions ?? []).filter((id) => !same.includes(id));
  const why = `${options.dataSet}, from the command line`;
  const published = await workbench.ask("publishData", { asks: { versions: [version, ...others], why } });
  say(`${(await ended(workbench, published.job)).words}.`);
}

/** What the columns are taken for: as proposed, but for those that were said by hand (`HEAD=MEANING`, `HEAD=` for none). */
export function readingOf({ heads, reading }: FileStart, options: ImportOptions): TableReading {
  const { country, column } = options;
  const projection = projectionOf(options);
  const columns = [...reading.columns];
  const placeOf = (head: string) => (heads ? heads.indexOf(head) : Number(head) - 1);
  for (const said of options.join) {
    const { parts, meanings } = joined(said);
    parts.forEach((head, i) => {
      const place = placeOf(head);
      if (columns[place] === undefined) throw new Error(`“${said}”: there is no column “${head}”.`);
      columns[place] = { meaning: meanings[Math.min(i, meanings.length - 1)] };
    });
  }
  for (const said of column) {
    const at = said.lastIndexOf("=");
    const place = placeOf(said.slice(0, at));
    if (at < 0 || columns[place] === undefined)
      throw new Error(`“${said}” names no column. Use COLUMN=MEANING, for example “road=street”.`);
    const [meaning, ...rest] = said.slice(at + 1).split(":");
    if (meaning === "fact") {
      columns[place] = { meaning, fact: factOf(said.slice(0, at), rest[0]) };
      continue;
    }
    const form = rest.map(formOf).find(Boolean);
    const lang = rest.find((one) => one !== form);
    columns[place] = meaning
      ? ({ meaning, ...(form ? { form } : {}), ...(lang ? { lang } : {}) } as (typeof columns)[number])
      : null;
  }
  return {
    ...reading,
    columns,
    ...(country ? { country: country.toUpperCase() } : {}),
    ...(projection ? { projection } : {}),
    ...(options.keepCapitals ? { recases: false } : {}),
  };
}

/** A fact of places, named by the head of the column. */
function factOf(
  head: string,
  kind: string | undefined,
): NonNullable<NonNullable<TableReading["columns"][number]>["fact"]> {
  const name = factNameOf(head);
  const known = FACT_KINDS.find((one) => one === (kind ?? "text"));
  if (!name) throw new Error(`“${head}” cannot be the name of an attribute: it needs Latin letters.`);
  if (!known) throw new Error(`“${kind}” is not a kind of attribute. The kinds are ${FACT_KINDS.join(", ")}.`);
  return { name, label: head, kind: known };
}

/** What columns that make one part are each taken for: the kind of street and its name, a number and what is behind it. */
function joined(said: string): { parts: string[]; meanings: Meaning[] } {
  const at = said.lastIndexOf("=");
  const parts = said.slice(0, Math.max(at, 0)).split("+");
  const meaning = said.slice(at + 1);
  const meanings = JOINS[meaning];
  if (parts.length < 2 || !meanings || (meaning === "street" && parts.length > 2))
    throw new Error(
      `“${said}” joins nothing. Use COLUMN+COLUMN=street or COLUMN+COLUMN=house, for example “TYPE+NAME=street”.`,
    );
  return { parts, meanings };
}

const JOINS: Readonly<Record<string, Meaning[]>> = { street: ["way", "street"], house: ["house", "suffix"] };

/** What metres are of, by a zone of UTM or by a code of EPSG. */
export function projectionOf({ zone, crs }: Pick<ImportOptions, "zone" | "crs">): Projection | undefined {
  if (zone && crs) throw new Error("Use either --zone or --crs, not both.");
  if (zone) return { system: "utm", zone: zone.toUpperCase() };
  if (!crs) return undefined;
  const code = /^(?:EPSG:)?(\d+)$/i.exec(crs)?.[1] ?? "";
  if (code === "4326" || code === "4258") return { system: "degrees" };
  if (code === "3857") return { system: "web-mercator" };
  const utm = /^(326|327|258)(\d\d)$/.exec(code);
  if (utm && Number(utm[2]) >= 1 && Number(utm[2]) <= 60)
    return { system: "utm", zone: `${Number(utm[2])}${utm[1] === "327" ? "S" : "N"}` };
  if (gridOf(Number(code))) return { system: "epsg", epsg: Number(code) };
  throw new Error(
    `“${crs}” is not supported. Supported are EPSG:3857, EPSG:4326, UTM zones (EPSG:326…, 327… and 258…) and the grids of many countries.`,
  );
}

function columnLines({ heads, columns, rows }: FileStart): string[] {
  const names = columns.map((_, i) => heads?.[i] ?? String(i + 1));
  const width = Math.max(...names.map((name) => name.length));
  const refused = rows.filter((row) => row.refused);
  return [
    ...columns.map(({ use, why }, i) => `  ${names[i].padEnd(width)}  ${(use?.meaning ?? "–").padEnd(12)} ${why}`),
    ...(refused.length
      ? [`  ${refused.length} of the first ${rows.length} rows would be rejected: ${refused[0].refused}`]
      : []),
  ];
}

/** What no column contains: the country and the projection, with the evidence. */
function widerLines(seen: FileStart, { reading, projections }: FileStart): string[] {
  const { country, projection, recases } = reading;
  const why = seen.countryWhy && seen.reading.country === country ? `: ${seen.countryWhy}` : "";
  const others = projections.filter(
    (one) => JSON.stringify(one.projection) !== JSON.stringify(projection) || one.isSwapped,
  );
  return [
    ...(recases ? ["  names in capitals are converted to title case"] : []),
    ...(country
      ? [` rows without a country are in ${country}${why}`]
      : seen.countryWhy
        ? [`  ${seen.countryWhy}`]
        : []),
    ...(others.length
      ? [
          ` the rows would also be in ${country ?? "their country"} with ${others.map(({ name, isSwapped }) => `${name}${isSwapped ? " with the two columns swapped" : ""}`).join(", ")}`,
        ]
      : []),
  ];
}

async function ended(workbench: Workbench, id: number): Promise<JobSummary> {
  const { job } = await follow(async () => {
    const job = (await workbench.ask("jobs", {})).jobs.find((one) => one.id === id);
    if (!job) throw new Error("The job is no longer listed.");
    return { job, state: job.state, words: job.words, share: job.total ? job.done / job.total : 0 };
  });
  return job;
}
