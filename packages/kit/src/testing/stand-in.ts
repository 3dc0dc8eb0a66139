import type {
  CallName,
  CountriesAnswer,
  DistanceAnswer,
  ForwardAnswer,
  HeightAnswer,
  KeyAnswer,
  KeyCall,
  LinkAnswer,
  PostcodesAnswer,
  Problem,
  PublishedForm,
  RecordAnswer,
  ReverseAnswer,
  ServiceAnswer,
  Situation,
  SuggestAnswer,
} from "@bibliotope/wire";
import { Client, type ClientOptions } from "../client/client.ts";
import { PLAYS } from "../client/plays.ts";
import { Records, type StandInRecord } from "./records.ts";

/** A request that was made of a stand-in. */
export interface RecordedRequest {
  call: CallName;
  /** What stood in the path and query string, without the key. */
  words: Readonly<Record<string, string>>;
}

/** What calls answer that a test may write down. */
interface Answers {
  suggest: SuggestAnswer;
  forward: ForwardAnswer;
  reverse: ReverseAnswer;
  record: RecordAnswer;
  postcodes: PostcodesAnswer;
  distance: DistanceAnswer;
  height: HeightAnswer;
  countries: CountriesAnswer;
  form: PublishedForm;
  service: ServiceAnswer;
  key: KeyAnswer;
  link: LinkAnswer;
}

/** An answer that a test has written down: to every request of the call whose words have these values. */
export type Written = {
  [N in keyof Answers]: { call: N; words?: Readonly<Record<string, string>>; answer: Answers[N] | Problem };
}[keyof Answers];

export interface StandInOptions {
  /** What is looked up, where no answer is written down. */
  records?: readonly StandInRecord[];
  /** Outside services, by their names: the values that each answers. */
  services?: Readonly<Record<string, ServiceAnswer["values"]>>;
  /** Answers written down; the last one that fits is taken. */
  answers?: readonly Written[];
  /** What is played from the beginning; see {@link StandIn.plays}. */
  plays?: Situation | "offline";
}

/** An answer as it goes over the wire. */
export interface Answered {
  status: number;
  headers: Record<string, string>;
  body: string;
}

/** As much of a Playwright page as is needed. */
interface RoutablePage {
  route(url: string, handler: (route: Route) => Promise<void>): Promise<unknown>;
}
interface Route {
  request(): { method(): string; url(): string; postData(): string | null };
  fulfill(answer: { status: number; headers: Record<string, string>; body: string }): Promise<void>;
  abort(): Promise<void>;
  fallback(): Promise<void>;
}
/** As much of a request and a response of Node's `http` as is needed. */
interface Incoming extends AsyncIterable<Uint8Array> {
  method?: string;
  url?: string;
}
interface Outgoing {
  writeHead(status: number, headers: Record<string, string>): unknown;
  end(body: string): unknown;
  destroy(): unknown;
}

/** Calls by their paths; parts in braces. */
const PATHS: Readonly<Record<CallName, string>> = {
  suggest: "suggest",
  forward: "forward",
  reverse: "reverse",
  record: "records/{ref}",
  postcodes: "postcodes/{country}",
  distance: "distance",
  height: "height",
  countries: "countries",
  country: "countries/{code}",
  tile: "tiles/features/{z}/{x}/{y}",
  tileHeights: "tiles/heights/{z}/{x}/{y}",
  still: "still",
  form: "forms/{ref}",
  report: "reports",
  service: "services/{name}",
  key: "key",
  link: "links",
  makeBatch: "batches",
  batch: "batches/{id}",
  batchRows: "batches/{id}/rows",
};
const REFUSALS: Readonly<Partial<Record<Situation, [status: number, title: string]>>> = {
  down: [503, "Index not ready"],
  limit: [429, "Too many requests"],
  refused: [403, "Not allowed"],
  malformed: [400, "Invalid request"],
};
/** Kinds of lookup, which a key of tests may all ask for. */
const ALL_CALLS: Readonly<Record<KeyCall, true>> = {
  suggest: true,
  forward: true,
  reverse: true,
  records: true,
  postcodes: true,
  distance: true,
  height: true,
  countries: true,
  tiles: true,
  still: true,
  forms: true,
  reports: true,
  services: true,
  links: true,
  batches: true,
};
/** Situations that are an answer of a service, not of ours. */
const SERVICE_ENDS = ["none", "down", "refused", "malformed"] as const;
const STANDINGS = ["known", "otherwise", "unknown"] as const;
const OPEN = { "access-control-allow-origin": "*", "access-control-allow-headers": "*" };
/** A picture of one pixel. */
const PIXEL = "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='1' height='1'/%3E";

