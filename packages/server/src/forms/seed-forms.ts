import { isDeepStrictEqual } from "node:util";
import { SAMPLE_FORMS } from "@bibliotope/islands";
import type { Knex } from "knex";
import { makeForm, publishForm } from "./forms.repository.ts";

/** Stores and publishes the sample forms that are not there yet; those that nobody has changed follow the product. */
export async function seedForms(database: Knex): Promise<void> {
  for (const { ref, definition } of SAMPLE_FORMS) {
    const stored = await database("forms").where({ ref }).first();
    if (!stored) await makeForm(database, ref, definition);
    else if (stored.revision === 1 && !isDeepStrictEqual(stored.draft, definition))
      await database("forms")
        .where({ ref, revision: 1 })
        .update({ draft: JSON.stringify(definition) });
    else continue;
    await publishForm(database, ref, 1);
  }
}
