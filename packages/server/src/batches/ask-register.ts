import { setTimeout as wait } from "node:timers/promises";
import { PARTS, type PartName } from "@bibliotope/core/place";
import type { BatchAnswer, RowRegister, ServiceAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import { HttpProblem } from "../http/problem.ts";
import { type Running, Stopped } from "../jobs/jobs.ts";
import type { Services } from "../services/services.ts";

/** Rows that are looked up and stored at once, and how many of them are under way. */
const [CHUNK, AT_ONCE] = [200, 8];
/** Milliseconds until a register is tried again that is called too often just now. */
const PAUSE = 1000;

/**
 * Asks a register about the addresses of a batch that are clear or were decided, some at a time: begun again after a crash or a pause, it
 * goes on with those that it was not asked about.
 */
export async function askRegister(
  database: Knex,
  services: Services,
  { batch, register }: { batch: number; register: string },
  { progress, stop }: Running,
): Promise<void> {
  const open = () =>
    database("batch_results")
      .where({ batch_id: batch, standing: "clear" })
      .whereNotNull("answer")
      .whereNull("register");
  const [{ count }] = await open().count({ count: "*" });
  const total = Number(count);
  for (let done = 0; ; ) {
    const rows: { number: number; answer: BatchAnswer }[] = await open()
      .orderBy("number")
      .limit(CHUNK)
      .select("number", "answer");
    if (!rows.length) return;
    const left = [...rows];
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        for (let row = left.shift(); row; row = left.shift()) {
          if (stop.aborted) throw new Stopped(stop.reason);
          const said = await ask(services, register, row.answer, batch);
          await database("batch_results")
            .where({ batch_id: batch, number: row.number })
            .update({ register: JSON.stringify(said) });
        }
      }),
    );
    done += rows.length;
    progress(done, `The register was asked about ${done.toLocaleString("en")} of ${total.toLocaleString("en")} rows`);
  }
}

/** Asks about one address; waits where it is called too often just now. */
async function ask(services: Services, register: string, { parts }: BatchAnswer, batch: number): Promise<RowRegister> {
  const service = services.find(register)?.service;
  if (!service) return { outcome: "down" };
  const inputs = Object.fromEntries(
    service.inputs.flatMap(({ name }): [string, string][] => {
      const part = name.toLowerCase() as PartName;
      const known = PARTS.includes(part) ? parts[part] : undefined;
      return known ? [[name, part === "country" ? (known.code ?? known.name) : known.name]] : [];
    }),
  );
  for (;;) {
    try {
      // batches are counted by themselves, beside keys
      return rowOf(await services.ask(register, inputs, -batch));
    } catch (error) {
      if (!(error instanceof HttpProblem)) throw error;
      // inputs that a service does not take are those of this row alone
      if (error.problem !== "too-many" && error.problem !== "busy") return { outcome: "none" };
      await wait(PAUSE);
    }
  }
}

function rowOf({ outcome, standing, values }: ServiceAnswer): RowRegister {
  const number = typeof values.number === "string" ? values.number : "";
  const official = PARTS.flatMap((part) => (typeof values[part] === "string" && values[part] ? [values[part]] : []));
  return {
    outcome,
    ...(standing ? { standing } : {}),
    ...(number ? { number } : {}),
    ...(standing === "otherwise" ? { official: official.join(", ") } : {}),
  };
}
