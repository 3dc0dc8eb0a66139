import type { AddressState, FormAnswer, FormDefinition, FormState, Values } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { RecordFeature } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import type { Tracer } from "../trace.ts";
import type { FilledBy } from "./address.ts";

export interface BindOptions {
  client: Client;
  /** The form's definition; without one the form is filled by its inputs' autofill tokens. */
  definition?: FormDefinition;
  /** Values by field of a stored record: no request is made, and nothing counts as filled or corrected. */
  record?: Values;
  trace?: Tracer;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation | undefined;
  /**
   * Which events count as the person's doing. When not given, those of the browser that no script, autofill or back
   * button caused; a rehearsal plays the person.
   */
  isByPerson?: (event: Event) => boolean;
  /** An address of the form was filled. @param address name of the address, empty for the first */
  filled?: (answer: FormAnswer, why: FilledBy, address: string) => void;
  /** What was filled was cleared. */
  cleared?: (address: string) => void;
  /** Lines that services have answered, each with the words at it. */
  drawn?: (lines: readonly { points: readonly Position[]; words: string }[]) => void;
  /** Several addresses fit and the person is to choose; none when the choice is over. */
  several?: (candidates: readonly FormAnswer[], address: string) => void;
}

/** A form whose address fields fill themselves. An address is named where a form has several; the first one else. */
export interface Binding {
  /** Fills from the nearest address to a position, as when the map is pressed. @returns the answer, if there is one near */
  fillFrom(at: Position, address?: string): Promise<FormAnswer | undefined>;
  /** Fills from an address that was found already, as when a marker was moved to it. */
  fillWith(record: RecordFeature, address?: string): FormAnswer;
  /** Sets a field's value from the page's own code; starts a lookup where the field does. */
  set(field: string, value: string): void;
  /** Takes one of several candidates. */
  choose(place: number, address?: string): void;
  /** Shows a message at the search field; removes it with an empty text. */
  say(words: string, address?: string): void;
  /** Gives a corrected field back to the lookup. */
  giveBack(field: string): void;
  /** Asks where the device is, and offers the address there. */
  locate(address?: string): void;
  /** Exchanges the form's two addresses. */
  exchange(): void;
  /** What is in the fields now, by name. */
  values(): Values;
  /** What an address is now: empty, the person's own words, a record, or a record that was changed. */
  addressState(address?: string): AddressState;
  readonly state: FormState;
  destroy(): void;
}
