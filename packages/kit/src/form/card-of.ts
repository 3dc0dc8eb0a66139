import { type FormAnswer, lookupIn, shortLine } from "@bibliotope/core/form";
import type { Card } from "../map/marker.ts";
import { say } from "../words/say.ts";

/** A language in the page's own, by its BCP 47 tag. */
function languageName(tag: string): string {
  try {
    const shown = typeof document === "undefined" ? "en" : document.documentElement.lang || "en";
    return new Intl.DisplayNames(shown, { type: "language" }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}

/** The card of an address on a form's map: what is known of it; what is not known is left out, its name too. */
export function cardOf(answer: FormAnswer): Card {
  const held = lookupIn(answer);
  const text = (name: string) => [held(name) ?? []].flat().join("\n");
  const { phone, url } = answer.facts ?? {};
  const stepFree = answer.facts?.stepFree;
  const facts: readonly (readonly [name: string, value: string, href?: string])[] = [
    [say("Address"), answer.parts.place ? answer.line : ""],
    [say("Opening hours"), text("hours")],
    [say("Telephone"), phone ?? "", `tel:${phone?.replace(/[^+\d]/g, "")}`],
    [say("Web page"), url && /^https?:/.test(url) ? url : "", url],
    [say("Step-free access"), stepFree === undefined ? "" : stepFree ? say("Yes") : say("No")],
    [say("Languages"), (answer.facts?.languages ?? []).map(languageName).join(", ")],
  ];
  return { title: shortLine(answer), facts: facts.filter(([, value]) => value), handsOn: true };
}
