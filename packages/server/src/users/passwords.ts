import { hash, verify } from "@node-rs/argon2";
import { InTurn } from "../jobs/in-turn.ts";

/** Argon2id by OWASP's numbers: 19 MiB, two passes. */
const COSTS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Each takes 19 MiB and two passes: some at once, and not so many behind them that whoever comes last waits for long. */
const turns = new InTurn(2, 40);

/** @throws Busy where too many wait */
export const hashPassword = (password: string) => turns.run(() => hash(password.normalize("NFKC"), COSTS));

/** A hash that no password has: so that a name that nobody has takes as long as one that somebody has. */
let nobody: Promise<string> | undefined;

/** True when the password is the one of the hash. Takes as long for no hash. @throws Busy where too many wait */
export async function isPassword(hash: string | null | undefined, password: string): Promise<boolean> {
  nobody ??= hashPassword("nobody has this password");
  const against = hash ?? (await nobody);
  const isRight = await turns.run(() => verify(against, password.normalize("NFKC")));
  return isRight && hash != null;
}
