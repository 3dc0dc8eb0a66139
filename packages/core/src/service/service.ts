/**
 * What an input or a value of a service is. A line is a GeoJSON LineString in an answer; as a value its positions, `LAT,LON` each, with spaces
 * between.
 */
export const VALUE_KINDS = ["text", "number", "date", "yesno", "line"] as const;
export type ValueKind = (typeof VALUE_KINDS)[number];

export const SERVICE_METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;
export type ServiceMethod = (typeof SERVICE_METHODS)[number];
export const BODY_KINDS = ["json", "form", "xml"] as const;
export type BodyKind = (typeof BODY_KINDS)[number];

/** What the names of a service and of the values look like: patterns of forms name them. */
export const SERVICE_NAME = /^[a-z]{1,30}$/;
/** What the name of an input looks like: as a service itself calls it. */
export const INPUT_NAME = /^[A-Za-z_]\w{0,59}$/;
/** What the name of a secret looks like. */
export const SECRET_NAME = /^[a-z][a-z0-9-]{0,39}$/;

/** Something that a service is called with. */
export interface ServiceInput {
  name: string;
  kind: ValueKind;
  required?: boolean;
  /** A value to try it with. */
  example?: string;
}

/** A value of what came back, by its way there. */
export interface ServiceValue {
  name: string;
  /** A JSON Pointer (RFC 6901) where JSON comes back, an XPath 1.0 where XML does. */
  way: string;
  /** The way on within each item of a list of JSON. */
  each?: string;
  kind: ValueKind;
  isList?: boolean;
  /** What is there when it is missing; nothing when not given. */
  missing?: string;
}

/** Asks by HTTP. Inputs stand in braces, `{town}`; secrets as `{secret.courier-token}`. */
export interface HttpRequest {
  by: "http";
  method: ServiceMethod;
  /** URL template, RFC 6570. */
  url: string;
  headers?: ServiceHeader[];
  body?: { kind: BodyKind; text: string };
}
export interface ServiceHeader {
  name: string;
  value: string;
}

/** Asks an operation by SOAP, document style: its inputs are its elements, in their order. */
export interface SoapRequest {
  by: "soap";
  version: "1.1" | "1.2";
  url: string;
  headers?: ServiceHeader[];
  operation: string;
  namespace: string;
  action?: string;
  /** Whether the elements of inputs stand in the namespace too. */
  isQualified?: boolean;
}

/** An outside service: the request, and what forms may use of what comes back. */
export interface Service {
  name: string;
  title: string;
  ask: HttpRequest | SoapRequest;
  inputs: ServiceInput[];
  values: ServiceValue[];
  /** Seconds after which it is given up, at most 30; those of the project when not given. */
  timeLimit?: number;
  /** Name of an input that decides it instead. */
  timeLimitFrom?: string;
  /** How often it is tried again that did not answer; never for what may not be repeated. */
  again?: number;
  /** Seconds for which an answer to the same inputs is kept. */
  keep?: number;
  /** How many requests of it are under way at most. */
  atOnce?: number;
  /** How often a minute one key may ask it. */
  perMinute?: number;
  /** A register confirms addresses of these countries: its inputs are parts, its values official parts, `number`, `standing`. */
  register?: { countries: string[] };
}

/** What an input is called that a register answers by. */
export const STANDINGS_OF_REGISTER = ["known", "otherwise", "unknown"] as const;
export type RegisterStatus = (typeof STANDINGS_OF_REGISTER)[number];

/**
 * How the call ended: with an answer; with none for these inputs; it took longer than its time limit; it does not answer,
 * or has failed so often that it is left alone; it refuses us; what it answers cannot be read; the address lies outside its territory.
 */
export const SERVICE_OUTCOMES = ["answered", "none", "slow", "down", "refused", "malformed", "outside"] as const;
export type ServiceOutcome = (typeof SERVICE_OUTCOMES)[number];

/** Seconds after which a service is given up that has no time limit of its own, and the most that one may have. */
export const [USUAL_LIMIT, MOST_LIMIT] = [5, 30];

/** Values by name: a text each, or a list of texts. */
export type ServiceValues = Readonly<Record<string, string | readonly string[]>>;
