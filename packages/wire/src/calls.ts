import * as z from "zod";
import {
  countriesAnswer,
  countryAnswer,
  distanceAnswer,
  forwardAnswer,
  heightAnswer,
  heightsAnswer,
  postcodesAnswer,
  recordAnswer,
  reverseAnswer,
  sheetAnswer,
  sheetHeightsAnswer,
  stillAnswer,
  suggestAnswer,
} from "./answers.ts";
import {
  distanceAsking,
  forwardAsking,
  heightAsking,
  heightsAsking,
  postcodesAsking,
  RECORD_FORMATS,
  recordAsking,
  reverseAsking,
  stillAsking,
  suggestAsking,
} from "./asking.ts";
import { batchAsking, batchRowsAsking, batchState } from "./batches.ts";
import { reportAnswer, reportAsking } from "./corrections.ts";
import { publishedForm } from "./form.ts";

/** One call of the public wire. */
export interface Call {
  path: string;
  summary: string;
  /** Takes POST with the same words as JSON too. */
  post: boolean;
  asking?: z.ZodType;
  answer: z.ZodType;
  /** What POST takes and answers, where that is not the same. */
  many?: { asking: z.ZodType; answer: z.ZodType };
  mediaType: string;
  /** Other forms of the same answer. */
  others?: readonly string[];
  /** Takes no GET: it is no question. */
  isOnlyPost?: boolean;
  /** Media types of the body of a call that is made by POST alone; what it asks stands in the query then. */
  takes?: readonly string[];
}

const { geojson: GEOJSON, ...OTHERS } = RECORD_FORMATS;
const others = Object.values(OTHERS);

/** Media type of OpenSearch suggestions. */
export const OPENSEARCH = "application/x-suggestions+json";

/** Every call of /v1; routes and the OpenAPI document are made from it. */
export const CALLS = {
  suggest: {
    path: "/v1/suggest",
    summary: "Lines to choose from while typing",
    post: true,
    asking: suggestAsking,
    answer: suggestAnswer,
    mediaType: "application/json",
    others: [OPENSEARCH],
  },
  forward: {
    path: "/v1/forward",
    summary: "Candidates for an address, best first",
    post: true,
    asking: forwardAsking,
    answer: forwardAnswer,
    mediaType: GEOJSON,
    others,
  },
  reverse: {
    path: "/v1/reverse",
    summary: "The nearest address, then the areas around",
    post: true,
    asking: reverseAsking,
    answer: reverseAnswer,
    mediaType: GEOJSON,
    others,
  },
  record: {
    path: "/v1/records/{ref}",
    summary: "One record by its ref",
    post: false,
    asking: recordAsking,
    answer: recordAnswer,
    mediaType: GEOJSON,
    others,
  },
  postcodes: {
    path: "/v1/postcodes/{country}",
    summary: "The postcodes of a country that begin with some letters, and what they cover",
    post: false,
    asking: postcodesAsking,
    answer: postcodesAnswer,
    mediaType: GEOJSON,
    others,
  },
  distance: {
    path: "/v1/distance",
    summary: "How far it is from one position to another, and which way",
    post: true,
    asking: distanceAsking,
    answer: distanceAnswer,
    mediaType: "application/json",
  },
  height: {
    path: "/v1/height",
    summary: "How high the ground lies, at one position by GET, at many by POST",
    post: true,
    asking: heightAsking,
    answer: heightAnswer,
    many: { asking: heightsAsking, answer: heightsAnswer },
    mediaType: "application/json",
  },
  countries: {
    path: "/v1/countries",
    summary: "The countries held, each with its profile",
    post: false,
    answer: countriesAnswer,
    mediaType: "application/json",
  },
  country: {
    path: "/v1/countries/{code}",
    summary: "The profile of one country",
    post: false,
    answer: countryAnswer,
    mediaType: "application/json",
  },
  sheet: {
    path: "/v1/sheets/features/{z}/{x}/{y}",
    summary: "Map features of a tile (OGC WebMercatorQuad numbering)",
    post: false,
    answer: sheetAnswer,
    mediaType: "application/geo+json",
  },
  sheetHeights: {
    path: "/v1/sheets/heights/{z}/{x}/{y}",
    summary: "Heights of a tile's ground on a grid (OGC WebMercatorQuad numbering)",
    post: false,
    answer: sheetHeightsAnswer,
    mediaType: "application/json",
  },
  still: {
    path: "/v1/still",
    summary: "A picture of the map with markers and lines",
    post: true,
    asking: stillAsking,
    answer: stillAnswer,
    mediaType: "image/png",
  },
  form: {
    path: "/v1/forms/{ref}",
    summary: "A published form definition",
    post: false,
    answer: publishedForm,
    mediaType: "application/json",
  },
  report: {
    path: "/v1/reports",
    summary: "A wrong or missing address, reported by somebody who uses a form",
    post: true,
    isOnlyPost: true,
    asking: reportAsking,
    answer: reportAnswer,
    mediaType: "application/json",
  },
  makeBatch: {
    path: "/v1/batches",
    summary: "Many lookups at once: a file in",
    post: true,
    takes: ["text/csv", "application/geo+json", "application/geo+json-seq", "application/gzip"],
    asking: batchAsking,
    answer: batchState,
    mediaType: "application/json",
  },
  batch: {
    path: "/v1/batches/{id}",
    summary: "How far a batch is, and what came of its rows",
    post: false,
    answer: batchState,
    mediaType: "application/json",
  },
  batchRows: {
    path: "/v1/batches/{id}/rows",
    summary: "The rows of a batch, their own columns first, then what was found",
    post: false,
    asking: batchRowsAsking,
    answer: z.string(),
    mediaType: "text/csv",
    others: ["application/geo+json", "application/gpx+xml"],
  },
} as const satisfies Record<string, Call>;

export type CallName = keyof typeof CALLS;
