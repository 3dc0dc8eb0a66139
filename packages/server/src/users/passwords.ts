import { hash, verify } from "@node-rs/argon2";

/** Argon2id by OWASP's numbers: 19 MiB, two passes. */
const COSTS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string) => hash(password.normalize("NFKC"), COSTS);

/** A hash that no password has: so that a name that nobody has takes as long as one that somebody has. */
let nobody: Promise<string> | undefined;

/** True when the password is the one of the hash. Takes as long for no hash. */
export async function isPassword(held: string | null | undefined, password: string): Promise<boolean> {
  nobody ??= hashPassword("nobody has this password");
  const isRight = await verify(held ?? (await nobody), password.normalize("NFKC"));
  return isRight && held != null;
}
