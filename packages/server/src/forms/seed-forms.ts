import { SAMPLE_FORMS } from "@bibliotope/islands";
import type { Knex } from "knex";
import { makeForm, publishForm } from "./forms.repository.ts";

/** Stores and publishes the sample forms that are not there yet. */
export async function seedForms(database: Knex): Promise<void> {
  for (const { ref, definition } of SAMPLE_FORMS) {
    if (await database("forms").where({ ref }).first()) continue;
    await makeForm(database, ref, definition).then(() => publishForm(database, ref));
  }
}
