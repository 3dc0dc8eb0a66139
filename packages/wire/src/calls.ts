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
  linkAsking,
  postcodesAsking,
  RECORD_FORMATS,
  recordAsking,
  reverseAsking,
  stillAsking,
  suggestAsking,
} from "./asking.ts";
import { batchAsking, batchRowsAsking, batchState } from "./batches.ts";
import { type Call, call, type KeyKind, type PartIn } from "./call.ts";
import { reportAnswer, reportAsking } from "./corrections.ts";
import { publishedForm } from "./form.ts";
import { keyAnswer } from "./key.ts";
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
    summary: "Lines to choose from while typing",
    description:
      "Lines that the text so far may become, the likeliest first, each with where the letters that were typed stand in it. Where a line has `more`, ask again with `inside` for its numbers or units.",
    asks: suggestAsking,
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
    summary: "Candidates for an address, best first",
    description:
      "Takes an address as free text in `q`, by parts, or both. Says how it ended: one record fits, one is near and something differs, several fit, or none does; and of each candidate what of the text it does not have.",
    asks: forwardAsking,
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
    summary: "The nearest address, then the areas around",
    description: "What is at a position: the nearest address within `radius` metres, and every area that it lies in.",
    asks: reverseAsking,
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
    summary: "One record by its ref",
    description:
      "A ref stays with its record over all versions of the data. One that was withdrawn is 410, with the ref in its place where there is one.",
    asks: recordAsking,
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
    summary: "The postcodes of a country that begin with some letters, and what they cover",
    description:
      "Postcodes in their order, each with the streets and towns that it covers, and how many there are in all.",
    asks: postcodesAsking,
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
    summary: "How far it is from one position to another, and which way",
    description: "Along the ellipsoid of WGS 84, in a straight line: no way over land is meant.",
    asks: distanceAsking,
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
    summary: "How high the ground lies",
    description:
      "At one position by GET, at many by POST: metres above the sea, between the points of the grid that is held; null outside it.",
    asks: heightAsking,
    answers: heightAnswer,
    many: { asks: heightsAsking, answers: heightsAnswer },
    mediaType: JSON_TYPE,
    key: lookup("height", "heights"),
    plays: true,
    example: { at: "-35.1841,-21.6253" },
  }),
  countries: call({
    path: "/v1/countries",
    methods: ["GET"],
    tag: "Countries",
    summary: "The countries held, each with its profile",
    description:
      "How the addresses of each country are written, what their parts are called, and which postcodes it has.",
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
    summary: "The profile of one country",
    description: "The same of one country, by its two letters (ISO 3166).",
    answers: countryAnswer,
    mediaType: JSON_TYPE,
    key: ofPage("countries"),
    plays: false,
    example: { code: "QR" },
  }),
  sheet: call({
    path: "/v1/sheets/features/{z}/{x}/{y}",
    methods: ["GET"],
    tag: "Map",
    summary: "Map features of a tile",
    description: "Numbered as OGC's WebMercatorQuad; zooms 0 to 20.",
    answers: sheetAnswer,
    mediaType: GEOJSON,
    key: ofPage("sheets", "map"),
    plays: false,
    example: { z: "9", x: "225", y: "305" },
  }),
  sheetHeights: call({
    path: "/v1/sheets/heights/{z}/{x}/{y}",
    methods: ["GET"],
    tag: "Map",
    summary: "Heights of a tile's ground on a grid",
    description: "Numbered as OGC's WebMercatorQuad; zooms 0 to 20.",
    answers: sheetHeightsAnswer,
    mediaType: JSON_TYPE,
    key: ofPage("sheets", "map"),
    plays: false,
    example: { z: "9", x: "225", y: "305" },
  }),
  still: call({
    path: "/v1/still",
    methods: ["GET", "POST"],
    tag: "Map",
    summary: "A picture of the map with markers and lines",
    description: "A PNG around a position, a record, markers or a line, for pages without script, prints and mails.",
    asks: stillAsking,
    answers: stillAnswer,
    mediaType: "image/png",
    key: { as: "still", words: "pictures", counts: "picture" },
    plays: false,
    example: { at: "-35.1841,-21.6253", size: "300x200" },
  }),
  link: call({
    path: "/v1/links",
    methods: ["GET", "POST"],
    tag: "Map",
    summary: "A link that shows one place without a key",
    description:
      "Signed, and ended after some hours: a page of the place with its card, its map and the way there, or a picture of it alone, for chats, mails and printed sheets. Nothing else can be asked with it, and it is withdrawn with the key that made it.",
    asks: linkAsking,
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
    summary: "A published form definition",
    description: "The definition of a form as it was published last.",
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
    summary: "A wrong or missing address, reported by somebody who uses a form",
    description: "Changes nothing by itself: people of the workbench decide what becomes of it.",
    asks: reportAsking,
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
    summary: "Asks an outside service, and answers what of it forms may use",
    description:
      "The service is described in the workbench; its secrets, its address and what else it answered stay there. The answer says how it ended: a service that is slow, down or refuses is an `outcome`, no error.",
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
    summary: "What the key that asks may be used for",
    description:
      "Every kind of lookup that the key may ask for, its countries and its limits. A page asks this once at its start, so that a key that lacks something shows at once.",
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
    summary: "Many lookups at once: a file in",
    description:
      "The body is the file, also gzipped. Its columns are found out by heads and values, or named by `columns`. Ask for the batch until it is done.",
    takes: ["text/csv", GEOJSON, OTHERS.geojsonseq, "application/gzip"],
    asks: batchAsking,
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
    summary: "How far a batch is, and what came of its rows",
    description: "By the key that made it.",
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
    summary: "The rows of a batch, their own columns first, then what was found",
    description: "All rows, or those alone that are clear or that a person has decided.",
    asks: batchRowsAsking,
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
/** Names of the parts of a path that are asked for. */
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
