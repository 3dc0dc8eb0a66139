/** Something in braces: an input, or a secret. */
export interface Placeholder {
  name: string;
  isSecret: boolean;
}

const BRACES = /\{(secret\.)?([A-Za-z_][\w-]*)\}/g;

/** What a text asks for in braces, each once. Braces around something else are text. */
export function placeholdersIn(text: string): Placeholder[] {
  const found = new Map<string, Placeholder>();
  for (const [placeholder, secret, name] of text.matchAll(BRACES))
    found.set(placeholder, { name, isSecret: Boolean(secret) });
  return [...found.values()];
}

/** Gives the value of an input, or of a secret under `secret.NAME`; undefined for none. */
export type Value = (name: string) => string | undefined;

/** Puts values in the place of names in braces. @param write how a value is written there */
export function putIn(text: string, value: Value, write: (value: string) => string = (plain) => plain): string {
  return text.replace(BRACES, (_, secret = "", name: string) => write(value(`${secret}${name}`) ?? ""));
}
