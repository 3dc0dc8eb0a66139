import { hasOtherScript } from "../text/index.ts";
import type { Name } from "./kinds.ts";

/**
 * Picks the name to show: the first asked language that there is, else the one written in the script the person
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
  if (names.length > 1 && /\p{L}/u.test(typed)) {
    const other = hasOtherScript(typed);
    return names.find((name) => hasOtherScript(name.name) === other) ?? names[0];
  }
  return names[0];
}

/** Lookup by RFC 4647 basic filtering: `qth` takes `qth-Grek`, `en` takes `en`. */
function matches(held: string, asked: string): boolean {
  const a = held.toLowerCase();
  const b = asked.toLowerCase();
  return a === b || a.startsWith(`${b}-`);
}
