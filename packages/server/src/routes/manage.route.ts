import { randomBytes } from "node:crypto";
import { checkDefinition, type FormDefinition } from "@bibliotope/core/form";
import {
  formDefinitionJsonSchema,
  formDefinitionSchema,
  keepLookupAsking,
  keepsLookupsAsking,
  type SessionAnswer,
  saveDraftAsking,
} from "@bibliotope/wire";
import type { Router } from "express";
import type { Knex } from "knex";
import * as z from "zod";
import * as forms from "../forms/forms.repository.ts";
import type { PublishedForms } from "../forms/published-forms.ts";
import { readAsking } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { keepSession, needs, sessionCookie, sessionSecret } from "../http/session.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import * as lookups from "../lookups/lookups.repository.ts";
import { csrfOf } from "../users/sessions.ts";
import { endSession, rotateSession } from "../users/users.repository.ts";
import { keyRoutes } from "./keys.route.ts";
import { peopleRoutes } from "./people.route.ts";
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
  const router = exactRouter();

  router.get("/session", async (request, response) => {
    const { session, user } = response.locals;
    const secret = sessionSecret(request);
    const next = session.isOld && secret ? await rotateSession(database, secret).catch(() => undefined) : undefined;
    if (next) keepSession(request, response, next);
    response.json({
      ...user,
      csrf: csrfOf(session),
      studioKey,
      tryKey,
      wire: "/v1",
    } satisfies SessionAnswer);
  });
  router.delete("/session", async (request, response) => {
    await endSession(database, sessionSecret(request)!);
    response.clearCookie(sessionCookie(request)).status(204).end();
  });

  router.use("/forms", needs("edit"));
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

  router.use(rehearsalRoutes(database));
  router.use(keyRoutes({ database, ring, counter, ownKeys: [studioKey, tryKey] }));
  router.use(peopleRoutes(database));

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

  return router;

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

const noSuchForm = () => new HttpProblem("not-found", "There is no form with this ref.");
