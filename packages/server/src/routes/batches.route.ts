import type { Reading } from "@bibliotope/core/import";
import type { BatchCandidates } from "@bibliotope/wire";
import type { Knex } from "knex";
import * as repository from "../batches/batches.repository.ts";
import { answerOf, RowLookup } from "../batches/look-up.ts";
import { sendBatch, startBatch } from "../batches/start-batch.ts";
import { engineOf } from "../http/engine.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { malformedTable } from "../import/bytes.ts";
import type { Files } from "../import/files.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import type { Services } from "../services/services.ts";

interface Needs {
  database: Knex;
  jobs: Jobs;
  files: Files;
  index: LiveIndex;
  services: Services;
}

/** Rows of a list that are handed out at once. */
const ROWS = 200;

/** Many lookups at once, and what people decide about the doubtful ones. */
export function reviewHandlers({ database, jobs, files, index, services }: Needs) {
  return {
    batches,
    makeBatch,
    batch,
    dropBatch,
    batchRows,
    batchPoints,
    batchValues,
    batchRow,
    decideRow,
    takeBack,
    batchFile,
  } satisfies Partial<OwnHandlers>;

  async function batches() {
    return { batches: await repository.listBatches(database) };
  }

  async function makeBatch({ params: { file, ...batch }, user }: Own<"makeBatch">) {
    if (!(await files.find(file))) throw new HttpProblem("not-found", "The file no longer exists. Upload it again.");
    if (batch.register !== undefined) checkRegister(services, batch.register);
    return startBatch({ database, jobs }, await files.local(file).catch(malformedTable), batch, {
      madeBy: user.id,
      key: null,
    });
  }

  async function batch({ id }: Own<"batch">) {
    const found = await repository.readBatch(database, id());
    if (!found) throw noBatch();
    return found;
  }

  async function dropBatch({ id }: Own<"dropBatch">) {
    if (!(await repository.dropBatch(database, id()))) throw noBatch();
  }

  async function batchRows({ params: { show, offset }, id }: Own<"batchRows">) {
    const standing = show === "all" ? undefined : show;
    return { rows: await repository.listRows(database, id(), standing, { limit: ROWS, offset }) };
  }

  async function batchPoints({ id }: Own<"batchPoints">) {
    return repository.readPoints(database, id());
  }

  async function batchValues({ id, params }: Own<"batchValues">) {
    return repository.readValues(database, id(), params.column);
  }

  async function batchRow(own: Own<"batchRow">): Promise<BatchCandidates> {
    const { row, lookup } = await rowOf(own.id("id"), own.id("number"));
    const candidates = lookup.candidates(row.cells, own.params.text).map((candidate) => ({
      ...answerOf(candidate),
      ...("score" in candidate
        ? { score: candidate.score, differences: candidate.differences, gloss: candidate.gloss }
        : {}),
      ...("distance" in candidate ? { distance: candidate.distance } : {}),
    }));
    return { ...row, candidates };
  }

  async function decideRow({ params: { how, place = 0, ref, text }, id, user }: Own<"decideRow">) {
    const { batch, row, lookup } = await rowOf(id("id"), id("number"));
    const chosen = how === "leave" ? undefined : lookup.candidates(row.cells, text)[place];
    if (how !== "leave" && (!chosen || (ref !== undefined && chosen.ref !== ref)))
      throw new HttpProblem(
        "conflict",
        "The data has changed in the meantime, and with it the candidates. Reload them.",
      );
    await repository.decide(
      database,
      { batch: batch.id, number: row.number },
      { how, answer: chosen ? answerOf(chosen) : row.answer, by: user.id },
    );
  }

  async function takeBack({ id, user }: Own<"takeBack">) {
    const number = await repository.takeBack(database, id(), user.id);
    if (number === undefined) throw new HttpProblem("conflict", "You have no decision to undo.");
    return { number };
  }

  async function batchFile({ params, parts, id, response }: Own<"batchFile">) {
    const found = await repository.findBatch(database, id("id"));
    if (!found) throw noBatch();
    await sendBatch(database, found, parts.format, params.only === "accepted", response);
  }

  async function rowOf(id: number, number: number) {
    const found = await repository.findBatch(database, id);
    if (!found) throw noBatch();
    const row = await repository.readRow(database, found.id, number);
    if (!row) throw new HttpProblem("not-found", "This batch has no such row, or it was not looked up yet.");
    return { batch: found, row, lookup: new RowLookup(engineOf(index), found.reading as Reading, found.ask) };
  }
}

/** @throws HttpProblem for what is no register */
export function checkRegister(services: Services, name: string): void {
  if (services.find(name)?.service.register) return;
  throw new HttpProblem("malformed", `register: there is no register named “${name.slice(0, 30)}”.`, [
    { parameter: "register", message: "is not a register" },
  ]);
}

export const noBatch = () => new HttpProblem("not-found", "There is no such batch.");
