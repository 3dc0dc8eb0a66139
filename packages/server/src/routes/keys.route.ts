import { tableOf } from "@bibliotope/core/formats";
import { changeKeyAsking, makeKeyAsking, replaceKeyAsking, usesAsking } from "@bibliotope/wire";
import type { Router } from "express";
import type { Knex } from "knex";
import { idOf, readAsking } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { needs } from "../http/session.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import * as keys from "../keys/keys.repository.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import { listUses, readUses } from "../keys/uses.repository.ts";

interface Needs {
  database: Knex;
  ring: KeyRing;
  counter: UseCounter;
  /** Keys without which the workbench could not look anything up. */
  ownKeys: string[];
}

/** `/api/keys` and `/api/uses`: keys with what they are kept to, and how they were used. */
export function keyRoutes({ database, ring, counter, ownKeys }: Needs): Router {
  const router = exactRouter();

  router.use(["/keys", "/uses"], needs("manage"));
  router.get("/keys", async (_request, response) => {
    await ring.noteUses();
    response.json({ keys: await keys.listKeys(database) });
  });
  router.get("/uses", async (request, response) => {
    await counter.write();
    response.json(await readUses(database, readAsking(request, usesAsking)));
  });
  router.get("/uses.csv", async (request, response) => {
    await counter.write();
    const rows = await listUses(database, readAsking(request, usesAsking));
    const cells = rows.map(({ hour, key_id, name, call, outcome, count }) => [
      hour,
      key_id,
      name,
      call,
      outcome,
      count,
    ]);
    response.attachment("uses.csv").send(tableOf(["hour", "key", "name", "call", "outcome", "count"], cells));
  });
  router.post("/keys", async (request, response) => {
    const made = await keys.makeKey(database, readAsking(request, makeKeyAsking));
    await ring.refresh();
    response.status(201).json(made);
  });
  router.put("/keys/:id", async (request, response) => {
    const rules = readAsking(request, changeKeyAsking);
    const id = idOf(request.params.id);
    if (rules.calls.length || rules.countries.length || rules.endsAt || rules.perMinute || rules.perDay)
      refuseOwnKey(id);
    const changed = await keys.changeKey(database, id, rules);
    if (!changed) throw noSuchKey();
    await ring.refresh();
    response.json(changed);
  });
  router.post("/keys/:id/replace", async (request, response) => {
    const { overlap } = readAsking(request, replaceKeyAsking);
    const id = idOf(request.params.id);
    refuseOwnKey(id);
    const made = await keys.replaceKey(database, id, overlap);
    if (!made) throw noSuchKey();
    await ring.refresh();
    response.status(201).json(made);
  });
  router.delete("/keys/:id", async (request, response) => {
    const id = idOf(request.params.id);
    refuseOwnKey(id);
    if (!(await keys.withdrawKey(database, id))) throw noSuchKey();
    await ring.refresh();
    response.status(204).end();
  });
  return router;

  /** @throws HttpProblem for a key without which the workbench could not look anything up */
  function refuseOwnKey(id: number): void {
    if (ownKeys.every((key) => ring.find(key)?.id !== id)) return;
    throw new HttpProblem(
      "conflict",
      "The workbench itself asks with this key, so it has to go on. Make another one for your own use.",
    );
  }
}

const noSuchKey = () => new HttpProblem("not-found", "There is no such key, or it was withdrawn.");
