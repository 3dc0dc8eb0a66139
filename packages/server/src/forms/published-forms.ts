import type { PublishedForm } from "@bibliotope/wire";
import type { Knex } from "knex";
import { onceMore } from "../once-more.ts";
import { readPublished } from "./forms.repository.ts";

/** Published forms in memory: a form keeps working with the database away. Updated by `signals.ts`. */
export class PublishedForms {
  #forms = new Map<string, PublishedForm>();

  constructor(private readonly database: Knex) {}

  /** Reads them anew; an older reading never takes the place of a newer one. */
  readonly refresh = onceMore(async () => {
    this.#forms = new Map((await readPublished(this.database)).map((form) => [form.ref, form]));
  });

  find(ref: string): PublishedForm | undefined {
    return this.#forms.get(ref);
  }
}
