import { tableOf } from "@bibliotope/core/formats";
import { mayName } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import * as repository from "../keys/keys.repository.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import { listUses, readUses } from "../keys/uses.repository.ts";

interface Needs {
  database: Knex;
  ring: KeyRing;
  counter: UseCounter;
  /** Keys without which the workbench could not look anything up. */
  ownKeys: string[];
}

/** Keys with what they are kept to, and how they were used. */
export function keyHandlers({ database, ring, counter, ownKeys }: Needs) {
  return {
    keys,
    makeKey,
    changeKey,
    replaceKey,
    withdrawKey,
    uses,
    usesFile,
  } satisfies Partial<OwnHandlers>;

  async function keys() {
    await ring.noteUses();
    return { keys: await repository.listKeys(database) };
  }

  async function makeKey({ params }: Own<"makeKey">) {
    const made = await repository.makeKey(database, params);
    await ring.refresh();
    return made;
  }

  async function changeKey({ params: rules, id }: Own<"changeKey">) {
    if (rules.calls.length || rules.countries.length || rules.endsAt || rules.perMinute || rules.perDay)
      refuseOwnKey(id());
    const before = (await repository.listKeys(database)).find((one) => one.id === id());
    const foreign = before && rules.origins.find((one) => !mayName(before.kind, one));
    if (foreign) throw new HttpProblem("malformed", `A web key can only have http and https origins, not ${foreign}.`);
    const changed = await repository.changeKey(database, id(), rules);
    if (!changed) throw noSuchKey();
    await ring.refresh();
    return changed;
  }

  async function replaceKey({ params, id }: Own<"replaceKey">) {
    refuseOwnKey(id());
    const made = await repository.replaceKey(database, id(), params.overlap);
    if (!made) throw noSuchKey();
    await ring.refresh();
    return made;
  }

  async function withdrawKey({ id }: Own<"withdrawKey">) {
    refuseOwnKey(id());
    if (!(await repository.withdrawKey(database, id()))) throw noSuchKey();
    await ring.refresh();
  }

  async function uses({ params }: Own<"uses">) {
    await counter.write();
    return readUses(database, params);
  }

  async function usesFile({ params, response }: Own<"usesFile">) {
    await counter.write();
    const rows = await listUses(database, params);
    const cells = rows.map(({ hour, key_id, name, call, outcome, count }) => [
      hour,
      key_id,
      name,
      call,
      outcome,
      count,
    ]);
    response.attachment("uses.csv").send(tableOf(["hour", "key", "name", "call", "outcome", "count"], cells));
  }

  /** @throws HttpProblem for a key without which the workbench could not look anything up */
  function refuseOwnKey(id: number): void {
    if (ownKeys.every((key) => ring.find(key)?.id !== id)) return;
    throw new HttpProblem(
      "conflict",
      "The workbench itself uses this key, so it cannot be changed. Create another one for your own use.",
    );
  }
}

const noSuchKey = () => new HttpProblem("not-found", "There is no such key, or it was revoked.");
