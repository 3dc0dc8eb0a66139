import * as z from "zod";
import {
  countriesAnswer,
  countryAnswer,
  distanceAnswer,
  forwardAnswer,
  heightAnswer,
  heightsAnswer,
  linkAnswer,
  postcodesAnswer,
  recordAnswer,
  reverseAnswer,
  stillAnswer,
  suggestAnswer,
  tileAnswer,
  tileHeightsAnswer,
} from "./answers.ts";
import { batchRequest, batchRowsRequest, batchState } from "./batches.ts";
import { type Call, call, type KeyKind, type PartIn } from "./call.ts";
import { reportAnswer, reportRequest } from "./corrections.ts";
import { publishedForm } from "./form.ts";
import { stillParamsOfFormer } from "./former-params.ts";
import { keyAnswer } from "./key.ts";
import {
  distanceRequest,
  forwardRequest,
  heightRequest,
  heightsRequest,
  linkRequest,
  postcodesRequest,
  RECORD_FORMATS,
  recordRequest,
  reverseRequest,
  stillRequest,
  suggestRequest,
} from "./lookup-requests.ts";
import { serviceAnswer, serviceInputs } from "./services.ts";

const { geojson: GEOJSON, ...OTHERS } = RECORD_FORMATS;

/** Media type of OpenSearch suggestions. */
export const OPENSEARCH = "application/x-suggestions+json";
const JSON_TYPE = "application/json";

const lookup = <const As extends string>(as: As, words: string = as) => ({ as, words, counts: "lookup" }) as const;
const ofPage = <const As extends string>(as: As, words: string = as) => ({ as, words, counts: "nothing" }) as const;
const ofServers = { as: "batches", words: "batches", kinds: ["srv"] as readonly KeyKind[], counts: "lookup" } as const;

