import { FIELD_KINDS } from "@bibliotope/core/form";
import * as z from "zod";
import { KEY_KINDS, type KeyKind } from "./call.ts";
import { KEY_CALLS } from "./calls.ts";
import { formDefinitionSchema } from "./form.ts";
import { oneTimeCode } from "./second-factor.ts";
import { numberOf, text } from "./text.ts";

/**
 * What people of the workbench may do: view everything and make lookups; also make and change forms; also keys and people.
 * Each may do what is before it.
 */
export const ROLES = ["look", "edit", "manage"] as const;
export type Role = (typeof ROLES)[number];

const password = text(200).min(10, { error: "a password has at least ten characters" });
const personName = text(60).trim().min(1);

/** Signs in by name and password. */
export const signInRequest = z.strictObject({
  name: text(200),
  password: text(1000),
  /** Of an authenticator app, where one has to be given. */
  code: oneTimeCode.optional(),
});
/** Somebody who may sign in. */
export const makePersonRequest = z.strictObject({ name: personName, role: z.enum(ROLES), password });
/** What is left out stays. */
export const changePersonRequest = z.strictObject({
  name: personName.optional(),
  role: z.enum(ROLES).optional(),
  password: password.optional(),
  /** Takes codes of an app and passkeys away, for somebody who lost them. */
  dropSecondFactor: z.literal(true).optional(),
});
export const changePasswordRequest = z.strictObject({
  /** Not needed by somebody who has none yet. */
  before: text(1000).optional(),
  password,
});
export const personSummary = z.object({
  id: z.int(),
  name: z.string(),
  role: z.enum(ROLES),
  /** False for one who signs in by link alone. */
  hasPassword: z.boolean(),
  /** True for one who also gives codes of an app, or has passkeys. */
  hasSecondFactor: z.boolean(),
  /** Null before the first time. */
  signedInAt: z.string().nullable(),
});
/** Everything that is known of somebody, as it lies in the database: the person, and rows by where they lie. */
export const personData = z.object({
  person: z.record(z.string(), z.unknown()),
  held: z.record(z.string(), z.array(z.record(z.string(), z.unknown()))),
});
export const peopleList = z.object({ people: z.array(personSummary) });
export type PersonSummary = z.infer<typeof personSummary>;
export type MakePersonRequest = z.infer<typeof makePersonRequest>;
export type ChangePersonRequest = z.infer<typeof changePersonRequest>;
export type ChangePasswordRequest = z.infer<typeof changePasswordRequest>;
export type SignInRequest = z.infer<typeof signInRequest>;

/** What the workbench asks of /api. Not part of the public wire. */
export const sessionAnswer = z.object({
  id: z.int(),
  name: z.string(),
  role: z.enum(ROLES),
  hasPassword: z.boolean(),
  csrf: z.string(),
  studioKey: z.string(),
  tryKey: z.string(),
  wire: z.string(),
});

export const formSummary = z.object({
  ref: z.string(),
  title: z.string(),
  fields: z.int(),
  /** For a small picture of the form, and a line about it. */
  outline: z.object({
    fields: z.array(z.object({ kind: z.enum(FIELD_KINDS), isHalf: z.boolean(), part: z.string().optional() })),
    addresses: z.int(),
    starts: z.array(z.enum(["choice", "button", "leaving", "complete", "never"])),
    services: z.array(z.string()),
  }),
  revision: z.int(),
  savedAt: z.string(),
  publishedVersion: z.int().nullable(),
});
export const formList = z.object({ forms: z.array(formSummary) });

export const formDraft = z.object({
  ref: z.string(),
  revision: z.int(),
  savedAt: z.string(),
  publishedVersion: z.int().nullable(),
  /** True when the draft differs from what is published. */
  changed: z.boolean(),
  definition: formDefinitionSchema,
});

/** Saves a draft on top of the revision it was made from. */
/** A version of a form that was published once. */
export const formVersion = z.object({
  number: z.int(),
  publishedAt: z.string(),
  revision: z.int(),
  definition: formDefinitionSchema,
});
export const formVersions = z.object({ versions: z.array(formVersion) });

/** A person's own sessions. */
export const sessionList = z.object({
  sessions: z.array(
    z.object({
      madeAt: z.string(),
      seenAt: z.string(),
      /** The browser that began it, as it calls itself. */
      agent: z.string(),
      address: z.string(),
      isThis: z.boolean(),
    }),
  ),
});
export type SessionSummary = z.infer<typeof sessionList>["sessions"][number];

/** What is thrown away after a time. */
export const KEPT = ["batches", "traces", "lookups", "files"] as const;
export type Kept = (typeof KEPT)[number];
export const retentionAnswer = z.object({ kept: z.array(z.object({ what: z.enum(KEPT), days: z.int() })) });
export type KeptFor = z.infer<typeof retentionAnswer>["kept"][number];
export const setRetentionRequest = z.strictObject({ days: z.int().min(1).max(3650) });

/** Which draft is meant: a colleague may have saved another meanwhile. */
export const publishFormRequest = z.strictObject({ revision: numberOf });
export const saveDraftRequest = z.strictObject({ revision: numberOf, definition: formDefinitionSchema });

/**
 * Where a key of pages may be used: scheme, host and port. `http://localhost:*` allows every port of that host,
 * `https://*.members.example` every sub-domain. A key of web views may name a scheme of the program's own, `app://localhost`, or
 * `file://`.
 */
const origin = text(300)
  .regex(/^(?:[a-z][a-z0-9+.-]*:\/\/(\*\.)?[^/\s:*]+(:(\d{1,5}|\*))?|file:\/\/)$/, {
    error: "an origin is scheme, host and port, without a path; *. stands for any sub-domain",
  })
  .meta({ example: "https://members.example" });

