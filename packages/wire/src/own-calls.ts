import * as z from "zod";
import {
  batchCandidates,
  batchDetail,
  batchList,
  batchOutAsking,
  batchPoints,
  batchRows,
  batchValues,
  batchValuesAsking,
  candidatesAsking,
  decideAsking,
  listRowsAsking,
  makeBatchAsking,
} from "./batches.ts";
import type { PartIn } from "./call.ts";
import { correctAsking, correctionList, decideCorrectionAsking } from "./corrections.ts";
import { coverageAnswer } from "./coverage.ts";
import {
  coverageAsking,
  dataAnswer,
  differenceAsking,
  fileAnswer,
  fileAsking,
  fileStart,
  jobList,
  lookAtFileAsking,
  makeLoadAsking,
  oddRows,
  oddRowsAsking,
  outAsking,
  publishAsking,
  versionDifference,
} from "./data.ts";
import { formDefinitionSchema } from "./form.ts";
import {
  changeKeyAsking,
  changePasswordAsking,
  changePersonAsking,
  earlierLookups,
  formDraft,
  formList,
  formVersions,
  keepLookupAsking,
  keepsLookupsAsking,
  keyList,
  keySummary,
  linkKeyAnswer,
  madeKey,
  makeKeyAsking,
  makePersonAsking,
  peopleList,
  personData,
  publishFormAsking,
  type Role,
  renewLinkKeyAsking,
  replaceKeyAsking,
  retentionAnswer,
  saveDraftAsking,
  sessionAnswer,
  sessionList,
  setRetentionAsking,
  usesAnswer,
  usesAsking,
} from "./manage.ts";
import { keepRehearsalAsking, keepTraceAsking, keptRehearsals, keptTrace, keptTraceList } from "./rehearsal.ts";
import {
  againAsking,
  begunCodes,
  confirmCodesAsking,
  keepPasskeyAsking,
  passkeyOptions,
  secondFactorAnswer,
} from "./second-factor.ts";
import {
  allowHostAsking,
  heldService,
  hostList,
  saveServiceAsking,
  secretList,
  serviceList,
  setSecretAsking,
  triedService,
  tryServiceAsking,
  wsdlAnswer,
  wsdlAsking,
} from "./services.ts";

/**
 * A call of the workbench, behind `/api` and a session. The server's routes, what each role may do, the workbench's requests and
 * the types of both are made from it.
 */
export interface OwnCall {
  method: "GET" | "POST" | "PUT" | "DELETE";
  /** Behind `/api`; parts that are asked for stand in braces. */
  path: `/${string}`;
  /** Who may, at the least; everybody who is signed in when not given. */
  role?: Role;
  /** What is asked: in the query string of GET and beside a file, as JSON otherwise. */
  asks?: z.ZodType;
  /** What is answered, as JSON; nothing when not given. */
  answers?: z.ZodType;
  /** Status of what is answered; 200 or 204 when not given. */
  status?: 201 | 202;
  /** The body is a file as it is. */
  takes?: "file";
  /** The answer is a file, or a line that stays open: no JSON. */
  sends?: "file" | "events";
}

const call = <const C extends OwnCall>(declared: C): C => declared;
const get = <const P extends `/${string}`, const More extends Partial<OwnCall>>(path: P, more: More) =>
  call({ method: "GET", path, ...more });
const post = <const P extends `/${string}`, const More extends Partial<OwnCall>>(path: P, more: More) =>
  call({ method: "POST", path, ...more });
const put = <const P extends `/${string}`, const More extends Partial<OwnCall>>(path: P, more: More) =>
  call({ method: "PUT", path, ...more });
const remove = <const P extends `/${string}`, const More extends Partial<OwnCall>>(path: P, more: More) =>
  call({ method: "DELETE", path, ...more });

const edit = { role: "edit" } as const;
const manage = { role: "manage" } as const;
const made = z.object({ job: z.int() });
const numbered = z.object({ id: z.int() });

