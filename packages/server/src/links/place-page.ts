import type { Position } from "@bibliotope/core/geo";
import { factText, hoursText, WEEK } from "@bibliotope/core/place";
import type { AnswerRecord } from "@bibliotope/core/search";
import { escapeHtml } from "../http/pages.ts";
import type { PlaceLanguage } from "./place-words.ts";

export interface PlaceShown {
  title: string;
  at: Position;
  record: AnswerRecord | undefined;
  /** Addresses of the picture, in one and in two pixels to each of the page's, and of the square that cameras read. */
  map: string;
  mapTwice: string;
  qr: string;
  size: { width: number; height: number };
  ends: Date;
  sources: string;
  language: PlaceLanguage;
}

/** The public page of a place: card, hours, map and the way there. Nothing in it asks for anything more. */
export function placePage({ title, at, record, map, mapTwice, qr, size, ends, sources, language }: PlaceShown): string {
  const position = `${at.lat.toFixed(6)}, ${at.lon.toFixed(6)}`;
  const { lang, dir, words } = language;
  const rows = [
    ...(record ? [[words.address, record.lines.map(escapeHtml).join("<br>")]] : []),
    ...factRows(record, language),
    [words.position, `<span class="copied" dir="ltr">${position}</span>`],
  ];
  const day = new Intl.DateTimeFormat(lang, { dateStyle: "long", timeZone: "UTC" }).format(ends);
  const escapedTitle = escapeHtml(title);
  return `<!doctype html>
<html lang="${lang}" dir="${dir}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${escapedTitle}</title>
<link rel="icon" href="../icon.svg">
<link rel="stylesheet" href="../kit/v1/place.css">
</head>
<body>
<main>
<h1><bdi>${escapedTitle}</bdi></h1>
<img class="where" src="${map}" srcset="${map} 1x, ${mapTwice} 2x" width="${size.width}" height="${size.height}" alt="${words.around.replace("{title}", () => escapedTitle)}">
<p class="ways" id="way"><a href="geo:${at.lat},${at.lon}">${words.open}</a>
<span>${words.elsewhere}</span></p>
<dl>
${rows.map(([name, value]) => `<div><dt>${name}</dt><dd><bdi>${value}</bdi></dd></div>`).join("\n")}
</dl>
<p class="qr"><img src="${qr}" width="120" height="120" alt="${words.code}"></p>
</main>
<footer>${words.until.replace("{day}", () => day)} <bdi>${escapeHtml(sources)}</bdi></footer>
</body>
</html>
`;
}

/** The facts of a place as rows; what is not known has none. */
function factRows(record: AnswerRecord | undefined, { lang, words }: PlaceLanguage): string[][] {
  if (!record?.facts) return [];
  const { facts } = record;
  const { phone, url, languages, stepFree, own = {} } = facts;
  const hours = facts.openingHours?.map((one) => hoursText(one, daysIn(lang))) ?? [facts.hoursText ?? ""];
  const nameOf = new Intl.DisplayNames(lang, { type: "language", fallback: "code" });
  const link = (address: string, words: string) =>
    `<a href="${escapeHtml(address)}" rel="noopener">${escapeHtml(words)}</a>`;
  return [
    [words.hours, hours.map(escapeHtml).join("<br>")],
    [words.phone, phone && link(`tel:${phone.replace(/[^+\d]/g, "")}`, phone)],
    [words.page, url && (/^https?:\/\//.test(url) ? link(url, url) : escapeHtml(url))],
    [words.stepFree, stepFree === undefined ? undefined : stepFree ? words.yes : words.no],
    [words.languages, languages && escapeHtml(languages.map((one) => languageName(nameOf, one)).join(", "))],
    ...Object.values(own).map((fact) => [escapeHtml(fact.label), escapeHtml(factText(fact))]),
  ].flatMap(([name, value]) => (name && value ? [[name, value]] : []));
}

/** A day that was a Monday. */
const MONDAY = Date.UTC(2024, 0, 1);
const DAY = 86_400_000;

/** What days are called in a language. */
function daysIn(lang: string): (day: string) => string {
  const format = new Intl.DateTimeFormat(lang, { weekday: "long", timeZone: "UTC" });
  return (day) => {
    const place = (WEEK as readonly string[]).indexOf(day);
    return place < 0 ? day : format.format(MONDAY + place * DAY);
  };
}

/** The name of a language; what is no code of one is as it is. */
function languageName(names: Intl.DisplayNames, code: string): string {
  try {
    return names.of(code) ?? code;
  } catch {
    return code;
  }
}
