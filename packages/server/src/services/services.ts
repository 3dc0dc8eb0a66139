import { performance } from "node:perf_hooks";
import {
  checkInputs,
  type RegisterStatus,
  type Service,
  type ServiceValues,
  STANDINGS_OF_REGISTER,
  timeLimitOf,
} from "@bibliotope/core/service";
import type { AllowedHost, SecretSummary, ServiceAnswer, Situation, TriedService } from "@bibliotope/wire";
import type { Knex } from "knex";
import { LRUCache } from "lru-cache";
import { HttpProblem } from "../http/problem.ts";
import { InTurn } from "../jobs/in-turn.ts";
import { OutOfTime, WorkThread } from "../jobs/work-thread.ts";
import { onceMore } from "../once-more.ts";
import { inSpan } from "../traces/traces.ts";
import { isXml } from "./answer.ts";
import { CallFailed, type CameBack } from "./call-failed.ts";
import { Caller } from "./caller.ts";
import { allowedFor } from "./guard.ts";
import { curlOf, valuesFrom, writeRequest } from "./out-request.ts";
import { readAnswer } from "./read-answer.ts";
import type { Sealing } from "./sealing.ts";
import { LineFull, type ServiceCallResult, ServiceLine } from "./service-line.ts";
import { listHosts, listSecrets, listServices, type StoredService } from "./services.repository.ts";
import type { XmlWork } from "./xml.worker.ts";

/** Characters of answers that are kept, characters of one that are shown to who tries it, and milliseconds of a minute. */
const [MOST_KEPT, MOST_SHOWN, MINUTE] = [32_000_000, 200_000, 60_000];
/** What reading one answer in XML may take: milliseconds, and megabytes. */
const XML = { time: 5000, memory: 256 };
/** Methods that may be tried again. */
const REPEATABLE = new Set(["GET", "PUT", "DELETE"]);

interface Running extends StoredService {
  line: ServiceLine;
}

