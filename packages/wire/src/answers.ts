import { DIFFERENCE_HOWS, EXACTNESS, FACT_KINDS, KINDS, OUTCOMES, PARTS } from "@bibliotope/core/place";
import * as z from "zod";

const position = z.object({ lat: z.number(), lon: z.number() });
const kind = z.enum(KINDS);

export const sourceSchema = z.object({ name: z.string(), day: z.string(), licence: z.string() }).meta({ id: "Source" });

export const partSchema = z
  .object({ name: z.string(), abbr: z.string().optional(), code: z.string().optional(), ref: z.string().optional() })
  .meta({ id: "Part" });

export const suggestionSchema = z
  .object({
    ref: z.string(),
    kind,
    line: z.string(),
    within: z.string(),
    marks: z
      .array(z.tuple([z.int(), z.int()]))
      .meta({ description: "Half-open ranges of `line` in UTF-16 units, sorted." }),
    at: position,
    more: z.int().meta({ description: "How many numbers or units are inside: ask again with `inside`." }),
    sure: z
      .literal(true)
      .optional()
      .meta({ description: "A forward lookup of the same text is `matched` to it: Enter may take it." }),
  })
  .meta({ id: "Suggestion" });

export const suggestAnswer = z.object({
  q: z.string(),
  outcome: z.enum(["matched", "none"]),
  advice: z.array(z.string()),
  source: z.array(sourceSchema),
  suggestions: z.array(suggestionSchema),
});

export const glossSchema = z
  .object({
    typed: z.string(),
    span: z.tuple([z.int(), z.int()]),
    part: z.enum(PARTS).optional(),
    as: z.string().optional(),
    how: z.enum([
      "same",
      "prefix",
      "spelling",
      "abbreviation",
      "script",
      "joined",
      "nearby",
      "differs",
      "absent",
      "ignored",
    ]),
  })
  .meta({ id: "Gloss" });

export const differenceSchema = z
  .object({
    part: z.enum(PARTS),
    written: z.string().meta({ description: "As it was typed." }),
    held: z.string().optional().meta({ description: "What the record has in its place." }),
    how: z.enum(DIFFERENCE_HOWS),
  })
  .meta({ id: "Difference", description: "Something written that is not so in a record." });

const metresAbove = z.number().nullable().meta({ description: "Metres above the sea; null outside the data." });
const continentSchema = z
  .object({ code: z.string(), name: z.string() })
  .meta({ id: "Continent", description: "What lies around the country, by its UN M49 code." });

export const partsSchema = z.partialRecord(z.enum(PARTS), partSchema);

/** Facts of a place; opening hours as schema.org's `OpeningHoursSpecification`. */
export const factsSchema = z
  .object({
    phone: z.string(),
    url: z.string(),
    languages: z.array(z.string()),
    stepFree: z.boolean(),
    openingHours: z.array(z.object({ dayOfWeek: z.array(z.string()), opens: z.string(), closes: z.string() })),
    hoursText: z.string().meta({ description: "Hours as they were written, where that could not be read." }),
    own: z
      .record(
        z.string(),
        z.object({
          label: z.string(),
          kind: z.enum(FACT_KINDS),
          value: z.union([z.string(), z.number(), z.boolean()]),
        }),
      )
      .meta({ description: "Further facts that the data has of the place, by name." }),
  })
  .partial()
  .meta({ id: "Facts" });

export const propertiesSchema = z
  .object({
    kind,
    exactness: z.enum(EXACTNESS),
    at: position,
    line: z.string(),
    lines: z.array(z.string()),
    parts: partsSchema,
    autofill: z.record(z.string(), z.string()).meta({ description: "Values of the HTML standard's autofill tokens." }),
    facts: factsSchema.optional(),
    height: metresAbove.optional(),
    continent: continentSchema.optional(),
    score: z
      .number()
      .optional()
      .meta({ description: "The chance that this record is meant; of all together at most 1." }),
    differences: z.array(differenceSchema).optional(),
    gloss: z.array(glossSchema).optional(),
    distance: z.number().optional().meta({ description: "Metres; 0 for an area that contains the position." }),
    bearing: z.number().optional().meta({ description: "Degrees clockwise from north." }),
    covers: z.array(z.string()).optional().meta({ description: "Streets that a postcode covers." }),
  })
  .meta({ id: "RecordProperties" });

export const featureSchema = z
  .object({
    type: z.literal("Feature"),
    id: z.string(),
    bbox: z.tuple([z.number(), z.number(), z.number(), z.number()]).optional(),
    geometry: z.object({ type: z.literal("Point"), coordinates: z.tuple([z.number(), z.number()]) }),
    properties: propertiesSchema,
  })
  .meta({ id: "RecordFeature", description: "A record as a GeoJSON Feature (RFC 7946)." });

const collection = <const O extends readonly [string, ...string[]]>(outcomes: O) =>
  z.object({
    type: z.literal("FeatureCollection"),
    outcome: z.enum(outcomes),
    advice: z.array(z.string()),
    source: z.array(sourceSchema),
    features: z.array(featureSchema),
  });