/**
 * A service for tests that ask no network: it answers from records or answers that a test writes down, plays every situation,
 * waits for nothing, and keeps what it was requested.
 */
export class StandIn {
  /** All that it was requested, in order. */
  readonly requests: RecordedRequest[] = [];
  readonly #records: Records;
  readonly #services: NonNullable<StandInOptions["services"]>;
  readonly #written: Written[];
  #plays: Situation | "offline" | undefined;
  /** Those that wait for `release`, while `slow` is played. */
  #delayed: (() => void)[] = [];

  constructor({ records = [], services = {}, answers = [], plays }: StandInOptions = {}) {
    this.#records = new Records(records);
    this.#services = services;
    this.#written = [...answers];
    this.#plays = plays;
  }

  /** A client that asks this one; all else of it is as ever. */
  client(options: Partial<ClientOptions> = {}): Client {
    return new Client({
      key: "bt_try_stand-in",
      url: "https://stand-in.invalid",
      retries: 0,
      ...options,
      fetch: this.fetch,
    });
  }

  /** Writes one more answer down. */
  answers(written: Written): void {
    this.#written.push(written);
  }

  /** Plays a situation from now on, or none. `slow` keeps answers back until {@link StandIn.release}. */
  plays(situation?: Situation | "offline"): void {
    this.#plays = situation;
  }

