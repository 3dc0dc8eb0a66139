import { commentOf, GPX_FOOT, GPX_HEAD, rowOf, waypointOf } from "@bibliotope/core/formats";
import { differencesText, PARTS } from "@bibliotope/core/place";
import type { BatchAnswer, Decision, RowRegister, RowStatus } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { OutFormat } from "../gazetteer/out.ts";

interface Row {
  number: number;
  cells: string[];
  standing: RowStatus | null;
  query: string | null;
  score: number | null;
  distance: number | null;
  decision: Decision | null;
  answer: BatchAnswer | null;
  register: RowRegister | null;
}

/** Columns of what was found, after the input's own. */
const FOUND = [
  ...["standing", "decision", "outcome", "score", "differences", "distance"],
  ...["ref", "kind", "exactness", "lat", "lon", "line"],
  ...PARTS,
];
/** Columns of a register's answer, where one was requested. */
const REGISTER = ["register", "register number", "register address"];
/** Characters that are handed on at once. */
const PIECE = 65_536;

/**
 * A batch with what was found: its own columns first and unchanged, in the order of the rows. What we add to a CSV is
 * never taken for a formula: a text that begins like one gets an apostrophe before it.
 *
 * @param isAcceptedOnly leaves out what is doubtful, was left, or was not found
 */
export async function* writeBatch(
  database: Knex,
  batch: { id: number; heads: string[] | null; register: string | null },
  format: OutFormat,
  isAcceptedOnly: boolean,
): AsyncGenerator<string> {
  const width = batch.heads?.length ?? (await widthOf(database, batch.id));
  const heads = batch.heads ?? Array.from({ length: width }, (_, i) => `column ${i + 1}`);
  let isFirst = true;
  let piece =
    format === "csv"
      ? rowOf([...heads, ...foundHeads(heads, batch.register ? [...FOUND, ...REGISTER] : FOUND)], heads.length)
      : format === "gpx"
        ? GPX_HEAD
        : '{"type":"FeatureCollection","features":[\n';
  for await (const row of rowsOf(database, batch.id)) {
    if (isAcceptedOnly && !isAccepted(row)) continue;
    if (format === "csv")
      piece += rowOf(
        [...paddedTo(row.cells, width), ...foundCells(row), ...(batch.register ? registerCells(row) : [])],
        Math.max(width, row.cells.length),
      );
    else if (format === "gpx") piece += waypoint(row);
    else piece += `${isFirst ? "" : ",\n"}${JSON.stringify(featureOf(heads, row))}`;
    isFirst = false;
    if (piece.length < PIECE) continue;
    yield piece;
    piece = "";
  }
  if (format === "geojson") piece += "\n]}\n";
  yield format === "gpx" ? piece + GPX_FOOT : piece;
}

/** Heads of what we add: where the input has a column of that name, ours gets another. */
const foundHeads = (heads: readonly string[], found: readonly string[]) =>
  found.map((head) => (heads.includes(head) ? `found ${head}` : head));

const isAccepted = ({ standing, decision }: Row) =>
  standing === "clear" || (standing === "seen" && decision !== "leave");

const paddedTo = (cells: readonly string[], width: number) =>
  cells.length >= width ? cells : [...cells, ...Array<string>(width - cells.length).fill("")];

function foundCells({ standing, decision, score, distance, answer }: Row): (string | number | undefined)[] {
  const taken = decision === "leave" ? null : answer;
  return [
    standing ?? undefined,
    decision ?? undefined,
    answer?.outcome,
    score ?? undefined,
    differencesText(answer?.differences),
    distance ?? undefined,
    taken?.ref,
    taken?.kind,
    taken?.exactness,
    taken?.at.lat,
    taken?.at.lon,
    taken?.line,
    ...PARTS.map((part) => taken?.parts[part]?.name),
  ];
}

/** The state, or how the call ended; its number; its own form of the address. */
function registerCells({ register }: Row): (string | undefined)[] {
  const { standing, outcome, number, official } = register ?? {};
  return [standing ?? outcome, number, official];
}

function featureOf(heads: readonly string[], row: Row) {
  const { number, cells, standing, decision, score, distance, answer, register } = row;
  const at = decision === "leave" ? undefined : answer?.at;
  const { at: _, ...found } = answer ?? { at: undefined };
  return {
    type: "Feature",
    id: number,
    geometry: at ? { type: "Point", coordinates: [at.lon, at.lat] } : null,
    properties: {
      ...Object.fromEntries(heads.map((head, i) => [head, cells[i] ?? ""])),
      found: {
        ...{ standing, decision, score, distance },
        ...(decision === "leave" ? {} : found),
        ...(register ? { register } : {}),
      },
    },
  };
}

function waypoint({ number, query, answer, decision }: Row): string {
  if (!answer || decision === "leave") return "";
  return waypointOf({
    at: answer.at,
    name: answer.line,
    description: query ?? "",
    comment: commentOf(answer.outcome, answer.differences),
    source: `row ${number}`,
    type: answer.kind,
  });
}

function rowsOf(database: Knex, batch: number): AsyncIterable<Row> {
  return database("batch_rows")
    .leftJoin("batch_results", {
      "batch_rows.batch_id": "batch_results.batch_id",
      "batch_rows.number": "batch_results.number",
    })
    .where("batch_rows.batch_id", batch)
    .select(
      "batch_rows.number",
      "cells",
      "standing",
      "asked as query",
      "score",
      "distance",
      "decision",
      "answer",
      "batch_results.register",
    )
    .orderBy("batch_rows.number")
    .stream();
}

async function widthOf(database: Knex, batch: number): Promise<number> {
  const row = await database("batch_rows")
    .where({ batch_id: batch })
    .max({ width: database.raw("cardinality(cells)") })
    .first();
  return Number(row?.width ?? 0);
}
