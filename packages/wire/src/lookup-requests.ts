import { isPosition } from "@bibliotope/core/geo";
import { MAP_STYLES } from "@bibliotope/core/map";
import { FACT_NAME, KINDS, PARTS } from "@bibliotope/core/place";
import * as z from "zod";
import { text } from "./text.ts";

/** The longest text that is read, in UTF-16 units. */
export const MAX_TEXT = 500;

const written = text(MAX_TEXT);

/** A position, WGS 84 degrees. */
export const positionSchema = z
  .object({ lat: z.number(), lon: z.number() }, { error: "is not a position: latitude,longitude" })
  .superRefine(({ lat, lon }, context) => {
    if (isPosition(lat, lon)) return;
    const swapped = isPosition(lon, lat) ? "; were latitude and longitude swapped?" : "";
    const message =
      Math.abs(lat) > 90
        ? `a latitude lies between -90 and 90, this is ${lat}${swapped}`
        : `a longitude lies between -180 and 180, this is ${lon}`;
    context.addIssue({ code: "custom", message });
  })
  .meta({ id: "Position", description: "WGS 84 degrees. In a query string `LAT,LON`, the order of RFC 5870." });

const countryCode = z
  .string()
  .regex(/^[A-Za-z]{2}$/, { error: "a country is two letters, ISO 3166" })
  .transform((code) => code.toUpperCase());
const refSchema = text(40);
/** Languages that are requested at once, each a tag of at most 35 characters (RFC 5646). */
const MOST_LANGUAGES = 20;

const boxSchema = z
  .tuple([z.number(), z.number(), z.number(), z.number()])
  .refine(([west, south, east, north]) => isPosition(south, west) && isPosition(north, east) && south <= north, {
    error: "a box is west, south, east, north in degrees, with south below north",
  });

/** What every lookup takes: filters, a clue that moves the order, languages. */
const common = {
  countries: z.array(countryCode).max(30).optional().meta({ description: "Only these countries (ISO 3166)." }),
  kinds: z.array(z.enum(KINDS)).max(KINDS.length).optional().meta({ description: "Only these kinds of record." }),
  inside: refSchema.optional().meta({ description: "Only within this area, street or building." }),
  box: boxSchema
    .optional()
    .meta({ description: "Only within this box: west, south, east, north in degrees (RFC 7946)." }),
  lang: z
    .array(text(35).regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, { error: "a language is a BCP 47 tag" }))
    .max(MOST_LANGUAGES, { error: `at most ${MOST_LANGUAGES} languages` })
    .optional()
    .meta({ description: "Preferred languages, in order (BCP 47)." }),
};

/** Forms of an answer that holds records, by the words of `format=`; GeoJSON is the usual one. */
export const RECORD_FORMATS = {
  geojson: "application/geo+json",
  geojsonseq: "application/geo+json-seq",
  csv: "text/csv",
  gpx: "application/gpx+xml",
  vcf: "text/vcard",
} as const;
export type RecordFormat = keyof typeof RECORD_FORMATS;
const FORMATS = Object.keys(RECORD_FORMATS) as [RecordFormat, ...RecordFormat[]];

const format = z.enum(FORMATS).optional().meta({ description: "Response format; overrides the Accept header." });

/** Common facts of a place, beside which its data may have others. */
export const FACTS = ["phone", "url", "languages", "stepFree", "openingHours"] as const;
/** Facts that are requested at once. */
const MOST_FACTS = 40;
const factName = z
  .string()
  .regex(FACT_NAME, { error: `a fact is ${FACTS.join(", ")}, or a name of lower-case letters and digits` });

/** What lookups that answer records may tell beside them. */
const beside = {
  facts: z
    .array(z.union([z.enum(FACTS), factName], { error: `a fact is ${FACTS.join(", ")}, or one of the data's own` }))
    .max(MOST_FACTS)
    .optional()
    .meta({ description: "Only these attributes of places; all if omitted." }),
  height: z.boolean().default(false).meta({ description: "Include the elevation of each result." }),
};

const limit = (most: number, usual: number) =>
  z.int().min(1).max(most).default(usual).meta({ description: "Maximum number of results." });

export const suggestRequest = z.strictObject({
  q: written.meta({ description: "The text typed so far." }),
  ...common,
  near: positionSchema.optional().meta({ description: "Ranks results near this position first." }),
  limit: limit(100, 7),
  format: z.enum(["json", "opensearch"]).optional().meta({ description: "`opensearch`: OpenSearch suggestions." }),
});

