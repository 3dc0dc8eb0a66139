import {
  EXACTNESS_WORDS,
  type FormAnswer,
  type FormDefinition,
  isBelow,
  isSameQuestion,
  outcomeOf,
  type Question,
  ruleOf,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { Difference } from "@bibliotope/core/place";
import type { RecordFeature, RecordProperties } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { SearchBox } from "../search/box.ts";
import type { Tracer } from "../trace.ts";
import { say } from "../words/say.ts";
import { nearestFor, WALK } from "./nearest.ts";
import { OutcomePlace } from "./outcome-place.ts";

/** Candidates that a person is asked to choose from. */
const MOST_CANDIDATES = 8;
/** Where no address lies, far and wide. */
const NOWHERE: Omit<FormAnswer, "at" | "exactness"> = { ref: "", kind: "place", line: "", parts: {}, autofill: {} };

/**
 * Chosen from a list, pressed on the map, come to by moving, looked up from the fields, where the device is, or
 * exchanged with the other address.
 */
export type FilledBy = "chosen" | "pressed" | "moved" | "asked" | "located" | "exchanged";

/** What the lookups of an address may do with the form. */
export interface AddressTarget {
  client: Client;
  trace?: Tracer;
  definition: FormDefinition;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation | undefined;
  /** Code of the country that the person chose, where the form asks for it first. */
  country(): string | undefined;
  /** An address was found, and fills the form. @param differences what was written and is not so in it */
  fill(answer: FormAnswer, why: FilledBy, differences: readonly Difference[]): void;
  /** The search field was emptied. */
  cleared(): void;
  /** The person wants what they typed. */
  useTyped(): void;
  /** The person asks for what they wrote over a record; wants the record back; agrees to what was put right. */
  look(): void;
  back(): void;
  agree(): void;
  /** What was taken out with a country is to come back. */
  restore(): void;
  /** A lookup was made, whatever came of it. */
  asked(): void;
  /** Several fit; none when the choice is over. */
  several(candidates: readonly FormAnswer[]): void;
}

/** One address of a form: looks it up, and shows the outcome. */
export class AddressLookups {
  readonly box: SearchBox | undefined;
  readonly #place: OutcomePlace;
  #underWay: AbortController | undefined;
  #last: Question | undefined;
  #candidates: FormAnswer[] = [];
  /** True while the address of the device is offered. */
  #isLocated = false;

  /**
   * @param search input of the search field, where it has one
   * @param anchor what is before the words
   */
  constructor(
    readonly name: string,
    private readonly target: AddressTarget,
    search: HTMLInputElement | undefined,
    anchor: Element | undefined,
  ) {
    const { client, trace } = target;
    this.#place = new OutcomePlace(name, {
      choose: (place) => this.choose(place),
      useTyped: () => {
        this.#settle();
        target.useTyped();
      },
      dismiss: () => this.#settle(),
      look: () => target.look(),
      back: () => target.back(),
      agree: () => {
        this.#settle();
        target.agree();
      },
      restore: () => {
        this.#settle();
        target.restore();
      },
    });
    if (search)
      this.box = new SearchBox(search, {
        client,
        trace,
        narrow: () => this.#narrowed(),
        // a choice is resolved by ref, never by its text
        chosen: ({ ref }, typed) => void this.#fillBy("chosen", (signal) => client.record(ref, { typed }, signal)),
        cleared: () => target.cleared(),
      });
    anchor?.after(this.#place.element);
  }

  /** Looks up what the fields say; not what was looked up last. */
  async ask(question: Question): Promise<void> {
    if (isSameQuestion(question, this.#last)) return;
    this.#last = question;
    const { q, parts, country } = question;
    const narrowed = { ...this.#narrowed(), ...(country ? { countries: country } : {}) };
    const params = { ...(q === undefined ? parts : { q }), ...narrowed, limit: MOST_CANDIDATES };
    const answer = await this.#ask((signal) => this.target.client.forward(params, signal));
    if (!answer) {
      // the same may be tried again once it works
      this.#last = undefined;
      return;
    }
    const rule = ruleOf(this.target.definition, this.name);
    const candidates = answer.features.map(candidateOf);
    const outcome = outcomeOf(rule, candidates, answer.outcome);
    this.target.asked();
    if (outcome.type === "one") this.#fill(outcome.answer, "asked", outcome.differences);
    else if (outcome.type === "differs") {
      this.#candidates = [outcome.answer];
      this.#place.differ(outcome.answer, outcome.differences);
      this.target.several([outcome.answer]);
    } else if (outcome.type === "several") {
      this.#candidates = outcome.candidates;
      this.#place.offer(outcome.candidates);
      this.target.several(outcome.candidates);
    } else {
      const words = rule.none ?? say("Nothing was found. Check the spelling, or go on with what you typed.");
      this.#place.say(words, true);
    }
  }

  /** Finds the device, and offers the address there: it fills nothing before the person confirms it. */
  async locate(): Promise<void> {
    this.#underWay?.abort();
    const controller = new AbortController();
    this.#underWay = controller;
    this.#settle();
    this.#place.say(say("Locating this device …"));
    // few forms ask where the device is: those that do bring what it takes
    const device = await import("../locate/locate.ts").catch(() => undefined);
    const located = await device?.locate({ from: this.target.geolocation });
    if (controller.signal.aborted) return;
    if (!device || !located) return this.#place.say(say("The device's location is not available."));
    if (!located.ok) {
      this.#place.say(`${located.words} ${located.next}`);
      return;
    }
    const found = await this.#nearest(located.at, WALK);
    if (!found) return;
    const { anywhere, kinds = [] } = ruleOf(this.target.definition, this.name);
    const [nearest] = found;
    const answer = anywhere ? besidePosition(located.at, nearest) : nearest && answerOf(nearest.id, nearest.properties);
    if (!answer) {
      this.#place.say(say("Nothing was found near this device. Type the address or place, or tap the map."));
      return;
    }
    this.#isLocated = true;
    this.#candidates = [answer];
    const where = device.withinWords(located.within);
    this.#place.confirm(
      answer,
      located.isInexact
        ? `${where} ${located.next}`
        : `${where} ${anywhere || (kinds.length && !kinds.includes("address")) ? say("Is it this place?") : say("Is it this address?")}`,
    );
    this.target.several([answer]);
  }

  /** Takes what lies nearest to a position; or the position as it is, with what lies beside it. */
  async fillFrom(at: Position): Promise<FormAnswer | undefined> {
    const found = await this.#nearest(at);
    if (!found) return undefined;
    const [nearest] = found;
    if (ruleOf(this.target.definition, this.name).anywhere) {
      const answer = besidePosition(at, nearest);
      this.#fill(answer, "pressed");
      return answer;
    }
    if (!nearest) this.say(say("Nothing was found near this position."));
    return nearest && this.fillWith(nearest, "pressed");
  }

  /** Asks for what lies nearest. @returns that or nothing in a list; undefined when there is no answer */
  #nearest(at: Position, radius?: number): Promise<[RecordFeature | undefined] | undefined> {
    const { client, definition } = this.target;
    return this.#ask(async (signal) => [await nearestFor(client, ruleOf(definition, this.name), at, signal, radius)]);
  }

  /** Takes an address that was found already. */
  fillWith(address: RecordFeature, why: FilledBy): FormAnswer {
    this.#underWay?.abort();
    this.say("");
    const answer = answerOf(address.id, address.properties);
    this.box?.setText(answer.line);
    this.#fill(answer, why);
    return answer;
  }

  /** Takes one of several that were offered. */
  choose(place: number): void {
    const chosen = this.#candidates[place];
    if (!chosen) return;
    this.box?.setText(chosen.line);
    this.#fill(chosen, this.#isLocated ? "located" : "chosen");
  }

  say(words: string): void {
    if (this.box) this.box.say(words);
    else this.#place.say(words);
  }

  /**
   * The fields state another place than the record that filled them: answers that are under way are to what stood there
   * before.
   * @param place what stood there
   * @param isAsked whether what is there now can be requested
   */
  changed(place: string, isAsked: boolean): void {
    this.#underWay?.abort();
    this.#last = undefined;
    this.#settle();
    this.#place.changed(place, isAsked);
  }

  /** The fields state the record again. */
  restated(): void {
    this.#settle();
  }

  /** What belonged to another country was taken out. */
  emptied(): void {
    this.#place.emptied();
  }

  /** Drops the answer that is under way: it is to what stood there before. */
  drop(): void {
    this.#underWay?.abort();
    this.#last = undefined;
  }

  /** No request is made and nothing was: as after a reset. */
  forget(): void {
    this.#underWay?.abort();
    this.#last = undefined;
    this.#settle();
    this.say("");
  }

  /** What was found is in the form now; the same question need not be sent. */
  noteAsked(question: Question | undefined): void {
    this.#last = question;
  }

  destroy(): void {
    this.#underWay?.abort();
    this.box?.destroy();
    this.#place.element.remove();
  }

  #narrowed(): Record<string, string | undefined> {
    const { kinds, countries } = ruleOf(this.target.definition, this.name);
    const country = this.target.country();
    return {
      ...(kinds?.length ? { kinds: kinds.join(",") } : {}),
      ...(country ? { countries: country } : countries?.length ? { countries: countries.join(",") } : {}),
    };
  }

  async #fillBy(why: FilledBy, question: (signal: AbortSignal) => Promise<RecordFeature>): Promise<void> {
    const record = await this.#ask(question);
    if (record) this.#fill(answerOf(record.id, record.properties), why);
  }

  #fill(answer: FormAnswer, why: FilledBy, differences: readonly Difference[] = []): void {
    this.#settle();
    this.target.asked();
    this.target.fill(answer, why, differences);
    if (differences.length) this.#place.note(differences);
    else if (isBelow(ruleOf(this.target.definition, this.name), answer.exactness))
      this.#place.say(
        say("Found, but only {where}. Show the house on the map if you can.", {
          where: say(EXACTNESS_WORDS[answer.exactness]),
        }),
      );
  }

  /** The choice is over. */
  #settle(): void {
    this.#place.clear();
    if (this.#candidates.length) this.target.several([]);
    this.#candidates = [];
    this.#isLocated = false;
  }

  /** Asks; a later question makes an earlier one stale, and what goes wrong is said where the person looks. */
  async #ask<T>(question: (signal: AbortSignal) => Promise<T>): Promise<T | undefined> {
    this.#underWay?.abort();
    const controller = new AbortController();
    this.#underWay = controller;
    try {
      this.#settle();
      this.box?.say("");
      const answer = await question(controller.signal);
      return controller.signal.aborted ? undefined : answer;
    } catch (error) {
      if (controller.signal.aborted) return undefined;
      const words =
        error instanceof LookupError ? error.message : say("The address search does not work at the moment.");
      if (this.box) this.box.say(words);
      else this.#place.say(words, true);
      return undefined;
    }
  }
}

/** A position as it is, with what lies beside it. */
function besidePosition(at: Position, nearest: RecordFeature | undefined): FormAnswer {
  const beside = nearest ? answerOf(nearest.id, nearest.properties) : NOWHERE;
  return { ...beside, at, exactness: "surveyed" };
}

type Candidate = FormAnswer & { score?: number; differences?: readonly Difference[] };

const candidateOf = ({ id, properties: { score, differences, ...properties } }: RecordFeature): Candidate => ({
  ...answerOf(id, properties),
  ...(score === undefined ? {} : { score }),
  ...(differences ? { differences } : {}),
});

/** What a record of the wire gives to a form. */
function answerOf(ref: string, properties: RecordProperties): FormAnswer {
  const { kind, exactness, at, line, lines, parts, autofill, facts, continent } = properties;
  const own = { ...(facts ? { facts } : {}), ...(continent ? { continent } : {}) };
  return { ref, kind, exactness, at, line, lines, parts, autofill, ...own };
}
