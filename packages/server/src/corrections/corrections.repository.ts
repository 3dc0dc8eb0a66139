import type { Correction } from "@bibliotope/core/index";
import { parseHouseNumber } from "@bibliotope/core/place";
import type { Change, CorrectionSummary } from "@bibliotope/wire";
import type { Knex } from "knex";

/** A change as it is stored: of an address that is added with the identity of its street. */
export type StoredChange = Change & { street?: number };

/** Corrections that are listed. */
const MOST = 200;

export interface NewCorrection {
  state: "proposed" | "applied";
  ref: string | null;
  country: string | null;
  identity: number | null;
  line: string;
  change: StoredChange;
  note: string;
  madeBy: number | null;
  key: number | null;
}

export async function makeCorrection(database: Knex, made: NewCorrection): Promise<number> {
  const { state, ref, country, identity, line, note } = made;
  const isApplied = state === "applied";
  const [{ id }] = await database("corrections")
    .insert({
      ...{ state, ref, country, identity, line, note },
      change: JSON.stringify(made.change),
      key_id: made.key,
      made_by: made.madeBy,
      decided_by: isApplied ? made.madeBy : null,
      decided_at: isApplied ? database.fn.now() : null,
    })
    .returning("id");
  if (isApplied) await tellAll(database);
  return id;
}

/** Proposals first, then the newest. */
export async function listCorrections(
  database: Knex,
  isHeld: (identity: number) => boolean,
): Promise<CorrectionSummary[]> {
  const rows = await database("corrections")
    .leftJoin("users as maker", "maker.id", "corrections.made_by")
    .leftJoin("users as decider", "decider.id", "corrections.decided_by")
    .select("corrections.id", "state", "ref", "identity", "line", "change", "note", "key_id", "corrections.made_at")
    .select("decided_at", { by: "maker.name" }, { decided_by_name: "decider.name" })
    .orderByRaw("state = 'proposed' desc, corrections.id desc")
    .limit(MOST);
  return rows.map((row) => ({
    ...{ id: row.id, state: row.state, ref: row.ref, line: row.line, change: row.change, note: row.note, by: row.by },
    isReport: row.key_id !== null,
    madeAt: row.made_at.toISOString(),
    decidedBy: row.decided_by_name,
    decidedAt: row.decided_at?.toISOString() ?? null,
    isHeld: row.identity === null || row.change.adds || row.change.isRemoved || isHeld(row.identity),
  }));
}

/** @returns false when it does not stand so that this can be decided */
export async function decideCorrection(
  database: Knex,
  id: number,
  { state, change, by, from }: { state: string; change?: StoredChange; by: number; from: readonly string[] },
): Promise<boolean> {
  const changed = await database("corrections")
    .where({ id })
    .whereIn("state", [...from])
    .update({
      ...{ state, decided_by: by, decided_at: database.fn.now() },
      ...(change ? { change: JSON.stringify(change) } : {}),
    });
  if (changed) await tellAll(database);
  return changed > 0;
}

export async function findCorrection(
  database: Knex,
  id: number,
): Promise<{ state: string; ref: string | null; identity: number | null; change: StoredChange } | undefined> {
  return database("corrections").where({ id }).first("state", "ref", "identity", "change");
}

export async function setTarget(
  database: Knex,
  id: number,
  { identity, ref, country }: { identity: number; ref: string; country: string },
): Promise<void> {
  await database("corrections").where({ id }).update({ identity, ref, country });
}

/** A new identity for an address that is added by hand. */
export async function identityByHand(database: Knex, key: string): Promise<number> {
  const [{ id: dataSet }] = await database("data_sets")
    .insert({ name: "Added by hand", licence: "as the data around it", source: "the workbench" })
    .onConflict("name")
    .merge(["licence"])
    .returning("id");
  const [{ id }] = await database("identities").insert({ data_set_id: dataSet, natural_key: key }).returning("id");
  return id;
}

/** What is applied, in the order in which it was; and a number that changes when it does. */
export async function appliedCorrections(database: Knex): Promise<Correction[]> {
  const rows = await database("corrections")
    .where({ state: "applied" })
    .whereNotNull("identity")
    .select("identity", "change")
    .orderBy(["decided_at", "id"]);
  return rows.flatMap(({ identity, change }): Correction[] => {
    if (identity === null) return [];
    const { isRemoved, at, house, name, street } = change;
    return [{ identity, isRemoved, at, name, street, house: house ? parseHouseNumber(house) : undefined }];
  });
}

const tellAll = (database: Knex) => database.raw("select pg_notify('bibliotope', 'corrections')");