/** Every call of /api. */
export const OWN_CALLS = {
  linkKey: get("/link-key", { ...manage, answers: linkKeyAnswer }),
  renewLinkKey: put("/link-key", { ...manage, asks: renewLinkKeyAsking, answers: linkKeyAnswer }),

  retention: get("/retention", { answers: retentionAnswer }),
  setRetention: put("/retention/{what}", { ...manage, asks: setRetentionAsking, answers: retentionAnswer }),

  session: get("/session", { answers: sessionAnswer }),
  signOut: remove("/session", {}),
  sessions: get("/sessions", { answers: sessionList }),
  endOtherSessions: remove("/sessions/others", {}),
  changePassword: put("/password", { asks: changePasswordAsking }),
  secondFactor: get("/second-factor", { answers: secondFactorAnswer }),
  beginCodes: post("/second-factor/codes", { asks: againAsking, answers: begunCodes, status: 201 }),
  confirmCodes: put("/second-factor/codes", { asks: confirmCodesAsking, answers: secondFactorAnswer }),
  dropCodes: post("/second-factor/codes/off", { asks: againAsking, answers: secondFactorAnswer }),
  askPasskey: post("/passkeys/asked", { asks: againAsking, answers: passkeyOptions }),
  keepPasskey: post("/passkeys", { asks: keepPasskeyAsking, answers: secondFactorAnswer, status: 201 }),
  dropPasskey: post("/passkeys/{id}/off", { asks: againAsking, answers: secondFactorAnswer }),
  people: get("/people", { ...manage, answers: peopleList }),
  makePerson: post("/people", { ...manage, asks: makePersonAsking, answers: peopleList, status: 201 }),
  changePerson: put("/people/{id}", { ...manage, asks: changePersonAsking, answers: peopleList }),
  personData: get("/people/{id}/data", { ...manage, answers: personData }),
  removePerson: remove("/people/{id}", manage),

  forms: get("/forms", { answers: formList }),
  formSchema: get("/forms/schema.json", { sends: "file" }),
  form: get("/forms/{ref}", { answers: formDraft }),
  versions: get("/forms/{ref}/versions", { answers: formVersions }),
  makeForm: post("/forms", {
    ...edit,
    asks: z.strictObject({ definition: formDefinitionSchema }),
    answers: formDraft,
    status: 201,
  }),
  saveDraft: put("/forms/{ref}/draft", { ...edit, asks: saveDraftAsking, answers: formDraft }),
  publishForm: post("/forms/{ref}/publish", { ...edit, asks: publishFormAsking, answers: formDraft }),
  rehearsals: get("/forms/{ref}/rehearsals", { answers: keptRehearsals }),
  keepRehearsal: post("/forms/{ref}/rehearsals", {
    ...edit,
    asks: keepRehearsalAsking,
    answers: keptRehearsals,
    status: 201,
  }),
  dropRehearsal: remove("/forms/{ref}/rehearsals/{id}", edit),
  traces: get("/forms/{ref}/traces", { answers: keptTraceList }),
  trace: get("/forms/{ref}/traces/{id}", { answers: keptTrace }),
  keepTrace: post("/forms/{ref}/traces", { ...edit, asks: keepTraceAsking, answers: numbered, status: 201 }),

  keys: get("/keys", { answers: keyList }),
  makeKey: post("/keys", { ...manage, asks: makeKeyAsking, answers: madeKey, status: 201 }),
  changeKey: put("/keys/{id}", { ...manage, asks: changeKeyAsking, answers: keySummary }),
  replaceKey: post("/keys/{id}/replace", { ...manage, asks: replaceKeyAsking, answers: madeKey, status: 201 }),
  withdrawKey: remove("/keys/{id}", manage),
  uses: get("/uses", { asks: usesAsking, answers: usesAnswer }),
  usesFile: get("/uses.csv", { asks: usesAsking, sends: "file" }),

  lookups: get("/lookups", { answers: earlierLookups }),
  keepLookup: post("/lookups", { asks: keepLookupAsking }),
  forgetLookups: remove("/lookups", {}),
  keepingLookups: put("/lookups/keeping", { asks: keepsLookupsAsking, answers: earlierLookups }),

  data: get("/data", { answers: dataAnswer }),
  handIn: post("/files", { ...edit, asks: fileAsking, takes: "file", answers: fileAnswer, status: 201 }),
  lookAtFile: post("/files/{id}/look", { ...edit, asks: lookAtFileAsking, answers: fileStart }),
  makeLoad: post("/loads", { ...edit, asks: makeLoadAsking, answers: made, status: 202 }),
  publishData: post("/publications", { ...edit, asks: publishAsking, answers: made, status: 202 }),
  dropVersion: remove("/versions/{id}", edit),
  oddRows: get("/versions/{id}/rows", { asks: oddRowsAsking, answers: oddRows }),
  refusedFile: get("/versions/{id}/refused.csv", { sends: "file" }),
  versionFile: get("/versions/{id}/out.{format}", { asks: outAsking, sends: "file" }),
  coverage: get("/versions/{id}/coverage", { asks: coverageAsking, answers: coverageAnswer }),
  difference: get("/versions/{id}/difference", { asks: differenceAsking, answers: versionDifference }),

  jobs: get("/jobs", { answers: jobList }),
  jobEvents: get("/jobs/events", { sends: "events" }),
  steerJob: post("/jobs/{id}/{to}", edit),

  batches: get("/batches", { answers: batchList }),
  makeBatch: post("/batches", {
    ...edit,
    asks: makeBatchAsking,
    answers: z.object({ batch: z.int(), job: z.int() }),
    status: 202,
  }),
  batch: get("/batches/{id}", { answers: batchDetail }),
  dropBatch: remove("/batches/{id}", edit),
  batchRows: get("/batches/{id}/rows", { asks: listRowsAsking, answers: batchRows }),
  batchPoints: get("/batches/{id}/points", { answers: batchPoints }),
  batchValues: get("/batches/{id}/values", { asks: batchValuesAsking, answers: batchValues }),
  batchRow: get("/batches/{id}/rows/{number}", { asks: candidatesAsking, answers: batchCandidates }),
  decideRow: post("/batches/{id}/rows/{number}/decision", { ...edit, asks: decideAsking }),
  takeBack: post("/batches/{id}/back", { ...edit, answers: z.object({ number: z.int() }) }),
  batchFile: get("/batches/{id}/out.{format}", { asks: batchOutAsking, sends: "file" }),

  services: get("/services", { answers: serviceList }),
  service: get("/services/{name}", { answers: heldService }),
  saveService: put("/services/{name}", { ...manage, asks: saveServiceAsking, answers: heldService }),
  dropService: remove("/services/{name}", manage),
  tryService: post("/services/{name}/try", { ...edit, asks: tryServiceAsking, answers: triedService }),
  readWsdl: post("/wsdl", { ...manage, asks: wsdlAsking, answers: wsdlAnswer }),
  secrets: get("/secrets", { ...edit, answers: secretList }),
  setSecret: put("/secrets/{name}", { ...manage, asks: setSecretAsking }),
  dropSecret: remove("/secrets/{name}", manage),
  hosts: get("/hosts", { ...edit, answers: hostList }),
  allowHost: post("/hosts", { ...manage, asks: allowHostAsking, answers: hostList, status: 201 }),
  refuseHost: remove("/hosts/{id}", manage),

  corrections: get("/corrections", { answers: correctionList }),
  makeCorrection: post("/corrections", { ...edit, asks: correctAsking, answers: numbered, status: 201 }),
  decideCorrection: put("/corrections/{id}", { ...edit, asks: decideCorrectionAsking }),
} as const satisfies Record<string, OwnCall>;

