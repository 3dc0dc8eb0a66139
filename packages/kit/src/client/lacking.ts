import type { KeyAnswer, KeyCall } from "@bibliotope/wire";
import type { Client } from "./client.ts";
import { LookupError } from "./errors.ts";

const permissions = new WeakMap<Client, Promise<Pick<KeyAnswer, "calls">>>();
const NOTHING: Pick<KeyAnswer, "calls"> = { calls: [] };

/**
 * Which of some kinds of lookup a client's key may not ask for, so that a page can say so at the start rather than show
 * nothing later; all of them for a key that is refused. What it may is requested once; where that is not answered, nothing lacks.
 * What lacks is said in the console, for whoever wrote the page.
 */
export async function lacking(client: Client, uses: readonly KeyCall[]): Promise<KeyCall[]> {
  let answer = permissions.get(client);
  if (!answer) {
    answer = client.key().catch((error: unknown) => {
      // it may be answered the next time
      permissions.delete(client);
      if (error instanceof LookupError && error.trouble === "refused") return NOTHING;
      throw error;
    });
    permissions.set(client, answer);
  }
  const { calls } = await answer.catch(() => ({ calls: [...uses] as string[] }));
  const lacks = uses.filter((use) => !calls.includes(use));
  if (lacks.length && calls.length)
    console.warn(
      `Bibliotope: this page uses ${lacks.join(", ")}, which its key does not allow. Change the key under Keys in the workbench, or use another one.`,
    );
  return lacks;
}
