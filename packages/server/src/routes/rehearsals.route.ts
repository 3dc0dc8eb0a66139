import type { Knex } from "knex";
import * as kept from "../forms/rehearsals.repository.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";

/** Kept steps of a form, and what happened in the last runs. */
export function rehearsalHandlers(database: Knex) {
  return {
    rehearsals,
    keepRehearsal,
    dropRehearsal,
    traces,
    trace,
    keepTrace,
  } satisfies Partial<OwnHandlers>;

  async function rehearsals({ parts }: Own<"rehearsals" | "keepRehearsal">) {
    return { rehearsals: await kept.listRehearsals(database, parts.ref) };
  }

  async function keepRehearsal(own: Own<"keepRehearsal">) {
    if (!(await kept.keepRehearsal(database, own.parts.ref, own.params))) throw missing("form");
    return { rehearsals: await kept.listRehearsals(database, own.parts.ref) };
  }

  async function dropRehearsal({ parts, id }: Own<"dropRehearsal">) {
    if (!(await kept.dropRehearsal(database, parts.ref, id("id")))) throw missing("rehearsal");
  }

  async function traces({ parts }: Own<"traces">) {
    return { traces: await kept.listTraces(database, parts.ref) };
  }

  async function keepTrace({ parts, params }: Own<"keepTrace">) {
    const id = await kept.keepTrace(database, parts.ref, params);
    if (id === undefined) throw missing("form");
    return { id };
  }

  async function trace({ parts, id }: Own<"trace">) {
    const found = await kept.readTrace(database, parts.ref, id("id"));
    if (!found) throw missing("trace");
    return found;
  }
}

const missing = (what: string) => new HttpProblem("not-found", `There is no such ${what}.`);
