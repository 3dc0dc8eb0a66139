import { type FormAnswer, lookupIn } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import { factText } from "@bibliotope/core/place";
import type { AnswerRecord } from "@bibliotope/core/search";
import { escapeHtml } from "../http/pages.ts";

export interface PlaceShown {
  title: string;
  at: Position;
  record: AnswerRecord | undefined;
  /** Addresses of its picture, in one and in two pixels to each of the page's, and of the square that cameras read. */
  map: string;
  mapTwice: string;
  qr: string;
  size: { width: number; height: number };
  ends: Date;
  sources: string;
}

/** The public page of a place: card, hours, map and the way there. Nothing in it asks for anything more. */
export function placePage({ title, at, record, map, mapTwice, qr, size, ends, sources }: PlaceShown): string {
  const position = `${at.lat.toFixed(6)}, ${at.lon.toFixed(6)}`;
  const rows = [
    ...(record ? [["Address", record.lines.map(escapeHtml).join("<br>")]] : []),
    ...factRows(record),
    ["Position", `<span class="copied">${position}</span>`],
  ];
  const day = ends.toISOString().slice(0, 10);
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${escapeHtml(title)}</title>
<link rel="icon" href="/icon.svg">
<link rel="stylesheet" href="/kit/v1/place.css">
</head>
<body>
<main>
<h1>${escapeHtml(title)}</h1>
<img class="where" src="${map}" srcset="${map} 1x, ${mapTwice} 2x" width="${size.width}" height="${size.height}" alt="Map around ${escapeHtml(title)}">
<p class="ways" id="way"><a href="geo:${at.lat},${at.lon}">Open in a map application</a>
<span>Where none answers, put the position into one: it is written below.</span></p>
<dl>
${rows.map(([name, value]) => `<div><dt>${name}</dt><dd>${value}</dd></div>`).join("\n")}
</dl>
<p class="qr"><img src="${qr}" width="120" height="120" alt="This page as a code for cameras"></p>
</main>
<footer>This page can be seen by whoever has its address, until ${day}. ${escapeHtml(sources)}</footer>
</body>
</html>
`;
}

/** The facts of a place as rows; what is not known has none. */
function factRows(record: AnswerRecord | undefined): string[][] {
  if (!record?.facts) return [];
  const { facts } = record;
  const { phone, url, languages, stepFree, own = {} } = facts;
  const hours = [lookupIn({ ...record, box: undefined } as FormAnswer)("hours") ?? []]
    .flat()
    .map(escapeHtml)
    .join("<br>");
  const link = (address: string, words: string) =>
    `<a href="${escapeHtml(address)}" rel="noopener">${escapeHtml(words)}</a>`;
  return [
    ["Opening hours", hours],
    ["Telephone", phone && link(`tel:${phone.replace(/[^+\d]/g, "")}`, phone)],
    ["Web page", url && (/^https?:\/\//.test(url) ? link(url, url) : escapeHtml(url))],
    ["Step-free access", stepFree === undefined ? undefined : stepFree ? "Yes" : "No"],
    ["Languages", languages && escapeHtml(languages.join(", "))],
    ...Object.values(own).map((fact) => [escapeHtml(fact.label), escapeHtml(factText(fact))]),
  ].flatMap(([name, value]) => (name && value ? [[name, value]] : []));
}