export type OwnCallName = keyof typeof OWN_CALLS;
type Declared<N extends OwnCallName> = (typeof OWN_CALLS)[N];
type Nothing = Record<never, never>;

/** What a call asks, as the server reads it. */
export type OwnAsks<N extends OwnCallName> =
  Declared<N> extends { asks: infer S extends z.ZodType } ? z.output<S> : Nothing;
/** What a call asks, as it is written by whoever asks. */
type OwnWritten<N extends OwnCallName> = Declared<N> extends { asks: infer S extends z.ZodType } ? z.input<S> : Nothing;
/** Names of the parts of a path that are asked for. */
export type OwnPart<N extends OwnCallName> = PartIn<Declared<N>["path"]>;
/** What a call answers; nothing for one that has only a status, or sends what is no JSON. */
export type OwnAnswer<N extends OwnCallName> =
  // biome-ignore lint/suspicious/noConfusingVoidType: it is what a handler returns
  Declared<N> extends { answers: infer S extends z.ZodType } ? z.output<S> : void;

/** A request of a call: the parts of its path, and what it asks, where it has any. */
export type OwnRequest<N extends OwnCallName> = ([OwnPart<N>] extends [never]
  ? unknown
  : { parts: Readonly<Record<OwnPart<N>, string | number>> }) &
  (Declared<N> extends { asks: z.ZodType } ? { asks: OwnWritten<N> } : unknown);

/** Method, path and what is sent of a request, as `fetch` takes them. @param from path of what serves the workbench's calls */
export function ownRequest<N extends OwnCallName>(
  name: N,
  request: OwnRequest<N>,
  from = "/api",
): { url: string; method: OwnCall["method"]; body?: object } {
  const { method, path, takes }: OwnCall = OWN_CALLS[name];
  const { parts = {}, asks = {} } = request as { parts?: Record<string, string | number>; asks?: object };
  const url = `${from}${path.replace(/\{(\w+)\}/g, (_, part: string) => encodeURIComponent(parts[part]))}`;
  if (method !== "GET" && !takes) return { url, method, body: asks };
  const query = Object.entries(asks)
    .filter(([, value]) => value !== undefined)
    .map(([word, value]) => `${word}=${encodeURIComponent(String(value))}`);
  return { url: query.length ? `${url}?${query.join("&")}` : url, method };
}
