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
  return [columns, ...rows].map((row) => rowOf(row)).join("");
}

/**
 * One row of a table as RFC 4180 has it. A text that begins like a formula has an apostrophe before it, since spreadsheets run
 * what begins so (OWASP ASVS 5, 1.2.10).
 * @param own how many of the first cells are the reader's own, and stay as they are
 */
export function rowOf(row: readonly (string | number | undefined)[], own = 0): string {
  return `${row.map((value, i) => cell(value, i < own)).join(",")}\r\n`;
}

/** What a spreadsheet would take for a formula, with the apostrophes that were put before one like it. */
const FORMULA = /^'*[=+\-@\t\r]/;
/** Numbers, telephone numbers and the like: nothing is called by them. */
const HARMLESS = /^[+-]?[\d .,()/-]*$/;

/**
 * Puts an apostrophe before a text that a spreadsheet would take for a formula. What reads tables takes it away again: see
 * `withoutGuard`.
 */
const guarded = (text: string) => (FORMULA.test(text) && !HARMLESS.test(text) ? `'${text}` : text);

/** A cell as it was before `rowOf` made it harmless to spreadsheets. */
export function withoutGuard(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell;
}

function cell(value: string | number | undefined, isOwn: boolean): string {
  const text = typeof value === "string" && !isOwn ? guarded(value) : String(value ?? "");
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
