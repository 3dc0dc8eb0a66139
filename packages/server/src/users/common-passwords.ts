import { nameKey } from "./name-key.ts";

/** Those known from breaches, the commonest first: some fifty thousand. They are read when a password is first chosen. */
let common: Promise<ReadonlySet<string>> | undefined;

async function readCommon(): Promise<ReadonlySet<string>> {
  const { dictionary } = await import("@zxcvbn-ts/language-common");
  return new Set(dictionary["passwords-common"] as string[]);
}

/** A password without case, and without the digits and signs around it, which guessers try first. */
const bareOf = (password: string) => password.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, "");

/**
 * Why a password is not taken: it is one of the commonest, one of them with digits or signs around it, or the name of
 * whoever has it.
 * @returns words that follow "The password "; undefined for one that is taken
 */
export async function whyRefused(password: string, name: string): Promise<string | undefined> {
  common ??= readCommon();
  const loaded = await common;
  const plain = password.normalize("NFKC").toLowerCase();
  if (loaded.has(plain)) return "is one of the most common passwords";
  const bare = bareOf(plain);
  if (bare && loaded.has(bare)) return "is one of the most common passwords with something added";
  const names = [nameKey(name), nameKey(name).replaceAll(/\s/g, "")];
  if (names.includes(nameKey(plain)) || names.includes(bare)) return "is the name";
  if (new Set(plain).size < 3) return "repeats one or two characters";
  return undefined;
}
