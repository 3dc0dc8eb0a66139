import { commentOf } from "./gpx.ts";
import type { LookupFeature } from "./lookup.ts";

/** Octets of a line before it is folded (RFC 6350, section 3.2). */
const LONGEST = 75;

/** A card for each record: vCard 4.0 (RFC 6350). */
export function vcardOf(features: readonly LookupFeature[], outcome?: string): string {
  return features.map((feature) => card(feature, outcome)).join("");
}

function card({ id, properties }: LookupFeature, outcome: string | undefined): string {
  const { at, kind, line, parts, autofill, facts, differences } = properties;
  const note = commentOf(outcome, differences);
  const address = [
    "",
    "",
    autofill["address-line1"],
    parts.town?.name,
    parts.county?.name ?? parts.region?.name,
    parts.postcode?.name,
    parts.country?.name,
  ];
  const lines = [
    "BEGIN:VCARD",
    "VERSION:4.0",
    `KIND:${kind === "place" ? "org" : "location"}`,
    `UID;VALUE=text:${escapeText(id)}`,
    `FN:${escapeText(parts.place?.name ?? line)}`,
    ...(parts.place ? [`ORG:${escapeText(parts.place.name)}`] : []),
    `ADR:${address.map((component) => escapeText(component ?? "")).join(";")}`,
    `GEO:geo:${at.lat},${at.lon}`,
    ...(facts?.phone ? [`TEL;VALUE=uri:tel:${facts.phone.replace(/[^+\d]/g, "")}`] : []),
    ...(facts?.url ? [`URL:${facts.url.replace(/[\r\n]/g, "")}`] : []),
    ...(facts?.languages ?? []).map((lang) => `LANG:${escapeText(lang)}`),
    ...(note ? [`NOTE:${escapeText(note)}`] : []),
    "END:VCARD",
  ];
  return lines.map(foldLine).join("");
}

function escapeText(text: string): string {
  return text.replace(/[\\,;]/g, (mark) => `\\${mark}`).replace(/\r\n?|\n/g, "\\n");
}

/** Breaks a line so that no piece is longer than 75 octets, never within a character. */
function foldLine(line: string): string {
  let folded = "";
  let octets = 0;
  for (const character of line) {
    const size = octetsOf(character.codePointAt(0)!);
    if (octets + size > LONGEST) {
      folded += "\r\n ";
      octets = 1;
    }
    folded += character;
    octets += size;
  }
  return `${folded}\r\n`;
}

/** How many octets a character takes in UTF-8. */
function octetsOf(codePoint: number): number {
  if (codePoint < 0x80) return 1;
  if (codePoint < 0x800) return 2;
  return codePoint < 0x10000 ? 3 : 4;
}
