import { type FormAnswer, lookupIn, shortLine } from "@bibliotope/core/form";
import type { OwnFact } from "@bibliotope/core/place";
import type { Client } from "../client/client.ts";
import type { Card, CardFact } from "../map/marker.ts";
import { say } from "../words/say.ts";

/** A language in the page's own, by its BCP 47 tag. */
function languageName(tag: string): string {
  try {
    return new Intl.DisplayNames(shownLang(), { type: "language" }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}

/** A fact of the data's own, under the label that its data has for it. */
function ownFact({ label, kind, value }: OwnFact): CardFact {
  if (typeof value === "boolean") return [label, value ? say("Yes") : say("No")];
  if (typeof value === "number") return [label, value.toLocaleString(shownLang())];
  if (kind !== "date") return [label, value, kind === "link" ? value : undefined];
  return [
    label,
    new Date(`${value}T12:00:00Z`).toLocaleDateString(shownLang(), { dateStyle: "long", timeZone: "UTC" }),
  ];
}

/** The page's own language. */
const shownLang = () => (typeof document === "undefined" ? "en" : document.documentElement.lang || "en");

/**
 * The card of an address on a form's map: what is known of it, the rest of a place on request with a picture of where it
 * stands; what is not known is left out, its name too.
 */
export function cardOf(answer: FormAnswer, client: Client): Card {
  const lookup = lookupIn(answer);
  const text = (name: string) => [lookup(name) ?? []].flat().join("\n");
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
    [say("Web page"), url ?? "", url],
    [say("Step-free access"), stepFree === undefined ? "" : stepFree ? say("Yes") : say("No")],
    [say("Languages"), (answer.facts?.languages ?? []).map(languageName).join(", ")],
    ...Object.values(answer.facts.own ?? {}).map(ownFact),
  ]);
  const { lat, lon } = answer.at;
  const still = { at: `${lat},${lon}`, width: 260, height: 140, zoom: 17, label: title, density: 2 };
  const picture = {
    src: client.stillUrl(still),
    night: client.stillUrl({ ...still, night: 1 }),
    alt: say("Map of {place}", { place: title }),
  };
  return { title, facts, more: { facts: more, picture }, handsOn: true };
}