/** The outside services, in memory: asked only as far as they are described, and no further than is allowed. */
export class Services {
  #services = new Map<string, Running>();
  #secrets = new Map<string, { text: string | undefined; setAt: Date }>();
  #hosts: AllowedHost[] = [];
  readonly #caller = new Caller(() => this.#hosts);
  readonly #kept = new LRUCache<string, ServiceCallResult>({
    maxSize: MOST_KEPT,
    sizeCalculation: (params, question) => question.length + JSON.stringify(params).length,
  });
  readonly #xml = new WorkThread<XmlWork>(new URL("./xml.worker.js", import.meta.url), new InTurn(1, 200), XML);
  /** Calls of a key to a service in the minute that runs. */
  readonly #minutes = new LRUCache<string, { begun: number; count: number }>({ max: 10_000 });

  constructor(
    private readonly database: Knex,
    private readonly sealing: Sealing,
  ) {}

  /** Reads them anew; a service that nobody has changed goes on as it is. */
  readonly refresh = onceMore(async () => {
    const [services, secrets, hosts] = await Promise.all([
      listServices(this.database),
      listSecrets(this.database),
      listHosts(this.database),
    ]);
    const before = this.#services;
    this.#services = new Map(
      services.map((stored) => {
        const existing = before.get(stored.service.name);
        const line = existing?.revision === stored.revision ? existing.line : new ServiceLine(stored.service.atOnce);
        return [stored.service.name, { ...stored, line }];
      }),
    );
    for (const { line, service } of before.values()) if (this.#services.get(service.name)?.line !== line) line.close();
    this.#secrets = new Map(
      secrets.map(({ name, sealed, setAt }) => [name, { text: this.sealing.open(name, sealed), setAt }]),
    );
    this.#hosts = hosts;
  });

  get all(): readonly (StoredService & { state: ServiceLine["state"] })[] {
    return [...this.#services.values()].map(({ service, revision, savedAt, line }) => ({
      ...{ service, revision, savedAt },
      state: line.state,
    }));
  }

  get hosts(): readonly AllowedHost[] {
    return this.#hosts;
  }

  get secrets(): SecretSummary[] {
    const all = [...this.#services.values()].map(({ service }) => service);
    return [...this.#secrets].map(([name, { text, setAt }]) => ({
      ...{ name, setAt: setAt.toISOString(), isReadable: text !== undefined },
      services: all.filter((service) => asksFor(service, name)).map((service) => service.name),
    }));
  }

  find(name: string): StoredService | undefined {
    return this.#services.get(name);
  }

  /** Scheme, host and port of what maps may fetch pictures from. */
  get pictureOrigins(): string[] {
    return this.#hosts.flatMap(({ scheme, host, port, forPictures }) =>
      forPictures ? [new URL(`${scheme}://${host}:${port}`).origin] : [],
    );
  }

  /** Whether the host of a service may be called. */
  isAllowed({ ask }: Service): boolean {
    try {
      return Boolean(allowedFor(new URL(ask.url.replace(/\{[^}]*\}/g, "")), this.#hosts));
    } catch {
      return false;
    }
  }

  /**
   * Asks a service. What goes wrong there is an outcome.
   * @param by number of the key that asks
   * @throws HttpProblem for inputs that are not its own, and where too much is asked
   */
  async ask(
    name: string,
    inputs: Readonly<Record<string, string>>,
    by: number,
    situation?: Situation,
  ): Promise<ServiceAnswer> {
    const running = this.#services.get(name);
    if (!running)
      throw new HttpProblem(
        "not-found",
        "There is no service with this name. Services are described in the workbench.",
      );
    const { service, line, revision } = running;
    refuseWrong(service, inputs);
    this.#count(service, by);
    if (situation && PLAYED[situation]) return { ...PLAYED[situation](service), service: name, took: 0, kept: false };
    if (isOutside(service, inputs))
      return { ...emptyOf(service), service: name, outcome: "outside", took: 0, kept: false };
    const question = JSON.stringify([name, revision, inputs]);
    const kept = this.#kept.get(question);
    if (kept) return answerOf(service, kept, true);
    try {
      const result = await line.ask(() => this.#ask(service, inputs));
      if (service.keep) this.#kept.set(question, result, { ttl: service.keep * 1000 });
      return answerOf(service, result, false);
    } catch (error) {
      if (error instanceof LineFull)
        throw new HttpProblem("busy", `“${service.title}” already has its maximum of requests at once.`, undefined, {
          "Retry-After": "1",
        });
      if (!(error instanceof CallFailed)) throw error;
      return answerOf(service, { ...emptyOf(service), outcome: error.outcome, took: 0 }, false);
    }
  }

  /** Asks a service as it is described, saved or not, and tells all of what came back but the secrets. */
  async try(service: Service, inputs: Readonly<Record<string, string>>): Promise<TriedService> {
    refuseWrong(service, inputs);
    const began = performance.now();
    let came: CameBack | undefined;
    const outcomeOf = (outcome: TriedService["outcome"], words: string, values: ServiceValues): TriedService => ({
      ...{ outcome, words: this.#masked(words), values: masked(values, (text) => this.#masked(text)) },
      status: came?.status ?? null,
      headers: came?.headers.map(({ name, value }) => ({ name, value: this.#masked(value) })) ?? [],
      body: came ? this.#masked(came.text).slice(0, MOST_SHOWN) : null,
      form: formOf(came),
      took: Math.round(performance.now() - began),
      curl: curlOf(service, inputs),
    });
    try {
      const result = await this.#ask(service, inputs, (back) => {
        came = back;
      });
      return outcomeOf(result.outcome, "It responded.", result.values);
    } catch (error) {
      if (!(error instanceof CallFailed)) throw error;
      came ??= error.came;
      return outcomeOf(error.outcome, error.message, emptyOf(service).values);
    }
  }

  async close(): Promise<void> {
    for (const { line } of this.#services.values()) line.close();
    await this.#caller.close();
  }

  /** @throws CallFailed for whatever is no answer */
  async #ask(service: Service, inputs: Readonly<Record<string, string>>, heard?: (came: CameBack) => void) {
    const began = performance.now();
    const limit = timeLimitOf(service, inputs);
    const out = writeRequest(
      service,
      valuesFrom(inputs, (name) => this.#secrets.get(name)?.text),
    );
    const isRepeatable = service.ask.by === "http" && REPEATABLE.has(out.method);
    for (let left = isRepeatable ? (service.again ?? 0) : 0; ; left--) {
      try {
        const time = Math.max(1, limit - (performance.now() - began));
        const came = await inSpan(`service ${service.name}`, { "server.address": new URL(out.url).hostname }, () =>
          this.#caller.call(out, time),
        );
        heard?.(came);
        const values = await this.#read(service, came);
        return { outcome: "answered" as const, values, took: performance.now() - began };
      } catch (error) {
        const mayBeBetter = error instanceof CallFailed && error.outcome === "down";
        if (left <= 0 || !mayBeBetter || performance.now() - began >= limit) throw error;
      }
    }
  }

  /** @throws CallFailed for what holds no values of the service */
  async #read(service: Service, came: CameBack): Promise<ServiceValues> {
    if (!isXml(came)) return readAnswer(service, came);
    const { values, failed } = await this.#xml.run("read", { service, came }).catch((error: unknown) => {
      if (!(error instanceof OutOfTime)) throw error;
      throw new CallFailed("malformed", `Reading its response took longer than ${XML.time / 1000} s.`, came);
    });
    if (failed) throw new CallFailed(failed.outcome, failed.message, came);
    return values;
  }

  /** A text without the secrets that may stand in it. */
  #masked(text: string): string {
    let shown = text;
    for (const { text: secret } of this.#secrets.values())
      if (secret) for (const one of [secret, encodeURIComponent(secret)]) shown = shown.replaceAll(one, "•••");
    return shown;
  }

  /** @throws HttpProblem for a key that asks more often than it may */
  #count({ name, perMinute, title }: Service, by: number): void {
    if (!perMinute) return;
    const now = Date.now();
    const existing = this.#minutes.get(`${by} ${name}`);
    const minute = existing && now - existing.begun < MINUTE ? existing : { begun: now, count: 0 };
    if (++minute.count > perMinute)
      throw new HttpProblem("too-many", `This key may call “${title}” ${perMinute} times per minute.`, undefined, {
        "Retry-After": String(Math.ceil((minute.begun + MINUTE - now) / 1000)),
      });
    this.#minutes.set(`${by} ${name}`, minute);
  }
}