/** Every call of /v1. */
export const CALLS = {
  suggest: call({
    path: "/v1/suggest",
    methods: ["GET", "POST"],
    tag: "Lookups",
    summary: "Suggestions while typing",
    description:
      "Suggestions for the text typed so far, most likely first, with the positions of the typed letters. If a suggestion has `more`, call again with `inside` for its numbers or units.",
    asks: suggestRequest,
    answers: suggestAnswer,
    mediaType: JSON_TYPE,
    forms: { opensearch: OPENSEARCH },
    key: lookup("suggest", "suggestions"),
    keeps: true,
    plays: true,
    example: { q: "12 harb", limit: "3" },
  }),
  forward: call({
    path: "/v1/forward",
    methods: ["GET", "POST"],
    tag: "Lookups",
    summary: "Look up an address",
    description:
      "Looks up an address given as free text in `q`, as parts, or both. The outcome says whether one record matches, one is close but differs, several match, or none does. Each candidate lists how it differs from the text.",
    asks: forwardRequest,
    answers: forwardAnswer,
    mediaType: GEOJSON,
    forms: OTHERS,
    key: lookup("forward"),
    keeps: true,
    plays: true,
    example: { q: "12 Harbour Row, Tidewell" },
  }),
  reverse: call({
    path: "/v1/reverse",
    methods: ["GET", "POST"],
    tag: "Lookups",
    summary: "Look up a position",
    description: "The nearest address within `radius` metres of a position, and every area that contains it.",
    asks: reverseRequest,
    answers: reverseAnswer,
    mediaType: GEOJSON,
    forms: OTHERS,
    key: lookup("reverse"),
    keeps: true,
    plays: true,
    example: { at: "-35.1841,-21.6253" },
  }),
  record: call({
    path: "/v1/records/{ref}",
    methods: ["GET"],
    tag: "Lookups",
    summary: "Get a record by ref",
    description:
      "A ref stays the same in all versions of the data. A withdrawn record returns 410, with the ref of its replacement if there is one.",
    asks: recordRequest,
    answers: recordAnswer,
    mediaType: GEOJSON,
    forms: OTHERS,
    key: lookup("records"),
    keeps: true,
    plays: true,
    example: { ref: "qr-hgwrp5" },
  }),
  postcodes: call({
    path: "/v1/postcodes/{country}",
    methods: ["GET"],
    tag: "Lookups",
    summary: "List postcodes of a country by prefix",
    description: "Postcodes in order, each with the streets and towns it covers, and the total number.",
    asks: postcodesRequest,
    answers: postcodesAnswer,
    mediaType: GEOJSON,
    forms: OTHERS,
    key: lookup("postcodes"),
    keeps: true,
    plays: true,
    example: { country: "QR", starts: "HT4" },
  }),
  distance: call({
    path: "/v1/distance",
    methods: ["GET", "POST"],
    tag: "Lookups",
    summary: "Distance and bearing between two positions",
    description: "Straight-line distance on the WGS 84 ellipsoid, not a route.",
    asks: distanceRequest,
    answers: distanceAnswer,
    mediaType: JSON_TYPE,
    key: lookup("distance", "distances"),
    plays: true,
    example: { from: "-35.2,-21.4", to: "-35.3,-21.5" },
  }),
  height: call({
    path: "/v1/height",
    methods: ["GET", "POST"],
    tag: "Lookups",
    summary: "Elevation",
    description:
      "One position with GET, many with POST: metres above sea level, interpolated from the elevation grid; null outside it.",
    asks: heightRequest,
    answers: heightAnswer,
    many: { asks: heightsRequest, answers: heightsAnswer },
    mediaType: JSON_TYPE,
    key: lookup("height", "heights"),
    plays: true,
    example: { at: "-35.1841,-21.6253" },
  }),
  countries: call({
    path: "/v1/countries",
    methods: ["GET"],
    tag: "Countries",
    summary: "List countries",
    description: "The address format, names of address parts, and postcodes of each country.",
    answers: countriesAnswer,
    mediaType: JSON_TYPE,
    key: ofPage("countries"),
    plays: false,
    example: {},
  }),
  country: call({
    path: "/v1/countries/{code}",
    methods: ["GET"],
    tag: "Countries",
    summary: "Get a country",
    description: "The same for one country, by its ISO 3166 code.",
    answers: countryAnswer,
    mediaType: JSON_TYPE,
    key: ofPage("countries"),
    plays: false,
    example: { code: "QR" },
  }),
  tile: call({
    path: "/v1/tiles/features/{z}/{x}/{y}",
    formerly: { path: "/v1/sheets/features/{z}/{x}/{y}" },
    methods: ["GET"],
    tag: "Map",
    summary: "Map features of a tile",
    description: "Numbered as OGC's WebMercatorQuad; zooms 0 to 20.",
    answers: tileAnswer,
    mediaType: GEOJSON,
    key: ofPage("tiles", "map"),
    plays: false,
    example: { z: "9", x: "225", y: "309" },
  }),
  tileHeights: call({
    path: "/v1/tiles/heights/{z}/{x}/{y}",
    formerly: { path: "/v1/sheets/heights/{z}/{x}/{y}" },
    methods: ["GET"],
    tag: "Map",
    summary: "Heights of a tile's ground on a grid",
    description: "Numbered as OGC's WebMercatorQuad; zooms 0 to 20.",
    answers: tileHeightsAnswer,
    mediaType: JSON_TYPE,
    key: ofPage("tiles", "map"),
    plays: false,
    example: { z: "9", x: "225", y: "309" },
  }),
  still: call({
    path: "/v1/still",
    formerly: { params: stillParamsOfFormer },
    methods: ["GET", "POST"],
    tag: "Map",
    summary: "Map picture with markers and lines",
    description:
      "A PNG that shows a position, a record, markers or a line, for pages without scripts, printing and email.",
    asks: stillRequest,
    answers: stillAnswer,
    mediaType: "image/png",
    key: { as: "still", words: "pictures", counts: "picture" },
    plays: false,
    example: { at: "-35.1841,-21.6253", width: "300", height: "200" },
  }),
  link: call({
    path: "/v1/links",
    formerly: { params: stillParamsOfFormer },
    methods: ["GET", "POST"],
    tag: "Map",
    summary: "Create a link to a place",
    description:
      "A signed link that works without a key and expires after some hours. It shows a page with details, map and directions, or a picture, for chats, email and print. Revoking the key that created it revokes the link.",
    asks: linkRequest,
    answers: linkAnswer,
    mediaType: JSON_TYPE,
    key: { as: "links", words: "links", kinds: ["srv", "web", "view", "try"], counts: "lookup" },
    plays: false,
    example: { of: "qr-hgwrp5", hours: "24" },
  }),
  form: call({
    path: "/v1/forms/{ref}",
    methods: ["GET"],
    tag: "Forms",
    summary: "Get a published form",
    description: "The latest published definition of a form.",
    answers: publishedForm,
    mediaType: JSON_TYPE,
    key: ofPage("forms"),
    plays: false,
    example: { ref: "become-a-reader" },
  }),
  report: call({
    path: "/v1/reports",
    methods: ["POST"],
    tag: "Forms",
    summary: "Report a wrong or missing address",
    description: "Does not change the data by itself: reports are reviewed in the workbench.",
    asks: reportRequest,
    answers: reportAnswer,
    status: 202,
    mediaType: JSON_TYPE,
    key: lookup("reports"),
    plays: false,
    example: { ref: "qr-hgwrp5", text: "The door is round the corner" },
  }),
  service: call({
    path: "/v1/services/{name}",
    methods: ["POST"],
    tag: "Services",
    summary: "Call an outside service",
    description:
      "Calls a service described in the workbench and returns its values for forms; secrets, URL and the rest of the response stay on the server. If the service is slow, down or refuses, that is an `outcome`, not an error.",
    asks: serviceInputs,
    answers: serviceAnswer,
    mediaType: JSON_TYPE,
    key: lookup("services"),
    plays: "itself",
    example: { name: "courier", town: "Tidewell" },
  }),
  key: call({
    path: "/v1/key",
    methods: ["GET"],
    tag: "Keys",
    summary: "Get the permissions of a key",
    description:
      "The kinds of lookup, countries and limits of the key used. Pages call this once at start, so that a missing permission shows at once.",
    answers: keyAnswer,
    mediaType: JSON_TYPE,
    key: { as: "key", words: "the key itself", counts: "nothing", always: true },
    plays: false,
    example: {},
  }),
  makeBatch: call({
    path: "/v1/batches",
    methods: ["POST"],
    tag: "Batches",
    summary: "Start a batch",
    description:
      "The body is the file, optionally gzipped. Columns are recognised by their names and values, or given as `columns`. Poll the batch until it is done.",
    takes: ["text/csv", GEOJSON, OTHERS.geojsonseq, JSON_TYPE, "application/x-ndjson", "application/gzip"],
    asks: batchRequest,
    answers: batchState,
    status: 202,
    mediaType: JSON_TYPE,
    key: ofServers,
    plays: false,
    example: { name: "Members", ask: "forward" },
  }),
  batch: call({
    path: "/v1/batches/{id}",
    methods: ["GET"],
    tag: "Batches",
    summary: "Get the progress and results of a batch",
    description: "Only with the key that started it.",
    answers: batchState,
    mediaType: JSON_TYPE,
    key: ofServers,
    plays: false,
    example: { id: "1" },
  }),
  batchRows: call({
    path: "/v1/batches/{id}/rows",
    methods: ["GET"],
    tag: "Batches",
    summary: "Download the rows of a batch",
    description: "All rows with their own columns first, then the results; or only rows that are clear or accepted.",
    asks: batchRowsRequest,
    answers: z.string(),
    mediaType: "text/csv",
    forms: { geojson: GEOJSON, gpx: OTHERS.gpx },
    key: ofServers,
    plays: false,
    example: { id: "1" },
  }),
} as const satisfies Record<string, Call>;