export const forwardRequest = z
  .strictObject({
    q: written.optional().meta({ description: "An address as free text." }),
    ...(Object.fromEntries(
      PARTS.map((part) => [part, written.optional().meta({ description: `The ${part} only.` })]),
    ) as Record<(typeof PARTS)[number], z.ZodOptional<typeof written>>),
    ...common,
    near: positionSchema.optional().meta({ description: "Ranks results near this position first." }),
    limit: limit(50, 5),
    gloss: z.boolean().default(false).meta({ description: "Include what each word was recognised as." }),
    ...beside,
    format,
  })
  .refine((params) => params.q !== undefined || PARTS.some((part) => params[part] !== undefined), {
    error: "give q, or at least one part",
    path: ["q"],
  });

export const reverseRequest = z.strictObject({
  at: positionSchema.meta({ description: "The position to look up." }),
  radius: z.number().min(1).max(5000).default(250).meta({ description: "Search radius in metres." }),
  ...common,
  limit: limit(20, 10),
  ...beside,
  format,
});

export const recordRequest = z.strictObject({
  lang: common.lang,
  ...beside,
  typed: z.int().min(0).max(MAX_TEXT).optional().meta({
    description: "Number of characters typed before this record was chosen; only counted, not stored with the record.",
  }),
  format,
});

export const postcodesRequest = z.strictObject({
  starts: written
    .refine((value) => /[\p{L}\p{N}]/u.test(value), { error: "give at least one letter or digit of the postcode" })
    .meta({ description: "A postcode or its start." }),
  lang: common.lang,
  limit: limit(100, 20),
  format,
});

export const distanceRequest = z.strictObject({
  from: positionSchema.meta({ description: "Where the line begins." }),
  to: positionSchema.meta({ description: "Where the line ends." }),
});

/** Positions of which the heights are requested at once. */
const MOST_HEIGHTS = 1000;

export const heightRequest = z.strictObject({ at: positionSchema.meta({ description: "The position to look up." }) });
export const heightsRequest = z.strictObject({
  at: z
    .array(positionSchema)
    .min(1, { error: "give at least one position" })
    .max(MOST_HEIGHTS, { error: `at most ${MOST_HEIGHTS} positions at once` }),
});

/** Sides of a still, in CSS pixels. */
const STILL_SIDES = { least: 64, most: 1280 };
/** Markers on one still, and points of its line. */
const MOST_POINTS = 100;

const side = (usual: number, of: string) =>
  z
    .int({ error: "a whole number of pixels" })
    .min(STILL_SIDES.least, { error: `at least ${STILL_SIDES.least} pixels` })
    .max(STILL_SIDES.most, { error: `at most ${STILL_SIDES.most} pixels` })
    .default(usual)
    .meta({ description: `${of} in CSS pixels, ${STILL_SIDES.least} to ${STILL_SIDES.most}.`, examples: [usual] });
const sides = { width: side(600, "Width"), height: side(400, "Height") };
const density = z
  .union([z.literal(1), z.literal(2)], { error: "a density is 1 or 2" })
  .default(1)
  .meta({ description: "Pixels for each CSS pixel: 1 or 2." });

export const stillRequest = z
  .strictObject({
    at: positionSchema.optional().meta({ description: "A position, shown with a marker." }),
    of: refSchema.optional().meta({ description: "A record, shown with a marker, or as a whole if it is an area." }),
    label: text(120)
      .optional()
      .meta({ description: "Label of the marker (default: the record's address line; empty for none)." }),
    points: z
      .array(positionSchema)
      .max(MOST_POINTS)
      .default([])
      .meta({ description: "Additional numbered markers. In a query string LAT,LON;LAT,LON." }),
    line: z
      .array(positionSchema)
      .min(2, { error: "a line has two positions at least" })
      .max(MOST_POINTS)
      .optional()
      .meta({ description: "A great-circle line with its length. In a query string LAT,LON;LAT,LON." }),
    ...sides,
    density,
    zoom: z.number().min(2).max(19).optional().meta({ description: "Zoom from 2 to 19 (default: fits everything)." }),
    style: z
      .enum(MAP_STYLES, { error: `one of ${MAP_STYLES.join(", ")}` })
      .default("streets")
      .meta({ description: "Map style: streets, ground cover, elevation, or ground cover with streets and names." }),
    night: z.boolean().default(false).meta({ description: "Dark colours." }),
    lang: common.lang,
  })
  .refine(({ at, of, points, line }) => at || of || points.length || line, {
    error: "give at, of, points or line",
    path: ["at"],
  });

/** Hours that a link lasts at most, and usually. */
const LINK_HOURS = { most: 24 * 366, usual: 24 * 7 };

