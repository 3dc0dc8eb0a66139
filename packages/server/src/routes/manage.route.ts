import { randomBytes } from "node:crypto";
import { checkDefinition, type FormDefinition } from "@bibliotope/core/form";
import { pictureOrigin } from "@bibliotope/core/map";
import { formDefinitionJsonSchema } from "@bibliotope/wire";
import type { Knex } from "knex";
import * as repository from "../forms/forms.repository.ts";
import type { PublishedForms } from "../forms/published-forms.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { dropSession, keepSession, sessionSecret } from "../http/session.ts";
import * as earlier from "../lookups/lookups.repository.ts";
import type { Services } from "../services/services.ts";
import { csrfOf } from "../users/sessions.ts";
import { endSession, rotateSession } from "../users/users.repository.ts";

interface Needs {
  database: Knex;
  published: PublishedForms;
  services: Services;
  /** The web key that the workbench's own lookups use. */
  webKey: string;
  /** The try key with which a form is rehearsed. */
  tryKey: string;
}

/** The JSON Schema of forms: made once, when it is first wanted, since that takes some 20 ms. */
let formSchemaText: string | undefined;

/** Who is signed in, forms, and the lookups that somebody made. */
export function manageHandlers({ database, published, services, webKey, tryKey }: Needs) {
  return {
    session,
    signOut,
    forms,
    formSchema,
    form,
    versions,
    makeForm,
    saveDraft,
    publishForm,
    lookups,
    keepLookup,
    forgetLookups,
    keepingLookups,
  } satisfies Partial<OwnHandlers>;

  async function session({ session, user, request, response }: Own<"session">) {
    const secret = sessionSecret(request);
    const next = session.isOld && secret ? await rotateSession(database, secret).catch(() => undefined) : undefined;
    if (next) keepSession(request, response, next);
    return { ...user, csrf: csrfOf(session), studioKey: webKey, tryKey, wire: "/v1" };
  }

  async function signOut({ request, response }: Own<"signOut">) {
    await endSession(database, sessionSecret(request)!);
    dropSession(request, response);
  }

  async function forms() {
    return { forms: await repository.listForms(database) };
  }

  function formSchema({ response }: Own<"formSchema">) {
    formSchemaText ??= JSON.stringify(formDefinitionJsonSchema(), null, 2);
    response.type("application/schema+json").send(formSchemaText);
  }

  async function form({ parts }: Own<"form">) {
    return draftOf(parts.ref);
  }

  async function versions({ parts }: Own<"versions">) {
    await draftOf(parts.ref);
    return { versions: await repository.listVersions(database, parts.ref) };
  }

  async function makeForm({ params: { definition } }: Own<"makeForm">) {
    refuseWrong(definition);
    const ref = `form-${randomBytes(5).toString("hex")}`;
    await repository.makeForm(database, ref, definition);
    return draftOf(ref);
  }

  async function saveDraft({ params: { revision, definition }, parts: { ref } }: Own<"saveDraft">) {
    refuseWrong(definition);
    if (!(await repository.saveDraft(database, ref, revision, definition))) {
      const draft = await draftOf(ref);
      throw new HttpProblem(
        "conflict",
        `The form was saved elsewhere in the meantime (revision ${draft.revision}, yours is based on ${revision}). Reload it to see that change.`,
      );
    }
    return draftOf(ref);
  }

  /** Pictures of a form's maps come from hosts that somebody allowed: whoever opens the form asks them. */
  function refuseForeignPictures({ fields }: FormDefinition): void {
    for (const { pictures } of fields) {
      const origin = pictures && pictureOrigin(pictures.url);
      if (origin && !services.pictureOrigins.includes(new URL(origin).origin))
        throw new HttpProblem(
          "conflict",
          `The tiles “${pictures.name}” come from ${origin}, which is not allowed for tiles. A manager of this workbench can allow it under Services.`,
        );
    }
  }

  async function publishForm({ params: { revision }, parts: { ref } }: Own<"publishForm">) {
    const draft = await draftOf(ref);
    if (draft.revision === revision) refuseForeignPictures(draft.definition);
    if ((await repository.publishForm(database, ref, revision)) === undefined) {
      const now = await draftOf(ref);
      throw new HttpProblem(
        "conflict",
        `The form was saved elsewhere in the meantime (revision ${now.revision}, you have ${revision}). Reload it, check that change, then publish.`,
      );
    }
    await published.refresh();
    return draftOf(ref);
  }

  async function lookups({ user }: Pick<Own<"lookups">, "user">) {
    return earlier.listLookups(database, user.id);
  }

  async function keepLookup({ params, user }: Own<"keepLookup">) {
    await earlier.keepLookup(database, user.id, params);
  }

  async function forgetLookups({ user }: Own<"forgetLookups">) {
    await earlier.forgetLookups(database, user.id);
  }

  async function keepingLookups({ params, user }: Own<"keepingLookups">) {
    await earlier.setKeepsLookups(database, user.id, params.keeps);
    return earlier.listLookups(database, user.id);
  }

  async function draftOf(ref: string) {
    const draft = await repository.readDraft(database, ref);
    if (!draft) throw noSuchForm();
    return draft;
  }
}

/** @throws HttpProblem with what is wrong with a definition, and where */
function refuseWrong(definition: FormDefinition): void {
  const issues = checkDefinition(definition).map(({ field, message }) => ({ parameter: field, message }));
  if (!issues.length) return;
  const [{ parameter, message }] = issues;
  throw new HttpProblem("malformed", `${parameter ? `${parameter}: ` : ""}${message}.`, issues);
}

const noSuchForm = () => new HttpProblem("not-found", "There is no form with this ref.");