  /** Lets go what `slow` has kept back. */
  release(): void {
    for (const go of this.#delayed.splice(0)) go();
  }

  /** In place of the browser's own. */
  readonly fetch = async (url: string, init: RequestInit = {}): Promise<Response> => {
    const answered = await this.answer(init.method ?? "GET", url, init.body as string | undefined);
    init.signal?.throwIfAborted();
    if (!answered) throw new TypeError("played: off-line");
    return new Response(answered.body, { status: answered.status, headers: answered.headers });
  };

  /**
   * Answers whatever calls a page of Playwright makes of the service; what else is asked there goes its way.
   * @param url pattern of the addresses
   */
  async route(page: RoutablePage, url = "**/v1/**"): Promise<void> {
    await page.route(url, async (route) => {
      const request = route.request();
      if (!recordRequest(request.url(), undefined)) return route.fallback();
      const answered = await this.answer(request.method(), request.url(), request.postData() ?? undefined);
      await (answered ? route.fulfill(answered) : route.abort());
    });
  }

  /** Answers over HTTP, for a back end under test: `createServer(stands.listener)`. */
  readonly listener = async (request: Incoming, response: Outgoing): Promise<void> => {
    const decoder = new TextDecoder();
    let body = "";
    for await (const chunk of request) body += decoder.decode(chunk, { stream: true });
    const answered = await this.answer(request.method ?? "GET", request.url ?? "/", body || undefined);
    if (!answered) return void response.destroy();
    response.writeHead(answered.status, answered.headers);
    response.end(answered.body);
  };

  /** Answers one request; nothing where there is no network to be. */
  async answer(method: string, url: string, body?: string): Promise<Answered | undefined> {
    if (method === "OPTIONS") return { status: 204, headers: OPEN, body: "" };
    const recorded = recordRequest(url, body);
    if (!recorded) return problem(404, "Not found", `A stand-in knows no ${url}.`);
    // what a key may is no lookup
    if (recorded.call !== "key") this.requests.push(recorded);
    const played = recorded.call in PLAYS ? this.#plays : undefined;
    if (played === "offline") return undefined;
    if (played === "slow") await new Promise<void>((resolve) => this.#delayed.push(resolve));
    const ended = recorded.call === "service" && played && SERVICE_ENDS.find((one) => one === played);
    const refusal = played && !ended && REFUSALS[played];
    if (refusal) return problem(...refusal, `This is the situation “${played}”.`);
    const answer = ended
      ? this.#service(recorded.words.name, ended)
      : (this.#writtenFor(recorded) ?? this.#found(recorded));
    if (answer === undefined) return problem(404, "Not found", "No record of the test has this ref.");
    if (isProblem(answer)) return problem(answer.status, answer.title, answer.detail);
    const headers = { ...OPEN, "content-type": recorded.call === "still" ? "image/svg+xml" : "application/json" };
    const text = recorded.call === "still" ? decodeURIComponent(PIXEL.slice(PIXEL.indexOf(",") + 1)) : undefined;
    return { status: 200, headers, body: text ?? JSON.stringify(playedOn(answer, played)) };
  }

  #writtenFor({ call, words }: RecordedRequest): unknown {
    const fits = (one: Written) =>
      one.call === call && Object.entries(one.words ?? {}).every(([word, value]) => words[word] === value);
    return this.#written.findLast(fits)?.answer;
  }

  #service(name: string, outcome: ServiceAnswer["outcome"] = "answered"): ServiceAnswer | undefined {
    const values = Object.hasOwn(this.#services, name) ? this.#services[name] : undefined;
    if (!values) return undefined;
    const none = Object.entries(values).map(([value, known]) => [value, typeof known === "string" ? "" : []]);
    const answered = outcome === "answered";
    const standing = STANDINGS.find((one) => one === values.standing);
    return {
      ...{ service: name, outcome, values: answered ? values : Object.fromEntries(none), took: 0, kept: false },
      ...(answered && standing ? { standing } : {}),
    };
  }

  #found({ call, words }: RecordedRequest): unknown {
    switch (call) {
      case "suggest":
      case "forward":
      case "reverse":
      case "postcodes":
        return this.#records[call](words);
      case "service":
        return this.#service(words.name);
      case "record":
        return this.#records.record(words.ref);
      case "distance":
        return { metres: 0 };
      case "height":
        return { metres: null, source: [] };
      case "countries":
        return { countries: [], source: [] };
      case "key":
        return {
          kind: "try",
          calls: Object.keys(ALL_CALLS),
          countries: [],
          endsAt: null,
          perMinute: null,
          perDay: null,
        };
      case "link":
        return { url: "https://stand-in.invalid/p/link", endsAt: "2030-01-01T00:00:00Z" };
      case "tile":
        return { type: "FeatureCollection", features: [] };
      case "tileHeights":
        return { columns: 0, rows: 0, metres: [] };
      case "report":
        return { received: true };
      case "still":
        return PIXEL;
      default:
        return undefined;
    }
  }
}

const PATTERNS = (Object.entries(PATHS) as [CallName, string][]).map(
  ([call, path]) => [call, new RegExp(`/v1/${path.replace(/\{(\w+)\}/g, "(?<$1>[^/]+)")}$`)] as const,
);

/** Which call a request is, and its words. */
function recordRequest(url: string, body: string | undefined): RecordedRequest | undefined {
  const { pathname, searchParams } = new URL(url, "https://stand-in.invalid");
  for (const [call, pattern] of PATTERNS) {
    const found = pattern.exec(pathname);
    if (!found) continue;
    const inPath = Object.entries(found.groups ?? {}).map(([part, value]) => [part, decodeURIComponent(value)]);
    const { access_token: _, situation: __, ...words } = Object.fromEntries(searchParams);
    const inBody = body ? Object.entries(JSON.parse(body)).map(([word, value]) => [word, textOf(value)]) : [];
    return { call, words: { ...words, ...Object.fromEntries([...inPath, ...inBody]) } };
  }
  return undefined;
}

const textOf = (value: unknown) => (typeof value === "string" ? value : JSON.stringify(value));
const isProblem = (answer: unknown): answer is Problem =>
  typeof answer === "object" && answer !== null && "status" in answer && "detail" in answer;

function problem(status: number, title: string, detail: string): Answered {
  const headers = { ...OPEN, "content-type": "application/problem+json" };
  return { status, headers, body: JSON.stringify({ type: "/problems/played", title, status, detail }) };
}

/** An answer as a situation has it: nothing found, something that differs, several. */
function playedOn(answer: unknown, played: Situation | undefined): unknown {
  if (!played || typeof answer !== "object" || answer === null || !("outcome" in answer)) return answer;
  const advice = [`This is the situation “${played}”.`];
  if (played === "none") return { ...answer, outcome: "none", advice, ...emptied(answer) };
  if (!("features" in answer) || !Array.isArray(answer.features) || !answer.features.length) return answer;
  const [first] = answer.features;
  if (played === "several") {
    const other = { ...first, id: `${first.id.slice(0, -1)}0` };
    return { ...answer, outcome: "ambiguous", features: answer.features.length > 1 ? answer.features : [first, other] };
  }
  if (played !== "differs") return answer;
  const [part = "house", { name: known = "" } = {}] = (Object.entries(first.properties.parts)[0] ?? []) as [
    string?,
    { name?: string }?,
  ];
  const differences = [{ part, written: `${known}b`, held: known, how: "nearby" }];
  const differing = { ...first, properties: { ...first.properties, differences } };
  return { ...answer, outcome: "differs", advice, features: [differing] };
}

const emptied = (answer: object) => ({
  ...("features" in answer ? { features: [] } : {}),
  ...("suggestions" in answer ? { suggestions: [] } : {}),
});