/** Whether a key of some kind may name an origin: pages have those of the web alone. */
export const mayName = (kind: KeyKind, of: string) => kind === "view" || /^https?:/.test(of);

const amount = z.int().min(1).max(1_000_000_000).nullable().default(null);
/** Lookups a minute of a program's key that names no limit of its own: anybody who has the program has the key. */
export const PROGRAM_LIMIT = 300;
/** Kinds of key that go out with a program. */
export const PROGRAM_KINDS: ReadonlySet<KeyKind> = new Set<KeyKind>(["app", "view"]);

const keyRules = {
  name: text(60).trim().min(1),
  origins: z.array(origin).max(20).default([]),
  /** Only these kinds of lookup; all when empty. */
  calls: z.array(z.enum(KEY_CALLS)).max(KEY_CALLS.length).default([]),
  /** Only these countries, ISO 3166; all when empty. */
  countries: z
    .array(z.string().regex(/^[A-Z]{2}$/, { error: "a country is two capital letters, ISO 3166" }))
    .max(30)
    .default([]),
  /** From then on it is refused. */
  endsAt: z.iso.datetime({ offset: true }).nullable().default(null),
  /** Lookups in a minute, and in a day, from the first one on; null for no limit but the kind's own. */
  perMinute: amount,
  perDay: amount,
};
export const makeKeyRequest = z
  .strictObject({ kind: z.enum(KEY_KINDS), ...keyRules })
  .refine(({ kind, origins }) => origins.every((one) => mayName(kind, one)), {
    error: "a key of pages names origins of http and https; one of web views may name a scheme of its own",
    path: ["origins"],
  });
export const changeKeyRequest = z.strictObject(keyRules);
/** A new key for the same use; the one before goes on for so many hours. */
export const replaceKeyRequest = z.strictObject({
  overlap: z
    .int()
    .min(0)
    .max(24 * 90),
});
export const keySummary = z.object({
  id: z.int(),
  kind: z.enum(KEY_KINDS),
  name: z.string(),
  origins: z.array(z.string()),
  calls: z.array(z.enum(KEY_CALLS)),
  countries: z.array(z.string()),
  createdAt: z.string(),
  endsAt: z.string().nullable(),
  perMinute: z.int().nullable(),
  perDay: z.int().nullable(),
  /** To the minute; null before it was used. */
  usedAt: z.string().nullable(),
});
export const keyList = z.object({ keys: z.array(keySummary) });
/** The only answer that ever holds a key itself. */
export const madeKey = keySummary.extend({ key: z.string() });

/** How a lookup ended. */
export const USE_OUTCOMES = [
  "matched",
  "differs",
  "ambiguous",
  "none",
  "malformed",
  "refused",
  "limited",
  "failed",
] as const;
export type UseOutcome = (typeof USE_OUTCOMES)[number];

/** How the keys were used over the last days; of one key, or of all. */
export const usesRequest = z.strictObject({
  days: z.coerce.number().int().min(1).max(400),
  key: z.coerce.number().pipe(numberOf).optional(),
});
export const usesAnswer = z.object({
  /** What one moment below represents. */
  step: z.enum(["hour", "day"]),
  from: z.string(),
  to: z.string(),
  uses: z.array(z.object({ at: z.string(), call: z.enum(KEY_CALLS), outcome: z.enum(USE_OUTCOMES), count: z.int() })),
  /** Milliseconds that lookups took, without the pieces of a page. */
  times: z.array(z.object({ at: z.string(), median: z.number(), p99: z.number() })),
  /** Milliseconds over all of the period; null when there was no request. */
  median: z.number().nullable(),
  p99: z.number().nullable(),
  /** Choices from a list, and the characters typed before them. */
  choices: z.object({ count: z.int(), letters: z.int() }),
  /** Lookups that thirty days come to at the pace of the last seven; null with less than an hour to go by. */
  month: z.int().nullable(),
});
export type UsesRequest = z.infer<typeof usesRequest>;
export type UsesAnswer = z.infer<typeof usesAnswer>;

/** A lookup as it is behind `/v1/`: the call, what is in the path, its query string. */
export const keepLookupRequest = z.strictObject({
  query: text(2000).regex(/^(suggest|forward|reverse|distance|records\/[^/?]+|postcodes\/[^/?]+)\?/, {
    error: "is not a lookup",
  }),
  outcome: text(20),
  found: numberOf,
});
export const earlierLookup = keepLookupRequest.extend({ query: z.string(), askedAt: z.string() });
export const earlierLookups = z.object({ keeps: z.boolean(), days: z.int(), lookups: z.array(earlierLookup) });
export const keepsLookupsRequest = z.strictObject({ keeps: z.boolean() });

/** What links are signed with: when that was made, and how many keys prove links. */
export const linkKeyAnswer = z.object({ madeAt: z.string(), count: z.int() });
/** Signs with another key from now on. */
export const renewLinkKeyRequest = z.strictObject({
  /** Whether links that were signed before are none any more. */
  endsOld: z.boolean(),
});

export type KeepLookupRequest = z.infer<typeof keepLookupRequest>;
export type EarlierLookup = z.infer<typeof earlierLookup>;
export type EarlierLookups = z.infer<typeof earlierLookups>;
export type SessionAnswer = z.infer<typeof sessionAnswer>;
export type FormSummary = z.infer<typeof formSummary>;
export type FormVersion = z.infer<typeof formVersion>;
export type FormDraft = z.infer<typeof formDraft>;
export type MadeKey = z.infer<typeof madeKey>;
export type MakeKeyRequest = z.infer<typeof makeKeyRequest>;
export type ChangeKeyRequest = z.infer<typeof changeKeyRequest>;
export type KeySummary = z.infer<typeof keySummary>;
