import { randomBytes } from "node:crypto";
import { checkDefinition, type FormDefinition } from "@bibliotope/core/form";
import { tableOf } from "@bibliotope/core/formats";
import {
  changeKeyAsking,
  formDefinitionJsonSchema,
  formDefinitionSchema,
  keepLookupAsking,
  keepsLookupsAsking,
  makeKeyAsking,
  replaceKeyAsking,
  type SessionAnswer,
  saveDraftAsking,
  usesAsking,
} from "@bibliotope/wire";
import { Router } from "express";
import type { Knex } from "knex";
import * as z from "zod";
import * as forms from "../forms/forms.repository.ts";
import type { PublishedForms } from "../forms/published-forms.ts";
import { idOf, readAsking } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { sessionCookie, sessionSecret } from "../http/session.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import * as keys from "../keys/keys.repository.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import { listUses, readUses } from "../keys/uses.repository.ts";
import * as lookups from "../lookups/lookups.repository.ts";
import { endSession } from "../users/users.repository.ts";
import { rehearsalRoutes } from "./rehearsals.route.ts";

interface Needs {
  database: Knex;
  published: PublishedForms;
  ring: KeyRing;
  counter: UseCounter;
  /** The web key that the workbench's own lookups use. */
  studioKey: string;
  /** The try key with which a form is rehearsed. */
  tryKey: string;
}

/** `/api/…`: the workbench's own calls. Everything here stands behind a session. */
export function manageRoutes({ database, published, ring, counter, studioKey, tryKey }: Needs): Router {
  const router = Router();

  router.get("/session", (_request, response) => {
    response.json({
      name: response.locals.user.name,
      csrf: response.locals.csrf,
      studioKey,
      tryKey,
      wire: "/v1",
    } satisfies SessionAnswer);
  });
  router.delete("/session", async (request, response) => {
    await endSession(database, sessionSecret(request)!);
    response.clearCookie(sessionCookie(request)).status(204).end();
  });

  router.get("/forms", async (_request, response) => void response.json({ forms: await forms.listForms(database) }));
  router.post("/forms", async (request, response) => {
    const { definition } = readAsking(request, z.strictObject({ definition: formDefinitionSchema }));
    refuseWrong(definition);
    const ref = `form-${randomBytes(5).toString("hex")}`;
    await forms.makeForm(database, ref, definition);
    response.status(201).json(await forms.readDraft(database, ref));
  });
  router.get("/forms/schema.json", (_request, response) => {
    response.type("application/schema+json").send(JSON.stringify(formDefinitionJsonSchema(), null, 2));
  });
  router.get("/forms/:ref", async (request, response) => void response.json(await draftOf(request.params.ref)));
  router.get("/forms/:ref/versions", async (request, response) => {
    await draftOf(request.params.ref);
    response.json({ versions: await forms.listVersions(database, request.params.ref) });
  });
  router.put("/forms/:ref/draft", async (request, response) => {
    const { revision, definition } = readAsking(request, saveDraftAsking);
    refuseWrong(definition);
    const { ref } = request.params;
    if (!(await forms.saveDraft(database, ref, revision, definition))) {
      const draft = await draftOf(ref);
      throw new HttpProblem(
        "conflict",
        `The form was saved elsewhere meanwhile (revision ${draft.revision}, yours was made from ${revision}). Load it again to see that change.`,
      );
    }
    response.json(await draftOf(ref));
  });
  router.post("/forms/:ref/publish", async (request, response) => {
    const { ref } = request.params;
    if ((await forms.publishForm(database, ref)) === undefined) throw noSuchForm();
    await published.refresh();
    response.json(await draftOf(ref));
  });

  router.use("/forms/:ref", rehearsalRoutes(database));

  router.get("/lookups", async (_request, response) => {
    response.json(await lookups.listLookups(database, response.locals.user.id));
  });
  router.post("/lookups", async (request, response) => {
    await lookups.keepLookup(database, response.locals.user.id, readAsking(request, keepLookupAsking));
    response.status(204).end();
  });
  router.delete("/lookups", async (_request, response) => {
    await lookups.forgetLookups(database, response.locals.user.id);
    response.status(204).end();
  });
  router.put("/lookups/keeping", async (request, response) => {
    const { keeps } = readAsking(request, keepsLookupsAsking);
    await lookups.setKeepsLookups(database, response.locals.user.id, keeps);
    response.json(await lookups.listLookups(database, response.locals.user.id));
  });

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
    if ([studioKey, tryKey].every((key) => ring.find(key)?.id !== id)) return;
    throw new HttpProblem(
      "conflict",
      "The workbench itself asks with this key, so it has to go on. Make another one for your own use.",
    );
  }

  async function draftOf(ref: string) {
    const draft = await forms.readDraft(database, ref);
    if (!draft) throw noSuchForm();
    return draft;
  }
}

/** @throws HttpProblem that says what is wrong with a definition, and where */
function refuseWrong(definition: FormDefinition): void {
  const issues = checkDefinition(definition).map(({ field, message }) => ({ parameter: field, message }));
  if (!issues.length) return;
  const [{ parameter, message }] = issues;
  throw new HttpProblem("malformed", `${parameter ? `${parameter}: ` : ""}${message}.`, issues);
}

const noSuchKey = () => new HttpProblem("not-found", "There is no such key, or it was withdrawn.");
const noSuchForm = () => new HttpProblem("not-found", "There is no form with this ref.");
