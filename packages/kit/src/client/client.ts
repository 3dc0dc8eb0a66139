import { type Position, roundDegrees } from "@bibliotope/core/geo";
import type {
  AnswerOf,
  CallName,
  CountriesAnswer,
  DistanceAnswer,
  ForwardAnswer,
  HeightAnswer,
  KeyAnswer,
  LinkAnswer,
  PlayingCall,
  PostcodesAnswer,
  Problem,
  PublishedForm,
  RecordAnswer,
  ReportRequest,
  ReverseAnswer,
  ServiceAnswer,
  Situation,
  SuggestAnswer,
  TileHeightsAnswer,
} from "@bibliotope/wire";
import type { Tracer } from "../trace.ts";
import { errorOf, LookupError, unreachable } from "./errors.ts";
import { Flights } from "./flights.ts";
import { PLAYS } from "./plays.ts";

export interface ClientOptions {
  /** A web key in a page (`bt_web_…`), a server key on a server (`bt_srv_…`). */
  key: string;
  /** Where the service is; the page's own origin when not given. */
  url?: string;
  /** Milliseconds after which a lookup is given up; 8000 when not given. */
  timeout?: number;
  /** How often a lookup is tried again that was not answered, for a fault that may pass; twice when not given. */
  retries?: number;
  /** Milliseconds for which an answer is kept for the same question; half a minute when not given, 0 for never. */
  keep?: number;
  /** What a try key (`bt_try_…`) asks to be played, so that a form can be seen in it; `offline` asks nothing at all. */
  situation?: Situation | "offline";
  /** Calls that are played; all that can be when not given. */
  plays?: readonly PlayingCall[];
  /** Hears of every request and answer. */
  trace?: Tracer;
  /** Asks in place of the browser's own `fetch`. */
  fetch?: (url: string, init?: RequestInit) => Promise<Response>;
}

/** Words of a lookup, as they stand in the query string. Undefined ones are left out. */
export type Params = Record<string, string | number | undefined>;

/** Milliseconds before the first retry; each next one waits twice as long. */
const PAUSE = 250;
/** A service that wants to be left alone for longer than these milliseconds is not requested again by itself. */
const LONGEST_PAUSE = 2000;
const KEEP = 30_000;
/** A service has a time limit of its own; that is waited for. */
const SERVICE_TIMEOUT = 32_000;

/** Asks the wire. Throws {@link LookupError} when there is no answer; an empty list is an answer. */
export class Client {
  readonly #base: string;
  readonly #flights: Flights;
  #count = 0;

  constructor(readonly options: ClientOptions) {
    this.#base = options.url?.replace(/\/$/, "") ?? (typeof location === "undefined" ? "" : location.origin);
    // what is played must come each time
    this.#flights = new Flights(options.situation ? 0 : (options.keep ?? KEEP));
  }

  /** Lines to choose from while typing. @param params narrowing, such as `{ countries: "QR", limit: 5 }` */
  suggest(q: string, params: Params = {}, signal?: AbortSignal): Promise<SuggestAnswer> {
    return this.#get("suggest", "/v1/suggest", { q, ...params }, signal);
  }

  /** Candidates for an address as free text, or by parts, best first. */
  forward(params: Params, signal?: AbortSignal): Promise<ForwardAnswer> {
    return this.#get("forward", "/v1/forward", params, signal);
  }

  /** The nearest address and the areas around a position. */
  reverse(at: Position, params: Params = {}, signal?: AbortSignal): Promise<ReverseAnswer> {
    return this.#get("reverse", "/v1/reverse", { at: positionText(at), ...params }, signal);
  }

  /** One record by ref. @param params such as `{ facts: "phone,openingHours" }` */
  record(ref: string, params: Params = {}, signal?: AbortSignal): Promise<RecordAnswer> {
    return this.#get("record", `/v1/records/${encodeURIComponent(ref)}`, params, signal);
  }

  /** The postcodes of a country that begin with some characters. */
  postcodes(country: string, params: Params, signal?: AbortSignal): Promise<PostcodesAnswer> {
    return this.#get("postcodes", `/v1/postcodes/${encodeURIComponent(country)}`, params, signal);
  }

