import {
  BODY_KINDS,
  INPUT_NAME,
  MOST_LIMIT,
  SECRET_NAME,
  SERVICE_METHODS,
  SERVICE_NAME,
  SERVICE_OUTCOMES,
  STANDINGS_OF_REGISTER,
  VALUE_KINDS,
} from "@bibliotope/core/service";
import * as z from "zod";
import { text } from "./text.ts";

const MOST = { inputs: 40, values: 60, headers: 20 };

export const serviceName = z.string().regex(SERVICE_NAME, { error: "a name has at most thirty lowercase letters" });
const inputName = z.string().regex(INPUT_NAME, { error: "a name has letters, digits and _, starting with a letter" });
export const secretName = z.string().regex(SECRET_NAME, {
  error: "a secret's name has lowercase letters, digits and -, starting with a letter",
});

const headers = z
  .array(z.strictObject({ name: text(60), value: text(2000) }))
  .max(MOST.headers)
  .optional();
const url = text(2000).trim();

const request = z.discriminatedUnion("by", [
  z.strictObject({
    by: z.literal("http"),
    method: z.enum(SERVICE_METHODS),
    url,
    headers,
    body: z.strictObject({ kind: z.enum(BODY_KINDS), text: text(20_000) }).optional(),
  }),
  z.strictObject({
    by: z.literal("soap"),
    version: z.enum(["1.1", "1.2"]),
    url,
    headers,
    operation: text(100).trim(),
    namespace: text(500).trim(),
    action: text(500).trim().optional(),
    isQualified: z.boolean().optional(),
  }),
]);

const value = z.strictObject({
  name: serviceName,
  way: text(500),
  each: text(500).optional(),
  kind: z.enum(VALUE_KINDS),
  isList: z.boolean().optional(),
  missing: text(200).optional(),
});
const country = z.string().regex(/^[A-Z]{2}$/, { error: "a country is named by its two letters" });

/** What an outside service is: the request, and what forms may use of it. */
export const serviceSchema = z.strictObject({
  name: serviceName,
  title: text(80).trim().min(1),
  ask: request,
  inputs: z
    .array(
      z.strictObject({
        name: inputName,
        kind: z.enum(VALUE_KINDS),
        required: z.boolean().optional(),
        example: text(500).optional(),
      }),
    )
    .max(MOST.inputs),
  values: z.array(value).max(MOST.values),
  timeLimit: z.number().min(0.1).max(MOST_LIMIT).optional(),
  timeLimitFrom: inputName.optional(),
  again: z.int().min(0).max(3).optional(),
  keep: z.int().min(0).max(86_400).optional(),
  atOnce: z.int().min(1).max(200).optional(),
  perMinute: z.int().min(1).max(100_000).optional(),
  register: z.strictObject({ countries: z.array(country).min(1).max(60) }).optional(),
});

/** Values by the names of a service's inputs. */
export const serviceInputs = z
  .record(inputName, text(4000))
  .refine((given) => Object.keys(given).length <= MOST.inputs, { error: "has too many values" })
  .meta({ description: "Values of the inputs by name.", example: { town: "Tidewell" } });

const values = z.record(z.string(), z.union([z.string(), z.array(z.string())]));
/** The result of calling a service. */
export const serviceAnswer = z.object({
  service: z.string(),
  outcome: z.enum(SERVICE_OUTCOMES),
  values: values.meta({ description: "Values by name, each a text or a list of texts; empty if missing." }),
  /** Of a register. */
  standing: z.enum(STANDINGS_OF_REGISTER).optional(),
  took: z.number().meta({ description: "Response time of the service in milliseconds." }),
  kept: z.boolean().meta({ description: "Whether the response came from the cache." }),
});
export type ServiceAnswer = z.infer<typeof serviceAnswer>;

