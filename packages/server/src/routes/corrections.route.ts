import { parseHouseNumber, parseRef } from "@bibliotope/core/place";
import type { Change } from "@bibliotope/wire";
import type { Knex } from "knex";
import * as repository from "../corrections/corrections.repository.ts";
import { engineOf } from "../http/engine.ts";
import type { Incoming } from "../http/incoming.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { jsonReply } from "../http/reply.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import type { LiveIndex } from "../publication/live-index.ts";

interface Needs {
  database: Knex;
  index: LiveIndex;
}

/** Records changed by hand, and what end users report. */
export function correctionHandlers({ database, index }: Needs) {
  return { corrections, makeCorrection, decideCorrection } satisfies Partial<OwnHandlers>;

  async function corrections() {
    const holds = (identity: number) =>
      index.engine?.layers.some(({ segment }) => segment.find(identity) !== undefined) ?? false;
    return { corrections: await repository.listCorrections(database, holds) };
  }

  async function makeCorrection({ params: { ref, change, note = "" }, user }: Own<"makeCorrection">) {
    const target = await targetOf(ref, change);
    const id = await repository.makeCorrection(database, {
      ...{ state: "applied", ref, note, madeBy: user.id, key: null },
      ...target,
    });
    await index.recorrect();
    return { id };
  }

  async function decideCorrection({ params: { state, change }, id, user }: Own<"decideCorrection">) {
    const found = await repository.findCorrection(database, id());
    if (!found) throw new HttpProblem("not-found", "There is no such correction.");
    let decided: Change | undefined;
    if (state === "applied" && found.state === "proposed") {
      if (!found.ref)
        throw new HttpProblem(
          "conflict",
          "This report has no record. Correct the record it refers to, then refuse the report.",
        );
      const target = await targetOf(found.ref, change ?? found.change);
      await repository.setTarget(database, id(), { ...target, ref: found.ref });
      decided = target.change;
    }
    const from = { applied: ["proposed", "undone"], refused: ["proposed"], undone: ["applied"] }[state];
    if (!(await repository.decideCorrection(database, id(), { state, change: decided, by: user.id, from })))
      throw new HttpProblem("conflict", `It is ${found.state} already.`);
    await index.recorrect();
  }

  /** The record that a change is of, and the change as it is stored; a new identity for an address that is added. */
  async function targetOf(ref: string, change: Change) {
    const parsed = parseRef(ref);
    const record = engineOf(index).record(ref);
    if (!parsed || !record) throw new HttpProblem("not-found", "No record has this ref.");
    refuseEmpty(record.kind, change);
    const { adds, ...plain } = change;
    const common = { country: parsed.country, line: record.line };
    if (!adds) return { ...common, identity: parsed.identity, change: plain };
    const identity = await repository.identityByHand(database, `${parsed.identity}/${change.house}/${Date.now()}`);
    return { ...common, identity, change: { ...plain, adds: true, street: parsed.identity } };
  }
}

/** @throws HttpProblem when a change is empty, or has what a record of this kind does not have */
function refuseEmpty(kind: string, { isRemoved, at, house, name, adds }: Change): void {
  const wrong = (parameter: string, message: string) =>
    new HttpProblem("malformed", `${parameter}: ${message}.`, [{ parameter, message }]);
  if (house !== undefined && !parseHouseNumber(house)) throw wrong("house", "is not a house number such as 12b");
  if (adds) {
    if (kind !== "street" && kind !== "block") throw wrong("adds", "addresses can only be added to streets and blocks");
    if (!house || !at) throw wrong("adds", "a new address needs a number and a position");
    return;
  }
  const isArea = !["address", "street", "block", "place"].includes(kind);
  if (isArea) throw wrong("ref", `a ${kind} cannot be changed by hand; import it with its data`);
  if (house !== undefined && kind !== "address") throw wrong("house", `a ${kind} has no number`);
  if (name !== undefined && kind === "address") throw wrong("name", "an address has a number; its street has the name");
  if (!isRemoved && !at && house === undefined && name === undefined) throw wrong("change", "nothing would change");
}

/** A report by somebody who uses a form; it changes nothing until it is accepted. */
export function reportHandlers(database: Knex) {
  return { report } satisfies Partial<Handlers>;

  async function report(incoming: Incoming<"report">): Promise<Reply> {
    const { ref, at, text } = incoming.params;
    const record = ref === undefined ? undefined : incoming.engine.record(ref);
    if (ref !== undefined && !record) throw new HttpProblem("not-found", "No record has this ref.");
    await repository.makeCorrection(database, {
      state: "proposed",
      ref: ref ?? null,
      country: ref ? (parseRef(ref)?.country ?? null) : null,
      identity: ref ? (parseRef(ref)?.identity ?? null) : null,
      line: record?.line ?? "",
      change: at ? { at } : {},
      note: text,
      madeBy: null,
      key: incoming.key.id,
    });
    return jsonReply(incoming, { received: true }, performance.now(), { status: 202 });
  }
}