  /** How far it is from one position to another, in metres, and which way, in degrees. */
  distance(from: Position, to: Position, signal?: AbortSignal): Promise<DistanceAnswer> {
    return this.#get("distance", "/v1/distance", { from: positionText(from), to: positionText(to) }, signal);
  }

  /** The countries with data, each with the profile. */
  countries(signal?: AbortSignal): Promise<CountriesAnswer> {
    return this.#get("countries", "/v1/countries", {}, signal);
  }

  /**
   * A link that shows one place to whoever has it, without a key.
   * @param params such as `{ of: ref, hours: 48 }`, or `{ of: ref, shows: "still" }` for a picture in a mail
   */
  link(params: Params, signal?: AbortSignal): Promise<LinkAnswer> {
    return this.#get("link", "/v1/links", params, signal);
  }

  /** What this client's key may be used for. */
  key(signal?: AbortSignal): Promise<KeyAnswer> {
    return this.#get("key", "/v1/key", {}, signal);
  }

  /** A published form. */
  form(ref: string, signal?: AbortSignal): Promise<PublishedForm> {
    return this.#get("form", `/v1/forms/${encodeURIComponent(ref)}`, {}, signal);
  }

  /**
   * Asks an outside service that is described in the workbench. How it went is its `outcome`: a service that is slow, down or refuses
   * is no error.
   * @param inputs a text for each of the inputs, such as `{ town: "Tidewell" }`
   */
  ask(service: string, inputs: Readonly<Record<string, string>>, signal?: AbortSignal): Promise<ServiceAnswer> {
    const path = `/v1/services/${encodeURIComponent(service)}`;
    // what may change something there is asked as often as it is meant, and no answer to it is kept here
    return this.#try("service", path, inputs, signal ?? new AbortController().signal);
  }

