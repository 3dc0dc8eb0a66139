import { hasOtherScript } from "../text/index.ts";
import type { Name } from "./kinds.ts";

/**
 * Picks the name to show: the first preferred language that there is, else the one written in the script the person
 * types in, else the local one.
 * @param names the local name first
 * @param langs BCP 47, most wanted first
 * @param typed what the person typed, if anything
 */
export function pickName(names: readonly Name[], langs: readonly string[] = [], typed = ""): Name {
  for (const lang of langs) {
    const found = names.find((name) => matches(name.lang, lang));
    if (found) return found;
  }
  const other = names.length > 1 ? isOtherScript(typed) : undefined;
  if (other === undefined) return names[0];
  return names.find((name) => hasOtherScript(name.name) === other) ?? names[0];
}

/** Whether a text is written in another script than Latin; undefined for one without letters. */
export function isOtherScript(typed: string): boolean | undefined {
  return /\p{L}/u.test(typed) ? hasOtherScript(typed) : undefined;
}

/** Lookup by RFC 4647 basic filtering: `qth` takes `qth-Grek`, `en` takes `en`. */
function matches(known: string, wanted: string): boolean {
  const a = known.toLowerCase();
  const b = wanted.toLowerCase();
  return a === b || a.startsWith(`${b}-`);
}
