import {
  differencesIn,
  EXACTNESS_WORDS,
  type FormAnswer,
  type FormDefinition,
  fillableFields,
  isBelow,
  isOnlyUnit,
  officialAnswer,
  questionOf,
  registersOf,
  ruleOf,
  serviceInputs,
  shownAddresses,
  startingField,
  statingFields,
  storedPosition,
  type Values,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { Difference } from "@bibliotope/core/place";
import type { Problem, RecordFeature, RecordProperties, ServiceAnswer } from "@bibliotope/wire";
import type { Client, Params } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";

/**
 * Why an address of a body has no place: something that was written is not so in the likeliest record, or it is not as
 * exact as was requested; several records fit; none does, or nothing was written; the service did not answer.
 */
export type NoPlace = "differs" | "several" | "none" | "unsure";

/**
 * What came of looking up the address of a body. There is nothing to store in it before `ok` was looked at: without a
 * place it holds the problem that the form can show.
 */
export type Place =
  | {
      ok: true;
      why: "same";
      /** Ref of the record; empty for a position that the form lets be anywhere. */
      ref: string;
      /** WGS 84 degrees. */
      at: Position;
      line: string;
      exactness: RecordProperties["exactness"];
      parts: RecordProperties["parts"];
      /** None for a position that the form lets be anywhere. */
      record?: RecordFeature;
      /** The form's register's answer, where it was requested and covers the country. */
      register?: Registered;
    }
  | {
      ok: false;
      why: NoPlace;
      /** For the answer to the form: `application/problem+json` (RFC 9457), with its `status`. */
      problem: Problem;
      /** What could be meant, where several fit. */
      candidates: readonly RecordFeature[];
      /** What was written and is not so in the first of them. */
      differences: readonly Difference[];
      /** True when the same body may have a place later. */
      again: boolean;
      /** True when the user chose to keep what they typed: it may be stored, without a position. */
      isTyped: boolean;
    };

/** The address of a body: as its form has it, or as text or parts. */
export type BodyAddress =
  | { definition: FormDefinition; values: Values; address?: string }
  | { q: string; field?: string }
  | { parts: Record<string, string>; field?: string };

/** What a register has said. */
export interface Registered {
  /** Name of the service. */
  service: string;
  /** Known, known in another form, or not known; none where it did not answer. */
  standing?: ServiceAnswer["standing"];
  values: ServiceAnswer["values"];
}

export interface PlaceOptions {
  /**
   * Asks the register that the form confirms the address by: an address that was taken in the form is the record's too. One that does
   * not answer holds nothing up.
   */
  register?: boolean;
  /** The least exactness that will do; what the form asks for when not given, else any. */
  exactness?: RecordProperties["exactness"];
  /** Narrowing, such as `{ countries: "QR" }`. */
  narrow?: Params;
  signal?: AbortSignal;
}

/** What is stored of a place; of an address that was only typed, that it is no more than that. */
export type StoredPlace =
  | {
      ref: string;
      line: string;
      exactness: RecordProperties["exactness"];
      lat: number;
      lon: number;
      register?: Registered;
    }
  /** A position that the form lets be anywhere, as it was sent. */
  | { lat: number; lon: number }
  | { typed: true };

/** The places of all addresses of a body that people see, by their name; `place` for the first. */
export type Places = { ok: true; places: Record<string, StoredPlace> } | { ok: false; problem: Problem };

/** Candidates that are listed for an ambiguous address. */
const MOST_CANDIDATES = 5;

/**
 * Turns the address of a body into a place, before a record is stored. It believes what the fields say, then the ref
 * that was sent with them, then the text of the search field; position and exactness come from the record, never from
 * the body, but for an address that the form lets be anywhere: its position is what was sent. Never throws for what an address or a service can do wrong.
 *
 * @example
 * const place = await placeOf(client, { definition, values: request.body });
 * if (!place.ok) return response.status(place.problem.status).type("application/problem+json").json(place.problem);
 * await store({ values: request.body, lat: place.at.lat, lon: place.at.lon });
 */
export async function placeOf(client: Client, body: BodyAddress, options: PlaceOptions = {}): Promise<Place> {
  const field = fieldOf(body);
  const isTyped = "definition" in body && saysTyped(body);
  if ("definition" in body && ruleOf(body.definition, body.address ?? "").anywhere) {
    const at = storedPosition(body.definition, body.values, body.address);
    if (at) return { ok: true, why: "same", ref: "", at, line: "", exactness: "surveyed", parts: {} };
    return no("none", field, "The position is missing.", { title: "The position is missing" });
  }
  try {
    const found = await lookUp(client, body, options);
    if (!found) return no("none", field, "The address is missing.", { title: "The address is missing" });
    const { why, candidates, differences } = found;
    if (why === "several")
      return no(why, field, `${candidates.length} addresses match. Choose one of them.`, { candidates, isTyped });
    if (why === "differs") return no(why, field, differencesWords(differences), { candidates, differences, isTyped });
    const [record] = candidates;
    if (!record) return no("none", field, ["No such address is known.", ...found.advice].join(" "), { isTyped });
    const { at, line, exactness, parts } = record.properties;
    const register = found.register ?? (await registerOf(client, body, record, options));
    const least =
      options.exactness ?? ("definition" in body ? ruleOf(body.definition, body.address ?? "").exactness : undefined);
    if (least && isBelow({ name: "", exactness: least }, exactness))
      return no("differs", field, `The address is only known ${EXACTNESS_WORDS[exactness]}. Give the house too.`, {
        title: "The address is not exact enough",
        candidates,
        isTyped,
      });
    const confirmed = register ? { register } : {};
    return { ok: true, why: "same", ref: record.id, at, line, exactness, parts, record, ...confirmed };
  } catch (error) {
    if (!(error instanceof LookupError)) throw error;
    return no("unsure", field, UNSURE[error.again ? "again" : "never"], { again: error.again, isTyped });
  }
}

/**
 * The places of all addresses of a form that people see, with the current values. What people asked to be taken as they typed
 * it is stored without a position.
 *
 * @example
 * const places = await placesOf(client, { definition, values: request.body });
 * if (!places.ok) return response.status(places.problem.status).type("application/problem+json").json(places.problem);
 * await store({ values: request.body, places: places.places });
 */
export async function placesOf(
  client: Client,
  { definition, values }: { definition: FormDefinition; values: Values },
  options: PlaceOptions = {},
): Promise<Places> {
  const places: Record<string, StoredPlace> = {};
  for (const address of shownAddresses(definition, values)) {
    const place = await placeOf(client, { definition, values, address }, options);
    if (place.ok) {
      const { ref, line, exactness, at, register } = place;
      const confirmed = register ? { register } : {};
      places[address || "place"] = ref ? { ref, line, exactness, lat: at.lat, lon: at.lon, ...confirmed } : { ...at };
    } else if (place.isTyped) places[address || "place"] = { typed: true };
    else return { ok: false, problem: place.problem };
  }
  return { ok: true, places };
}

interface Looked {
  why?: "several" | "differs";
  candidates: readonly RecordFeature[];
  differences: readonly Difference[];
  advice: readonly string[];
  register?: Registered;
}

/** @returns undefined when nothing was written */
async function lookUp(client: Client, body: BodyAddress, options: PlaceOptions): Promise<Looked | undefined> {
  if (!("definition" in body)) {
    const params = "q" in body ? { q: body.q } : body.parts;
    if (!Object.values(params).some((text) => text.trim())) return undefined;
    return lookUpFields(client, params, options);
  }
  const { definition, values, address = "" } = body;
  const record = await recordOf(client, body, options);
  const isStated = statingFields(definition, address).some(({ name }) => values[name]?.trim());
  if (record && (!isStated || !differencesIn(definition, values, answerOf(record), address).length))
    return { candidates: [record], differences: [], advice: [] };
  const register = record && (await registerOf(client, body, record, options));
  // the person took the register's form of the same record
  if (record && register?.standing === "otherwise") {
    const { answer } = officialAnswer(answerOf(record), register.values);
    if (!differencesIn(definition, values, answer, address).length)
      return { candidates: [record], differences: [], advice: [], register };
  }
  const question = questionOf(definition, isStated ? withoutSearch(definition, values, address) : values, address);
  if (!question) return undefined;
  const { q, parts, country } = question;
  const request = { ...(q === undefined ? parts : { q }), ...(country ? { countries: country } : {}) };
  return lookUpFields(client, { ...ruled(definition, address), ...request }, options);
}

async function lookUpFields(client: Client, params: Params, options: PlaceOptions): Promise<Looked> {
  const { outcome, features, advice } = await client.forward(
    { ...params, ...options.narrow, limit: MOST_CANDIDATES },
    options.signal,
  );
  const differences = (features[0]?.properties.differences ?? []).filter((one) => !isOnlyUnit(one));
  if (outcome === "ambiguous" && features.length > 1)
    return { why: "several", candidates: features, differences, advice };
  if (outcome === "differs" || differences.length)
    return { why: "differs", candidates: features.slice(0, 1), differences, advice };
  return { candidates: outcome === "none" ? [] : features.slice(0, 1), differences: [], advice };
}

/** The record whose ref a body holds; undefined when there is none, or none any more. */
async function recordOf(
  client: Client,
  { definition, values, address = "" }: { definition: FormDefinition; values: Values; address?: string },
  options: PlaceOptions,
): Promise<RecordFeature | undefined> {
  const ref = boundValue(definition, values, address, "{ref}");
  if (!ref) return undefined;
  try {
    return await client.record(ref, {}, options.signal);
  } catch (error) {
    // a ref that is no longer there: what is in the fields is still requested
    if (error instanceof LookupError && error.trouble === "missing") return undefined;
    throw error;
  }
}

/** What the first of a form's registers that covers a record's country answers; undefined where none does. */
async function registerOf(
  client: Client,
  body: BodyAddress,
  record: RecordFeature,
  { register, signal }: PlaceOptions,
): Promise<Registered | undefined> {
  if (!register || !("definition" in body)) return undefined;
  const { definition, values, address = "" } = body;
  for (const rule of registersOf(definition, address)) {
    try {
      const inputs = serviceInputs(rule, values, answerOf(record));
      const { standing, values: said, outcome } = await client.ask(rule.ask, inputs, signal);
      if (outcome === "outside") continue;
      return { service: rule.ask, ...(standing ? { standing } : {}), values: outcome === "answered" ? said : {} };
    } catch (error) {
      if (error instanceof LookupError) return { service: rule.ask, values: {} };
      throw error;
    }
  }
  return undefined;
}

/** True when a body states that the person wants what they typed. */
function saysTyped({
  definition,
  values,
  address = "",
}: {
  definition: FormDefinition;
  values: Values;
  address?: string;
}) {
  return (
    boundValue(definition, values, address, "{confirmed}") === "no" && !boundValue(definition, values, address, "{ref}")
  );
}

function boundValue(definition: FormDefinition, values: Values, address: string, binding: string): string | undefined {
  const found = fillableFields(definition, address).find((field) => field.binding?.trim() === binding);
  return found && values[found.name]?.trim();
}

/** What a form narrows the lookups of an address to. */
function ruled(definition: FormDefinition, address: string): Params {
  const { kinds, countries } = ruleOf(definition, address);
  return {
    ...(kinds?.length ? { kinds: kinds.join(",") } : {}),
    ...(countries?.length ? { countries: countries.join(",") } : {}),
  };
}

function withoutSearch(definition: FormDefinition, values: Values, address: string): Values {
  const stating = new Set(statingFields(definition, address).map(({ name }) => name));
  const searches = definition.fields.filter(({ kind, name }) => kind === "search" && !stating.has(name));
  return { ...values, ...Object.fromEntries(searches.map(({ name }) => [name, ""])) };
}

const answerOf = ({ id, properties }: RecordFeature): FormAnswer => ({ ref: id, ...properties }) as FormAnswer;

/** The field that a problem is shown at. */
function fieldOf(body: BodyAddress): string {
  if ("definition" in body) return startingField(body.definition, body.address ?? "") ?? "address";
  return body.field ?? "address";
}

const TITLES: Readonly<Record<NoPlace, string>> = {
  differs: "The address needs checking",
  several: "Several addresses match",
  none: "The address is not known",
  unsure: "The address could not be looked up",
};

const UNSURE = {
  again: "The address could not be looked up, so nothing was stored. Try again in a moment.",
  never: "The address could not be looked up, so nothing was stored. Please tell whoever runs this page.",
} as const;

const differencesWords = (differences: readonly Difference[]) =>
  differences
    .map(({ written, held: known }) =>
      known === undefined ? `“${written}” is not known here.` : `“${written}” is not known here, but “${known}” is.`,
    )
    .join(" ");

interface NoMore {
  title?: string;
  candidates?: readonly RecordFeature[];
  differences?: readonly Difference[];
  again?: boolean;
  isTyped?: boolean;
}

function no(why: NoPlace, field: string, detail: string, more: NoMore = {}) {
  const { title = TITLES[why], candidates = [], differences = [], again = false, isTyped = false } = more;
  const status = why !== "unsure" ? 422 : again ? 503 : 500;
  const listed = candidates.length > 1 ? ` ${candidates.map(({ properties }) => properties.line).join("; ")}.` : "";
  const issues = [{ parameter: field, message: `${detail}${listed}` }];
  const problem: Problem = { type: "about:blank", title, status, detail, issues };
  return { ok: false as const, why, problem, candidates, differences, again, isTyped };
}