  /**
   * Reports a wrong or missing address, in the person's words; people decide what becomes of it.
   * @param report such as `{ ref, text: "The door is round the corner" }`
   * @throws LookupError
   */
  async report(report: ReportRequest): Promise<void> {
    const response = await this.#fetch(this.#url("/v1/reports", {}), {
      method: "POST",
      headers: { "Content-Type": "application/json", ...this.#secret },
      body: JSON.stringify(report),
    }).catch(() => {
      throw unreachable("offline");
    });
    if (!response.ok)
      throw errorOf(response.status, (await response.json().catch(() => undefined)) as Problem | undefined);
  }

  /** The absolute URL of a map tile's features, for a worker that fetches it itself. */
  tileUrl(z: number, x: number, y: number): string {
    return this.#url(`/v1/tiles/features/${z}/${x}/${y}`, {});
  }

  /** How high the ground lies, in metres above the sea; null outside the data. */
  height(at: Position, signal?: AbortSignal): Promise<HeightAnswer> {
    return this.#get("height", "/v1/height", { at: positionText(at) }, signal) as Promise<HeightAnswer>;
  }

  /** Heights of a map tile's ground on a grid. */
  tileHeights({ z, x, y }: { z: number; x: number; y: number }, signal?: AbortSignal): Promise<TileHeightsAnswer> {
    return this.#get("tileHeights", `/v1/tiles/heights/${z}/${x}/${y}`, {}, signal);
  }

  /**
   * The absolute URL of a picture of the map, for an `<img crossorigin="anonymous">`.
   * @param params such as `{ of: ref, width: 300, height: 200, density: 2 }`
   */
  stillUrl(params: Params): string {
    return this.#url("/v1/still", params);
  }

  #get<N extends CallName>(call: N, path: string, params: Params, signal?: AbortSignal): Promise<AnswerOf<N>> {
    const key = this.#url(path, params);
    return this.#flights.ask(key, (flight) => this.#try(call, path, params, flight), signal);
  }

  /** Asks, and asks again after a fault that may pass. What is typed on is not: the next letter asks anyway. */
  async #try<N extends CallName>(call: N, path: string, params: Params, signal: AbortSignal): Promise<AnswerOf<N>> {
    const retries =
      call === "suggest" || call === "service" || this.options.situation === "offline"
        ? 0
        : (this.options.retries ?? 2);
    for (let tried = 0; ; tried++) {
      try {
        return await this.#once(call, path, params, signal);
      } catch (error) {
        if (!(error instanceof LookupError) || !error.again || error.trouble === "slow" || tried >= retries)
          throw error;
        const pause = error.after ?? PAUSE * 2 ** tried * (0.75 + Math.random() / 2);
        if (pause > LONGEST_PAUSE) throw error;
        await new Promise((resolve) => setTimeout(resolve, pause));
        signal.throwIfAborted();
      }
    }
  }

  async #once<N extends CallName>(call: N, path: string, params: Params, signal: AbortSignal): Promise<AnswerOf<N>> {
    const { timeout = call === "service" ? SERVICE_TIMEOUT : 8000 } = this.options;
    // what a key may is asked before anything happens
    const trace = call === "key" ? undefined : this.options.trace;
    const id = ++this.#count;
    const limit = AbortSignal.timeout(timeout);
    trace?.({ row: "requests", id, at: performance.now(), call, params: textOf(params, path) });
    try {
      const situation = this.#situationOf(call);
      if (situation === "offline") throw new TypeError("played: off-line");
      const played = situation ? { situation } : {};
      // what may change something there is asked by POST
      const isPost = call === "service";
      const response = await this.#fetch(this.#url(path, isPost ? played : { ...params, ...played }), {
        signal: AbortSignal.any([signal, limit]),
        headers: { ...this.#secret, ...(isPost ? { "Content-Type": "application/json" } : {}) },
        ...(isPost ? { method: "POST", body: JSON.stringify(params) } : {}),
      });
      const answer: unknown = await response.json().catch(() => undefined);
      trace?.({ row: "answered", id, at: performance.now(), status: response.status, answer });
      if (!response.ok)
        throw errorOf(response.status, answer as Problem | undefined, pauseOf(response.headers.get("Retry-After")));
      if (answer === undefined) throw errorOf(502, undefined);
      return answer as AnswerOf<N>;
    } catch (error) {
      if (signal.aborted) {
        trace?.({ row: "dropped", id, at: performance.now() });
        throw error;
      }
      if (error instanceof DOMException || error instanceof TypeError) {
        trace?.({ row: "answered", id, at: performance.now(), status: 0, answer: String(error) });
        throw unreachable(limit.aborted ? "slow" : "offline");
      }
      throw error;
    }
  }

  /** What is played for a call. */
  #situationOf(call: CallName): ClientOptions["situation"] {
    const { situation, plays } = this.options;
    return Object.hasOwn(PLAYS, call) && (!plays || plays.includes(call as PlayingCall)) ? situation : undefined;
  }

  #fetch(url: string, init: RequestInit): Promise<Response> {
    return this.options.fetch ? this.options.fetch(url, init) : fetch(url, init);
  }

  /** A key of servers and programs goes into a header, where no log and no proxy keeps it. */
  get #isSecret(): boolean {
    return /^bt_(srv|app)_/.test(this.options.key);
  }

  get #secret(): Record<string, string> {
    return this.#isSecret ? { Authorization: `Bearer ${this.options.key}` } : {};
  }

  #url(path: string, params: Params): string {
    // that of a page goes into the query: a header would cost a preflight for every letter
    const query = new URLSearchParams({
      ...textOf(params),
      ...(this.#isSecret ? {} : { access_token: this.options.key }),
    });
    return `${this.#base}${path}?${query}`;
  }
}

/** Milliseconds of a `Retry-After` in seconds; undefined for a date or nothing. */
function pauseOf(header: string | null): number | undefined {
  return header && /^\d+$/.test(header) ? Number(header) * 1000 : undefined;
}

/** A position as a query string writes it: LAT,LON. */
const positionText = ({ lat, lon }: Position) => `${roundDegrees(lat)},${roundDegrees(lon)}`;

function textOf(params: Params, path?: string): Record<string, string> {
  const pairs = Object.entries(params).filter(([, value]) => value !== undefined);
  return Object.fromEntries([
    ...(path ? [["path", path]] : []),
    ...pairs.map(([name, value]) => [name, String(value)]),
  ]);
}