export type CallName = keyof typeof CALLS;
/** Kinds of lookup that a key may be kept to. */
export type KeyCall = {
  [N in CallName]: (typeof CALLS)[N]["key"] extends { always: true } ? never : (typeof CALLS)[N]["key"]["as"];
}[CallName];

type Declared<N extends CallName> = (typeof CALLS)[N];
type Many<N extends CallName, Of extends "asks" | "answers"> =
  Declared<N> extends { many: Record<Of, infer S extends z.ZodType> } ? z.output<S> : never;
/** What a call asks, as its schema reads it. */
export type AsksOf<N extends CallName> =
  | (Declared<N> extends { asks: infer S extends z.ZodType } ? z.output<S> : Record<never, never>)
  | Many<N, "asks">;
/** What a call answers. */
export type AnswerOf<N extends CallName> = z.output<Declared<N>["answers"]> | Many<N, "answers">;
/** Names of the parts of a path that are requested. */
export type PathPart<N extends CallName> = PartIn<Declared<N>["path"]>;
/** Calls that play situations. */
export type PlayingCall = { [N in CallName]: Declared<N>["plays"] extends false ? never : N }[CallName];

/** Kinds of lookup, in words. */
export const KEY_CALL_WORDS = Object.fromEntries(
  (Object.values(CALLS) as Call[]).filter(({ key }) => !key.always).map(({ key: { as, words } }) => [as, words]),
) as Readonly<Record<KeyCall, string>>;

const kindsOf = (calls: readonly Call[]) =>
  [...new Set(calls.filter(({ key }) => !key.always).map(({ key }) => key.as))] as [KeyCall, ...KeyCall[]];
export const KEY_CALLS = kindsOf(Object.values(CALLS));
/** Calls that are no lookups: what a page needs to show a form and a map. They count against no amount. */
export const PAGE_CALLS: readonly KeyCall[] = kindsOf(
  Object.values(CALLS).filter(({ key }) => key.counts === "nothing"),
);