/** How a service does, for the list of them. */
export const serviceSummary = z.object({
  name: z.string(),
  title: z.string(),
  by: z.enum(["http", "soap"]),
  host: z.string(),
  isRegister: z.boolean(),
  inputs: serviceSchema.shape.inputs,
  values: z.array(value.pick({ name: true, kind: true, isList: true })),
  savedAt: z.string(),
  revision: z.int(),
  /** Forms that ask it, by their refs. */
  forms: z.array(z.object({ ref: z.string(), title: z.string() })),
  state: z.object({
    /** Not asked since the server began; answers; has failed last; left alone for a while. */
    how: z.enum(["unasked", "answering", "failing", "alone"]),
    /** Since when it fails, or until when it is left alone. */
    at: z.string().optional(),
    words: z.string(),
    answered: z.int(),
    failed: z.int(),
    median: z.number().nullable(),
  }),
});
export const serviceList = z.object({ services: z.array(serviceSummary) });
export type ServiceSummary = z.infer<typeof serviceSummary>;

export const heldService = z.object({
  service: serviceSchema,
  revision: z.int(),
  savedAt: z.string(),
  /** Whether its host may be called. */
  isAllowed: z.boolean(),
});
export type HeldService = z.infer<typeof heldService>;

export const saveServiceRequest = z.strictObject({ service: serviceSchema, revision: z.int().min(0).optional() });

/** Tries a service as it is described; by who only edits, as it is saved. */
export const tryServiceRequest = z.strictObject({ service: serviceSchema, inputs: serviceInputs });
export const triedService = z.object({
  outcome: z.enum(SERVICE_OUTCOMES),
  /** What came of it, in a sentence. */
  words: z.string(),
  values,
  status: z.int().nullable(),
  headers: z.array(z.object({ name: z.string(), value: z.string() })),
  /** The answer as text, where it is any; cut where it is long. */
  body: z.string().nullable(),
  form: z.enum(["json", "xml", "text"]),
  took: z.number(),
  /** The request as a shell writes it, secrets as variables. */
  curl: z.string(),
});
export type TriedService = z.infer<typeof triedService>;

export const wsdlRequest = z.strictObject({ wsdl: text(400_000) });
/** What can be called by SOAP, as a WSDL has it. */
export const wsdlAnswer = z.object({
  operations: z.array(
    z.object({
      name: z.string(),
      ask: z.custom<Extract<z.infer<typeof request>, { by: "soap" }>>(),
      inputs: serviceSchema.shape.inputs,
    }),
  ),
});
export type WsdlAnswer = z.infer<typeof wsdlAnswer>;

export const secretList = z.object({
  secrets: z.array(
    z.object({
      name: z.string(),
      setAt: z.string(),
      /** False where the key that it was sealed with is not there: it must be set again. */
      isReadable: z.boolean(),
      services: z.array(z.string()),
    }),
  ),
});
export type SecretSummary = z.infer<typeof secretList>["secrets"][number];
export const setSecretRequest = z.strictObject({ value: text(8000).min(1) });

/** Where services may be called. */
export const hostList = z.object({
  hosts: z.array(
    z.object({
      id: z.int(),
      scheme: z.enum(["http", "https"]),
      host: z.string(),
      port: z.int(),
      isInside: z.boolean(),
      /** Maps may fetch pictures there. */
      forPictures: z.boolean(),
      standIn: z.string().nullable(),
    }),
  ),
});
export type AllowedHost = z.infer<typeof hostList>["hosts"][number];
export const allowHostRequest = z.strictObject({
  scheme: z.enum(["http", "https"]),
  host: text(253)
    .trim()
    .toLowerCase()
    .regex(/^([a-z0-9_-]+(\.[a-z0-9_-]+)*|\[[0-9a-f:.]+\])$/, {
      error: "a host is a name such as register.example, or an address",
    }),
  port: z.int().min(1).max(65_535),
  isInside: z.boolean().default(false),
  forPictures: z.boolean().default(false),
});
