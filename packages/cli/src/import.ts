import { formOf, type Projection } from "@bibliotope/core/bring";
import type { DataAnswer, FileAnswer, FileStart, JobSummary, TableReading } from "@bibliotope/wire";
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
  publish?: boolean;
}

/** Brings a file as a new version of a data set; the same as in the workbench. @param say hears what is done */
export async function importFile(file: string, options: ImportOptions, say: (line: string) => void): Promise<void> {
  const workbench = await Workbench.open();
  const held = await workbench.handIn<FileAnswer>(file);
  const dataSet = { name: options.dataSet, licence: options.licence, source: options.source };
  let start = await workbench.send<FileStart>(`/files/${held.id}/look`, { dataSet: dataSet.name });
  const reading = readingOf(start, options);
  start = await workbench.send<FileStart>(`/files/${held.id}/look`, { format: start.format, reading });
  for (const line of columnLines(start)) say(line);
  const { format, heads } = start;
  const { job } = await workbench.send<{ job: number }>("/loads", {
    ...{ file: held.id, format, heads, reading: start.reading, dataSet },
    day: options.day,
  });
  const loaded = await ended(workbench, job);
  say(`${loaded.words}.`);
  const { version, checks } = loaded.result as { version: number; checks: Record<string, number> };
  for (const [kind, rows] of Object.entries(checks))
    say(`  ${rows.toLocaleString("en")} ${rows === 1 ? "row" : "rows"}: ${kind.replaceAll("-", " ")}`);
  if (!options.publish) return;
  const { dataSets, publications } = await workbench.get<DataAnswer>("/data");
  const same = dataSets.find(({ name }) => name === options.dataSet)?.versions.map(({ id }) => id) ?? [];
  const others = (publications[0]?.versions ?? []).filter((id) => !same.includes(id));
  const why = `${options.dataSet}, from the command line`;
  const published = await workbench.send<{ job: number }>("/publications", { versions: [version, ...others], why });
  say(`${(await ended(workbench, published.job)).words}.`);
}

/** What the columns are taken for: as proposed, but for those that were said by hand (`HEAD=MEANING`, `HEAD=` for none). */
export function readingOf({ heads, reading }: FileStart, options: ImportOptions): TableReading {
  const { country, column } = options;
  const projection = projectionOf(options);
  const columns = [...reading.columns];
  for (const said of column) {
    const at = said.lastIndexOf("=");
    const head = said.slice(0, at);
    const place = heads ? heads.indexOf(head) : Number(head) - 1;
    if (at < 0 || columns[place] === undefined)
      throw new Error(`“${said}” names no column. Give HEAD=MEANING, such as “road=street”.`);
    const [meaning, ...rest] = said.slice(at + 1).split(":");
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
  };
}

/** What metres are of, by a zone of UTM or by a code of EPSG. */
export function projectionOf({ zone, crs }: Pick<ImportOptions, "zone" | "crs">): Projection | undefined {
  if (zone && crs) throw new Error("Give --zone or --crs, not both.");
  if (zone) return { system: "utm", zone: zone.toUpperCase() };
  if (!crs) return undefined;
  const code = /^(?:EPSG:)?(\d+)$/i.exec(crs)?.[1] ?? "";
  if (code === "4326" || code === "4258") return { system: "degrees" };
  if (code === "3857") return { system: "web-mercator" };
  const utm = /^(326|327|258)(\d\d)$/.exec(code);
  if (utm && Number(utm[2]) >= 1 && Number(utm[2]) <= 60)
    return { system: "utm", zone: `${Number(utm[2])}${utm[1] === "327" ? "S" : "N"}` };
  throw new Error(
    `“${crs}” is not known here: EPSG:3857, EPSG:4326, and the zones of UTM (EPSG:326…, 327… and 258…) are.`,
  );
}

function columnLines({ heads, columns, rows }: FileStart): string[] {
  const names = columns.map((_, i) => heads?.[i] ?? String(i + 1));
  const width = Math.max(...names.map((name) => name.length));
  const refused = rows.filter((row) => row.refused);
  return [
    ...columns.map(({ use, why }, i) => `  ${names[i].padEnd(width)}  ${(use?.meaning ?? "–").padEnd(12)} ${why}`),
    ...(refused.length
      ? [`  ${refused.length} of the first ${rows.length} rows would not be taken: ${refused[0].refused}`]
      : []),
  ];
}

async function ended(workbench: Workbench, id: number): Promise<JobSummary> {
  const { job } = await follow(async () => {
    const job = (await workbench.get<{ jobs: JobSummary[] }>("/jobs")).jobs.find((one) => one.id === id);
    if (!job) throw new Error("The work is not listed any more.");
    return { job, state: job.state, words: job.words, share: job.total ? job.done / job.total : 0 };
  });
  return job;
}