function refuseWrong(service: Service, inputs: Readonly<Record<string, string>>): void {
  const issues = checkInputs(service, inputs).map(({ name, message }) => ({ parameter: name, message }));
  if (!issues.length) return;
  const words = issues.map(({ parameter, message }) => `${parameter}: ${message}`).join("; ");
  throw new HttpProblem("malformed", `${words}.`, issues.slice(0, 10));
}

function emptyOf({ values }: Service): { values: Record<string, string | string[]> } {
  return { values: Object.fromEntries(values.map(({ name, isList }) => [name, isList ? [] : ""])) };
}

function answerOf(service: Service, { outcome, values, took }: ServiceCallResult, kept: boolean): ServiceAnswer {
  const standing = service.register && STANDINGS_OF_REGISTER.find((one) => one === values.standing);
  return {
    ...{ service: service.name, outcome, values: values as ServiceAnswer["values"] },
    ...(service.register && outcome === "answered"
      ? { standing: standing ?? ("unknown" satisfies RegisterStatus) }
      : {}),
    ...{ took: Math.round(took * 10) / 10, kept },
  };
}

/** True for an address outside the countries that a register speaks for. */
function isOutside({ register }: Service, inputs: Readonly<Record<string, string>>): boolean {
  const country = Object.entries(inputs).find(([name]) => name.toLowerCase() === "country")?.[1];
  return Boolean(register && country && !register.countries.includes(country.trim().toUpperCase()));
}

const asksFor = (service: Service, secret: string) => JSON.stringify(service.ask).includes(`{secret.${secret}}`);

function masked(values: ServiceValues, mask: (text: string) => string): Record<string, string | string[]> {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [name, typeof value === "string" ? mask(value) : value.map(mask)]),
  );
}

function formOf(came: CameBack | undefined): TriedService["form"] {
  const start = came?.text.trimStart()[0];
  if (start === "{" || start === "[") return "json";
  return start === "<" && came?.mediaType !== "text/html" ? "xml" : "text";
}

type Played = (service: Service) => Pick<ServiceAnswer, "outcome" | "values" | "standing">;
const played =
  (outcome: ServiceAnswer["outcome"]): Played =>
  (service) => ({ ...emptyOf(service), outcome });
/** What a try key may ask to be played; others are those of a service that answers. */
const PLAYED: Partial<Record<Situation, Played>> = {
  none: played("none"),
  slow: played("slow"),
  down: played("down"),
  refused: played("refused"),
  malformed: played("malformed"),
};
