import type { Service, ServiceValue, ServiceValues, ValueKind } from "./service.ts";

/** Finds what a way leads to in an answer: nothing, or one thing or more, each a text, a number, yes or no, or something with parts. */
export type Follow = (way: string) => readonly unknown[];

/** Items of a list that a form gets at most, and characters of a value. */
const [MOST_ITEMS, MOST_LETTERS] = [200, 2000];
/** Positions of a line that a form gets at most, the first and the last among them, and decimals of their degrees. */
const [MOST_POINTS, DECIMALS] = [500, 5];

/** What forms may use of an answer, by name. A value that is missing, or not of the kind, is what the description puts instead. */
export function readValues(
  { values }: Pick<Service, "values">,
  follow: Follow,
): { values: ServiceValues; found: number } {
  let found = 0;
  const read = values.map((value): [string, string | string[]] => {
    const texts = textsOf(value, follow);
    if (texts.length) found++;
    if (value.isList) return [value.name, texts.length || value.missing === undefined ? texts : [value.missing]];
    return [value.name, texts[0] ?? value.missing ?? ""];
  });
  return { values: Object.fromEntries(read), found };
}

function textsOf({ way, each, kind }: ServiceValue, follow: Follow): string[] {
  const present = follow(way).flatMap((item) => (Array.isArray(item) ? item : [item]));
  const items = each === undefined ? present : present.flatMap((item) => followPointer(item, each));
  return items.slice(0, MOST_ITEMS).flatMap((item) => textOf(item, kind) ?? []);
}

/** A value as a field holds it; undefined for one that is not of the kind. */
export function textOf(value: unknown, kind: ValueKind): string | undefined {
  if (kind === "line") return lineText(value);
  if (typeof value !== "string" && typeof value !== "number" && typeof value !== "boolean") return undefined;
  const text = String(value).trim().slice(0, MOST_LETTERS);
  if (text === "") return undefined;
  if (kind === "number") return Number.isFinite(Number(text)) ? String(Number(text)) : undefined;
  if (kind === "date") return /^\d{4}-\d\d-\d\d/.test(text) && !Number.isNaN(Date.parse(text)) ? text : undefined;
  if (kind !== "yesno") return text;
  if (/^(true|yes|1)$/i.test(text)) return "yes";
  return /^(false|no|0)$/i.test(text) ? "no" : undefined;
}

/** The positions of a LineString, or of the text; of a long one some are left out. */
function lineText(value: unknown): string | undefined {
  if (typeof value === "string") {
    const points = value.trim().split(/\s+/);
    return points.length > 1 && points.every((point) => /^-?\d+(\.\d+)?,-?\d+(\.\d+)?$/.test(point))
      ? value.trim()
      : undefined;
  }
  const { type, coordinates } = (value ?? {}) as { type?: unknown; coordinates?: unknown };
  if (type !== "LineString" || !Array.isArray(coordinates) || coordinates.length < 2) return undefined;
  const isPair = (pair: unknown) =>
    Array.isArray(pair) && Math.abs(Number(pair[0])) <= 180 && Math.abs(Number(pair[1])) <= 90;
  if (!coordinates.every(isPair)) return undefined;
  const every = Math.ceil(coordinates.length / MOST_POINTS);
  const kept = coordinates.filter((_, i) => i % every === 0 || i === coordinates.length - 1);
  return kept.map(([lon, lat]) => `${Number(lat.toFixed(DECIMALS))},${Number(lon.toFixed(DECIMALS))}`).join(" ");
}

/** What a JSON Pointer leads to: one thing, or nothing (RFC 6901). */
export function followPointer(value: unknown, pointer: string): unknown[] {
  if (pointer === "") return [value];
  if (!pointer.startsWith("/")) return [];
  let here = value;
  for (const step of pointer.slice(1).split("/")) {
    const key = step.replaceAll("~1", "/").replaceAll("~0", "~");
    if (typeof here !== "object" || here === null || !Object.hasOwn(here, key)) return [];
    if (Array.isArray(here) && !/^(0|[1-9]\d*)$/.test(key)) return [];
    here = (here as Record<string, unknown>)[key];
  }
  return [here];
}

/** The pointer to a key within what another leads to. */
export const pointerTo = (pointer: string, key: string | number) =>
  `${pointer}/${String(key).replaceAll("~", "~0").replaceAll("/", "~1")}`;