export const readingSchema = z
  .object({ country: z.string(), parts: partsSchema, unknown: z.array(z.string()), gloss: z.array(glossSchema) })
  .meta({ id: "Reading", description: "The text split by the shape of its words, where nothing was found." });

export const forwardAnswer = collection(OUTCOMES).extend({ reading: readingSchema.optional() });
export const reverseAnswer = collection(["matched", "none"]);
export const postcodesAnswer = collection(["matched", "none"]).extend({
  total: z.int().meta({ description: "How many postcodes begin like this in all." }),
});
export const linkAnswer = z.object({
  url: z.string().meta({ description: "For whoever is to see the place; no key is needed." }),
  endsAt: z.string().meta({ description: "From then on it shows nothing (RFC 3339)." }),
  qr: z.string().optional().meta({ description: "The same address as a code for cameras, an SVG." }),
});
export type LinkAnswer = z.infer<typeof linkAnswer>;
export const distanceAnswer = z.object({
  metres: z.number().meta({ description: "Along the ellipsoid of WGS 84." }),
  bearing: z
    .number()
    .optional()
    .meta({ description: "Degrees clockwise from north, at the start; absent where both are one." }),
});
export const heightAnswer = z.object({ metres: metresAbove, source: z.array(sourceSchema) });
export const heightsAnswer = z.object({ heights: z.array(metresAbove), source: z.array(sourceSchema) });
export const recordAnswer = featureSchema.extend({ source: z.array(sourceSchema) });

export const countrySchema = z
  .object({
    code: z.string(),
    name: z.string(),
    langs: z.array(z.string()),
    bbox: z.tuple([z.number(), z.number(), z.number(), z.number()]).optional().meta({
      description:
        "Where its data lies: west, south, east, north (RFC 7946); across the 180th meridian west is greater.",
    }),
    lines: z.string().meta({ description: "Pattern of the lines of an envelope." }),
    line: z.string().meta({ description: "Pattern of the address in one line." }),
    labels: z.partialRecord(z.enum(PARTS), z.string()),
    levels: z.array(z.enum(PARTS)).meta({ description: "Parts that are HTML's address-level1 to 4, broadest first." }),
    number: z.object({ part: z.enum(["house", "building"]), stands: z.enum(["before", "after"]) }),
    postcode: z.object({ shape: z.string(), examples: z.array(z.string()), note: z.string().optional() }).optional(),
  })
  .meta({ id: "Country" });

export const tileAnswer = z.object({
  type: z.literal("FeatureCollection"),
  features: z.array(
    z.object({
      type: z.literal("Feature"),
      id: z.string().optional().meta({ description: "Ref of the record that it shows." }),
      geometry: z.object({ type: z.string(), coordinates: z.array(z.unknown()) }),
      properties: z.looseObject({ layer: z.string(), rank: z.int() }),
    }),
  ),
});

export const tileHeightsAnswer = z.object({
  columns: z.int(),
  rows: z.int(),
  metres: z.array(z.number().nullable()).meta({
    description:
      "Above the sea, row by row from the north, each from the west, the tile's edges included; null outside the data.",
  }),
});

export const stillAnswer = z.string().meta({ description: "A PNG.", contentMediaType: "image/png" });

export const countriesAnswer = z.object({ countries: z.array(countrySchema), source: z.array(sourceSchema) });
export const countryAnswer = countrySchema.extend({ source: z.array(sourceSchema) });

export type Suggestion = z.infer<typeof suggestionSchema>;
/** Lines to choose from for what was typed, the best first. */
export type SuggestAnswer = z.infer<typeof suggestAnswer>;
/** A record as a GeoJSON feature: its ref is the id, its position the geometry. */
export type RecordFeature = z.infer<typeof featureSchema>;
export type RecordProperties = z.infer<typeof propertiesSchema>;
/** What an address or place was found to be: the outcome, and records as features, the best first. */
export type ForwardAnswer = z.infer<typeof forwardAnswer>;
/** What lies at a position: records as features, the nearest first. */
export type ReverseAnswer = z.infer<typeof reverseAnswer>;
export type Difference = z.infer<typeof differenceSchema>;
export type Gloss = z.infer<typeof glossSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type PostcodesAnswer = z.infer<typeof postcodesAnswer>;
export type TileHeightsAnswer = z.infer<typeof tileHeightsAnswer>;
/** Metres of the ground above the sea; null where they are not known. */
export type HeightAnswer = z.infer<typeof heightAnswer>;
/** Metres from one position to another, and the direction in degrees from the north. */
export type DistanceAnswer = z.infer<typeof distanceAnswer>;
/** One record as a feature, with the data that it is from. */
export type RecordAnswer = z.infer<typeof recordAnswer>;
export type Country = z.infer<typeof countrySchema>;
/** The countries with data, each with the profile: how addresses are written, and where the data lies. */
export type CountriesAnswer = z.infer<typeof countriesAnswer>;
