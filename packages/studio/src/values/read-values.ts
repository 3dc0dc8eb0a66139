import { isPosition, type Position } from "@bibliotope/core/geo";
import { pointIn, proposeColumns } from "@bibliotope/core/import";
import Papa from "papaparse";

/** Places with what is known of each, as they stand in a file. */
export interface ValueTable {
  heads: readonly string[];
  /** Cells, column by column. */
  columns: readonly (readonly string[])[];
  /** Where each row lies; undefined where it has no position. */
  at: readonly (Position | undefined)[];
}

/** What a file may have at most: bytes, rows, columns, characters of a cell. */
export const MOST_BYTES = 20 * 2 ** 20;
const MOST_ROWS = 50_000;
const MOST_COLUMNS = 500;
const MOST_LETTERS = 64_000;

/** A file that cannot be shown, and why, in words. */
export class NotShown extends Error {}

/** The text of a file: UTF-8, or windows-1252 where it is not that. */
export function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

/**
 * Reads a CSV with positions in it, or GeoJSON of points.
 * @throws NotShown for what is neither, too large, or has no positions
 */
export function readValues(text: string): ValueTable {
  const table = /^\s*\{/.test(text) ? readFeatures(text) : readCsv(text);
  const { heads, columns } = table;
  const widest = columns.findIndex((cells) => cells.some((cell) => cell.length > MOST_LETTERS));
  if (widest >= 0) throw new NotShown(`A cell of “${heads[widest].slice(0, 40)}” is longer than 64,000 characters.`);
  if (!table.at.length) throw new NotShown("The file has no rows.");
  if (table.at.every((at) => !at)) throw new NotShown("No row has a position. To look up addresses, use “New batch”.");
  return table;
}

function readCsv(text: string): ValueTable {
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: "greedy", preview: MOST_ROWS + 2 });
  if (errors.some(({ code }) => code === "MissingQuotes")) throw new NotShown("A quote in the file is never closed.");
  const [heads = [], ...rows] = data;
  if (heads.length > MOST_COLUMNS) throw new NotShown(`It has ${heads.length} columns; the limit is 500.`);
  if (rows.length > MOST_ROWS) throw new NotShown("It has more than 50,000 rows: use a batch.");
  const proposals = proposeColumns(heads, rows);
  const place = (meaning: string) => proposals.findIndex(({ use }) => use?.meaning === meaning);
  const [lat, lon, position, lonlat] = [place("lat"), place("lon"), place("position"), place("lonlat")];
  const number = (cell: string | undefined) => {
    const plain = cell?.trim().replace(",", ".") ?? "";
    return /^[+-]?\d+(\.\d+)?$/.test(plain) ? Number(plain) : Number.NaN;
  };
  const at = rows.map((row) => {
    if (lat >= 0 && lon >= 0) {
      const spot = { lat: number(row[lat]), lon: number(row[lon]) };
      return isPosition(spot.lat, spot.lon) ? spot : undefined;
    }
    const point = pointIn(row[Math.max(position, lonlat)] ?? "", position < 0);
    return point && "at" in point ? point.at : undefined;
  });
  return { heads, columns: heads.map((_, column) => rows.map((row) => row[column] ?? "")), at };
}

function readFeatures(text: string): ValueTable {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new NotShown("It looks like JSON, but is not valid.");
  }
  const features = (read as { features?: unknown }).features;
  const isAll = Array.isArray(features) && features.every((one) => typeof one === "object" && one !== null);
  if (!isAll) throw new NotShown("It is JSON, but not GeoJSON with features.");
  if (features.length > MOST_ROWS) throw new NotShown("It has more than 50,000 features: use a batch.");
  const heads = new Set<string>();
  for (const { properties } of features as { properties?: object | null }[]) {
    for (const name of Object.keys(properties ?? {})) heads.add(name);
    if (heads.size > MOST_COLUMNS) throw new NotShown("Its features have more than 500 properties.");
  }
  const cell = (value: unknown) =>
    value === null || value === undefined ? "" : typeof value === "object" ? JSON.stringify(value) : String(value);
  return {
    heads: [...heads],
    columns: [...heads].map((name) => {
      return features.map(({ properties }) =>
        properties && Object.hasOwn(properties, name) ? cell(properties[name]) : "",
      );
    }),
    at: features.map(({ geometry }) => {
      const [lon, lat] = geometry?.type === "Point" && Array.isArray(geometry.coordinates) ? geometry.coordinates : [];
      return typeof lat === "number" && typeof lon === "number" && isPosition(lat, lon) ? { lat, lon } : undefined;
    }),
  };
}
