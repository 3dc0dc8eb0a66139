import * as z from "zod";
import {
  batchCandidates,
  batchDetail,
  batchList,
  batchOutRequest,
  batchPoints,
  batchRows,
  batchValues,
  batchValuesRequest,
  candidatesRequest,
  decideRequest,
  listRowsRequest,
  makeBatchRequest,
} from "./batches.ts";
import type { PartIn } from "./call.ts";
import { correctionList, correctRequest, decideCorrectionRequest } from "./corrections.ts";
import { coverageAnswer } from "./coverage.ts";
import {
  coverageRequest,
  dataAnswer,
  differenceRequest,
  fileAnswer,
  fileRequest,
  fileStart,
  jobList,
  lookAtFileRequest,
  makeLoadRequest,
  oddRows,
  oddRowsRequest,
  outRequest,
  publishRequest,
  versionDifference,
} from "./data.ts";
import { formDefinitionSchema } from "./form.ts";
import {
  changeKeyRequest,
  changePasswordRequest,
  changePersonRequest,
  earlierLookups,
  formDraft,
  formList,
  formVersions,
  keepLookupRequest,
  keepsLookupsRequest,
  keyList,
  keySummary,
  linkKeyAnswer,
  madeKey,
  makeKeyRequest,
  makePersonRequest,
  peopleList,
  personData,
  publishFormRequest,
  type Role,
  renewLinkKeyRequest,
  replaceKeyRequest,
  retentionAnswer,
  saveDraftRequest,
  sessionAnswer,
  sessionList,
  setRetentionRequest,
  usesAnswer,
  usesRequest,
} from "./manage.ts";
import { keepRehearsalRequest, keepTraceRequest, keptRehearsals, keptTrace, keptTraceList } from "./rehearsal.ts";
import {
  againRequest,
  begunCodes,
  confirmCodesRequest,
  keepPasskeyRequest,
  passkeyOptions,
  secondFactorAnswer,
} from "./second-factor.ts";
import {
  allowHostRequest,
  heldService,
  hostList,
  saveServiceRequest,
  secretList,
  serviceList,
  setSecretRequest,
  triedService,
  tryServiceRequest,
  wsdlAnswer,
  wsdlRequest,
} from "./services.ts";

/**
 * A call of the workbench, behind `/api` and a session. The server's routes, what each role may do, the workbench's requests and
 * the types of both are made from it.
 */
export interface OwnCall {
  method: "GET" | "POST" | "PUT" | "DELETE";
  /** Behind `/api`; parts that are requested stand in braces. */
  path: `/${string}`;
  /** Who may, at the least; everybody who is signed in when not given. */
  role?: Role;
  /** The request: in the query string of GET and beside a file, as JSON otherwise. */
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
  renewLinkKey: put("/link-key", { ...manage, asks: renewLinkKeyRequest, answers: linkKeyAnswer }),

  retention: get("/retention", { answers: retentionAnswer }),
  setRetention: put("/retention/{what}", { ...manage, asks: setRetentionRequest, answers: retentionAnswer }),

  session: get("/session", { answers: sessionAnswer }),
  signOut: remove("/session", {}),
  sessions: get("/sessions", { answers: sessionList }),
  endOtherSessions: remove("/sessions/others", {}),
  changePassword: put("/password", { asks: changePasswordRequest }),
  secondFactor: get("/second-factor", { answers: secondFactorAnswer }),
  beginCodes: post("/second-factor/codes", { asks: againRequest, answers: begunCodes, status: 201 }),
  confirmCodes: put("/second-factor/codes", { asks: confirmCodesRequest, answers: secondFactorAnswer }),
  dropCodes: post("/second-factor/codes/off", { asks: againRequest, answers: secondFactorAnswer }),
  askPasskey: post("/passkeys/options", { asks: againRequest, answers: passkeyOptions }),
  keepPasskey: post("/passkeys", { asks: keepPasskeyRequest, answers: secondFactorAnswer, status: 201 }),
  dropPasskey: post("/passkeys/{id}/off", { asks: againRequest, answers: secondFactorAnswer }),
  people: get("/people", { ...manage, answers: peopleList }),
  makePerson: post("/people", { ...manage, asks: makePersonRequest, answers: peopleList, status: 201 }),
  changePerson: put("/people/{id}", { ...manage, asks: changePersonRequest, answers: peopleList }),
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
  saveDraft: put("/forms/{ref}/draft", { ...edit, asks: saveDraftRequest, answers: formDraft }),
  publishForm: post("/forms/{ref}/publish", { ...edit, asks: publishFormRequest, answers: formDraft }),
  rehearsals: get("/forms/{ref}/rehearsals", { answers: keptRehearsals }),
  keepRehearsal: post("/forms/{ref}/rehearsals", {
    ...edit,
    asks: keepRehearsalRequest,
    answers: keptRehearsals,
    status: 201,
  }),
  dropRehearsal: remove("/forms/{ref}/rehearsals/{id}", edit),
  traces: get("/forms/{ref}/traces", { answers: keptTraceList }),
  trace: get("/forms/{ref}/traces/{id}", { answers: keptTrace }),
  keepTrace: post("/forms/{ref}/traces", { ...edit, asks: keepTraceRequest, answers: numbered, status: 201 }),