export const linkRequest = z
  .strictObject({
    of: refSchema.optional().meta({ description: "The record to show." }),
    at: positionSchema.optional().meta({ description: "The position to show." }),
    shows: z
      .enum(["page", "still"])
      .default("page")
      .meta({ description: "A page about the place, or only a picture of it, for email." }),
    hours: z
      .int()
      .min(1)
      .max(LINK_HOURS.most)
      .default(LINK_HOURS.usual)
      .meta({ description: "Hours until it expires; at most 24 with a key used in pages." }),
    label: text(120).optional().meta({ description: "Title of the place (default: its name)." }),
    ...sides,
    density,
    zoom: z.number().min(2).max(19).optional().meta({ description: "2 to 19." }),
    night: z.boolean().default(false).meta({ description: "Dark colours." }),
    lang: common.lang,
  })
  .refine(({ of, at }) => (of === undefined) !== (at === undefined), {
    error: "give of or at, one of them",
    path: ["of"],
  });
export type LinkRequest = z.infer<typeof linkRequest>;

export type StillRequest = z.infer<typeof stillRequest>;
export type SuggestRequest = z.infer<typeof suggestRequest>;
export type ForwardRequest = z.infer<typeof forwardRequest>;
export type ReverseRequest = z.infer<typeof reverseRequest>;

/** A value that works for a parameter of a request, as a query string has it. */
export function exampleOf(request: z.ZodType | undefined, parameter: string): string | undefined {
  const schema: unknown = request instanceof z.ZodObject ? request.shape[parameter] : undefined;
  const examples = schema instanceof z.ZodType ? schema.meta()?.examples : undefined;
  const own: unknown = Array.isArray(examples) ? examples[0] : undefined;
  return own === undefined ? (Object.hasOwn(EXAMPLES, parameter) ? EXAMPLES[parameter] : undefined) : String(own);
}

/** A value that works for every parameter, for errors and the documentation. */
export const EXAMPLES: Readonly<Record<string, string>> = {
  q: "12 harb",
  at: "-35.2,-21.4",
  near: "-35.2,-21.4",
  countries: "QR,QV",
  kinds: "address,street",
  inside: "qr-t0613p",
  box: "-22,-36,-21,-35",
  limit: "5",
  radius: "250",
  lang: "en",
  gloss: "1",
  format: "csv",
  facts: "phone,openingHours",
  height: "1",
  typed: "7",
  starts: "HT4",
  from: "-35.2,-21.4",
  to: "-35.3,-21.5",
  of: "qr-hgwrp5",
  points: "-35.2,-21.4;-35.3,-21.5",
  line: "-35.2,-21.4;-35.3,-21.5",
  width: "600",
  density: "2",
  zoom: "15",
  night: "1",
  shows: "page",
  hours: "24",
};

const LISTS = new Set(["countries", "kinds", "lang", "facts"]);
const POSITIONS = new Set(["at", "near", "from", "to"]);
const POSITION_LISTS = new Set(["points", "line", "markers"]);
// markers and scale are former names
const NUMBERS = new Set(["limit", "radius", "width", "density", "zoom", "typed", "hours", "scale"]);
const FLAGS = new Set(["gloss", "night"]);
const YES_AND_NO = new Map([
  ["1", true],
  ["true", true],
  ["0", false],
  ["false", false],
]);

/**
 * Turns the words of a query string into the same words as JSON: lists by comma, positions as LAT,LON, numbers, flags.
 * What cannot be turned stays as text, so that the schema explains what is wrong with it.
 */
export function jsonOfQuery(query: Iterable<readonly [string, string]>): Record<string, unknown> {
  const params: Record<string, unknown> = {};
  for (const [name, value] of query) {
    if (LISTS.has(name))
      params[name] = value
        .split(",")
        .map((item) => item.trim())
        .filter(Boolean);
    else if (POSITIONS.has(name)) params[name] = positionOf(value);
    else if (POSITION_LISTS.has(name)) params[name] = value.split(";").filter(Boolean).map(positionOf);
    else if (name === "box") params[name] = value.split(",").map(numberOf);
    else if (NUMBERS.has(name)) params[name] = numberOf(value);
    else if (FLAGS.has(name)) params[name] = YES_AND_NO.get(value) ?? value;
    // elevation of each result, or a side of a picture, which is never one pixel
    else if (name === "height") params[name] = YES_AND_NO.get(value) ?? numberOf(value);
    else params[name] = value;
  }
  return params;
}

function positionOf(value: string): unknown {
  const numbers = value.split(",").map(numberOf);
  return numbers.length === 2 ? { lat: numbers[0], lon: numbers[1] } : value;
}

function numberOf(value: string): unknown {
  const trimmed = value.trim();
  return trimmed !== "" && Number.isFinite(Number(trimmed)) ? Number(trimmed) : value;
}
