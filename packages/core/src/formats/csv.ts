import { differencesText, PARTS } from "../place/index.ts";
import type { LookupFeature } from "./lookup.ts";

/** Columns of a table of records, in order. */
export const CSV_COLUMNS = [
  "ref",
  "kind",
  "exactness",
  "outcome",
  "score",
  "differences",
  "distance",
  "bearing",
  "lat",
  "lon",
  "line",
  ...PARTS,
] as const;

/**
 * A table of records: RFC 4180, with a header, lines ended by CRLF, UTF-8. An absent value is an empty cell.
 * @param outcome of the lookup, the same in every row
 */
export function csvOf(features: readonly LookupFeature[], outcome?: string): string {
  const rows = features.map(({ id, properties }) => {
    const { kind, exactness, score, differences, distance, bearing, at, line, parts } = properties;
    const names = PARTS.map((part) => parts[part]?.name);
    return [
      id,
      kind,
      exactness,
      outcome,
      score,
      differencesText(differences),
      distance,
      bearing,
      at.lat,
      at.lon,
      line,
      ...names,
    ];
  });
  return tableOf(CSV_COLUMNS, rows);
}

/** Any table as RFC 4180 has it. An absent value is an empty cell. */
export function tableOf(
  columns: readonly string[],
  rows: readonly (readonly (string | number | undefined)[])[],
): string {
  return [columns, ...rows].map(rowOf).join("");
}

/** One row of a table as RFC 4180 has it. */
export function rowOf(row: readonly (string | number | undefined)[]): string {
  return `${row.map(cell).join(",")}\r\n`;
}

function cell(value: string | number | undefined): string {
  const text = String(value ?? "");
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