  keys: get("/keys", { answers: keyList }),
  makeKey: post("/keys", { ...manage, asks: makeKeyRequest, answers: madeKey, status: 201 }),
  changeKey: put("/keys/{id}", { ...manage, asks: changeKeyRequest, answers: keySummary }),
  replaceKey: post("/keys/{id}/replace", { ...manage, asks: replaceKeyRequest, answers: madeKey, status: 201 }),
  withdrawKey: remove("/keys/{id}", manage),
  uses: get("/uses", { asks: usesRequest, answers: usesAnswer }),
  usesFile: get("/uses.csv", { asks: usesRequest, sends: "file" }),

  lookups: get("/lookups", { answers: earlierLookups }),
  keepLookup: post("/lookups", { asks: keepLookupRequest }),
  forgetLookups: remove("/lookups", {}),
  keepingLookups: put("/lookups/keeping", { asks: keepsLookupsRequest, answers: earlierLookups }),

  data: get("/data", { answers: dataAnswer }),
  handIn: post("/files", { ...edit, asks: fileRequest, takes: "file", answers: fileAnswer, status: 201 }),
  lookAtFile: post("/files/{id}/look", { ...edit, asks: lookAtFileRequest, answers: fileStart }),
  makeLoad: post("/loads", { ...edit, asks: makeLoadRequest, answers: made, status: 202 }),
  publishData: post("/publications", { ...edit, asks: publishRequest, answers: made, status: 202 }),
  dropVersion: remove("/versions/{id}", edit),
  oddRows: get("/versions/{id}/rows", { asks: oddRowsRequest, answers: oddRows }),
  refusedFile: get("/versions/{id}/refused.csv", { sends: "file" }),
  versionFile: get("/versions/{id}/out.{format}", { asks: outRequest, sends: "file" }),
  coverage: get("/versions/{id}/coverage", { asks: coverageRequest, answers: coverageAnswer }),
  difference: get("/versions/{id}/difference", { asks: differenceRequest, answers: versionDifference }),

  jobs: get("/jobs", { answers: jobList }),
  jobEvents: get("/jobs/events", { sends: "events" }),
  steerJob: post("/jobs/{id}/{to}", edit),

  batches: get("/batches", { answers: batchList }),
  makeBatch: post("/batches", {
    ...edit,
    asks: makeBatchRequest,
    answers: z.object({ batch: z.int(), job: z.int() }),
    status: 202,
  }),
  batch: get("/batches/{id}", { answers: batchDetail }),
  dropBatch: remove("/batches/{id}", edit),
  batchRows: get("/batches/{id}/rows", { asks: listRowsRequest, answers: batchRows }),
  batchPoints: get("/batches/{id}/points", { answers: batchPoints }),
  batchValues: get("/batches/{id}/values", { asks: batchValuesRequest, answers: batchValues }),
  batchRow: get("/batches/{id}/rows/{number}", { asks: candidatesRequest, answers: batchCandidates }),
  decideRow: post("/batches/{id}/rows/{number}/decision", { ...edit, asks: decideRequest }),
  takeBack: post("/batches/{id}/back", { ...edit, answers: z.object({ number: z.int() }) }),
  batchFile: get("/batches/{id}/out.{format}", { asks: batchOutRequest, sends: "file" }),

  services: get("/services", { answers: serviceList }),
  service: get("/services/{name}", { answers: heldService }),
  saveService: put("/services/{name}", { ...manage, asks: saveServiceRequest, answers: heldService }),
  dropService: remove("/services/{name}", manage),
  tryService: post("/services/{name}/try", { ...edit, asks: tryServiceRequest, answers: triedService }),
  readWsdl: post("/wsdl", { ...manage, asks: wsdlRequest, answers: wsdlAnswer }),
  secrets: get("/secrets", { ...edit, answers: secretList }),
  setSecret: put("/secrets/{name}", { ...manage, asks: setSecretRequest }),
  dropSecret: remove("/secrets/{name}", manage),
  hosts: get("/hosts", { ...edit, answers: hostList }),
  allowHost: post("/hosts", { ...manage, asks: allowHostRequest, answers: hostList, status: 201 }),
  refuseHost: remove("/hosts/{id}", manage),

  corrections: get("/corrections", { answers: correctionList }),
  makeCorrection: post("/corrections", { ...edit, asks: correctRequest, answers: numbered, status: 201 }),
  decideCorrection: put("/corrections/{id}", { ...edit, asks: decideCorrectionRequest }),
} as const satisfies Record<string, OwnCall>;

export type OwnCallName = keyof typeof OWN_CALLS;
type Declared<N extends OwnCallName> = (typeof OWN_CALLS)[N];
type Nothing = Record<never, never>;

/** What a call asks, as the server reads it. */
export type OwnAsks<N extends OwnCallName> =
  Declared<N> extends { asks: infer S extends z.ZodType } ? z.output<S> : Nothing;
/** What a call asks, as it is written by whoever asks. */
type OwnWritten<N extends OwnCallName> = Declared<N> extends { asks: infer S extends z.ZodType } ? z.input<S> : Nothing;
/** Names of the parts of a path that are requested. */
export type OwnPart<N extends OwnCallName> = PartIn<Declared<N>["path"]>;
/** What a call answers; nothing for one that has only a status, or sends what is no JSON. */
export type OwnAnswer<N extends OwnCallName> =
  // biome-ignore lint/suspicious/noConfusingVoidType: it is what a handler returns
  Declared<N> extends { answers: infer S extends z.ZodType } ? z.output<S> : void;

/** A request of a call: the parts of the path, and what it asks, where it has any. */
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
