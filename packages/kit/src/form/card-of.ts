import { type FormAnswer, lookupIn, shortLine } from "@bibliotope/core/form";
import type { Client } from "../client/client.ts";
import type { Card, CardFact } from "../map/marker.ts";
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

/**
 * The card of an address on a form's map: what is known of it, the rest of a place on request with a picture of where it
 * stands; what is not known is left out, its name too.
 */
export function cardOf(answer: FormAnswer, client: Client): Card {
  const held = lookupIn(answer);
  const text = (name: string) => [held(name) ?? []].flat().join("\n");
  const name = answer.parts.place?.name;
  const { phone, url } = answer.facts ?? {};
  const stepFree = answer.facts?.stepFree;
  const known = (facts: CardFact[]) => facts.filter(([, value]) => value);
  const title = shortLine(answer);
  const facts = known([
    [say("Address"), name && answer.line.startsWith(`${name}, `) ? answer.line.slice(name.length + 2) : ""],
    [say("Opening hours"), text("hours")],
    [say("Telephone"), phone ?? "", `tel:${phone?.replace(/[^+\d]/g, "")}`],
  ]);
  if (!answer.facts) return { title, facts, handsOn: true };
  const more = known([
    [say("Web page"), url && /^https?:/.test(url) ? url : "", url],
    [say("Step-free access"), stepFree === undefined ? "" : stepFree ? say("Yes") : say("No")],
    [say("Languages"), (answer.facts?.languages ?? []).map(languageName).join(", ")],
  ]);
  const { lat, lon } = answer.at;
  const src = client.stillUrl({ at: `${lat},${lon}`, size: "260x140", zoom: 17, label: title, scale: 2 });
  const picture = { src, alt: say("Map of {place}", { place: title }) };
  return { title, facts, more: { facts: more, picture }, handsOn: true };
}
