import { type FormDefinition, outlineOf } from "@bibliotope/core/form";
import type { FormDraft, FormSummary, FormVersion, PublishedForm } from "@bibliotope/wire";
import type { Knex } from "knex";

/** Makes a form with the first draft. */
export async function makeForm(database: Knex, ref: string, definition: FormDefinition): Promise<void> {
  await database("forms").insert({ ref, revision: 1, draft: JSON.stringify(definition) });
}

export async function listForms(database: Knex): Promise<FormSummary[]> {
  const rows = await database("forms")
    .leftJoin(newest(database), "newest.form_id", "forms.id")
    .orderBy("forms.id")
    .select("forms.*", "newest.number");
  return rows.map((row) => ({
    ref: row.ref,
    title: row.draft.title,
    fields: row.draft.fields.length,
    outline: outlineOf(row.draft),
    revision: row.revision,
    savedAt: row.saved_at.toISOString(),
    publishedVersion: row.number,
  }));
}

export async function readDraft(database: Knex, ref: string): Promise<FormDraft | undefined> {
  const row = await database("forms")
    .leftJoin(newest(database), "newest.form_id", "forms.id")
    .where({ ref })
    .first("forms.*", "newest.number", "newest.published_revision");
  return (
    row && {
      ref,
      revision: row.revision,
      savedAt: row.saved_at.toISOString(),
      publishedVersion: row.number,
      changed: row.published_revision !== row.revision,
      definition: row.draft,
    }
  );
}

function newest(database: Knex) {
  return database("form_versions")
    .distinctOn("form_id")
    .orderBy([{ column: "form_id" }, { column: "number", order: "desc" }])
    .select("form_id", "number", { published_revision: "revision" })
    .as("newest");
}

/** Saves a draft on top of the revision it was made from. @returns false when another change came first */
export async function saveDraft(
  database: Knex,
  ref: string,
  revision: number,
  definition: FormDefinition,
): Promise<boolean> {
  const saved = await database("forms")
    .where({ ref, revision })
    .update({ revision: revision + 1, draft: JSON.stringify(definition), saved_at: database.fn.now() });
  return saved === 1;
}

/**
 * Publishes a draft as a new version.
 * @param revision the draft that is meant
 * @returns the version, or undefined where there is no such form, or another draft was saved meanwhile
 */
export async function publishForm(database: Knex, ref: string, revision: number): Promise<number | undefined> {
  return database.transaction(async (transaction) => {
    const form = await transaction("forms").where({ ref, revision }).forUpdate().first();
    if (!form) return undefined;
    const [{ highest }] = await transaction("form_versions").where({ form_id: form.id }).max({ highest: "number" });
    const number = (highest ?? 0) + 1;
    await transaction("form_versions").insert({
      form_id: form.id,
      number,
      revision: form.revision,
      definition: JSON.stringify(form.draft),
    });
    await transaction.raw("select pg_notify('bibliotope', 'forms')");
    return number;
  });
}

/** All published versions of a form, the newest first; none of a form that is not there. */
export async function listVersions(database: Knex, ref: string): Promise<FormVersion[]> {
  const rows = await database("form_versions")
    .join("forms", "forms.id", "form_versions.form_id")
    .where({ ref })
    .orderBy("number", "desc")
    .select("number", "definition", "published_at", "form_versions.revision");
  return rows.map((row) => ({
    number: row.number,
    publishedAt: row.published_at.toISOString(),
    revision: row.revision,
    definition: row.definition,
  }));
}

/** The newest published version of every form. */
export async function readPublished(database: Knex): Promise<PublishedForm[]> {
  const rows = await database("form_versions")
    .join("forms", "forms.id", "form_versions.form_id")
    .distinctOn("form_id")
    .orderBy([{ column: "form_id" }, { column: "number", order: "desc" }])
    .select("forms.ref", "number", "definition", "published_at");
  return rows.map((row) => ({
    ref: row.ref,
    version: row.number,
    published: row.published_at.toISOString(),
    definition: row.definition,
  }));
}
