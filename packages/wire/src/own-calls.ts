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
import { coverageAnswer, liveCoverageAnswer } from "./coverage.ts";
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
import { OWN_PATHS, type OwnCallName, type OwnPath } from "./own-paths.ts";
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
export interface OwnCall extends OwnPath {
  /** Who may, at the least; everybody who is signed in when not given. */
  role?: Role;
  /** The request: in the query string of GET and beside a file, as JSON otherwise. */
  asks?: z.ZodType;
  /** What is answered, as JSON; nothing when not given. */
  answers?: z.ZodType;
  /** Status of what is answered; 200 or 204 when not given. */
  status?: 201 | 202;
  /** The answer is a file, or a line that stays open: no JSON. */
  sends?: "file" | "events";
}

const edit = { role: "edit" } as const;
const manage = { role: "manage" } as const;
const made = z.object({ job: z.int() });
const numbered = z.object({ id: z.int() });

/** What is known of each call beyond its method and path. */
const DECLARED = {
  linkKey: { ...manage, answers: linkKeyAnswer },
  renewLinkKey: { ...manage, asks: renewLinkKeyRequest, answers: linkKeyAnswer },

  retention: { answers: retentionAnswer },
  setRetention: { ...manage, asks: setRetentionRequest, answers: retentionAnswer },

  session: { answers: sessionAnswer },
  signOut: {},
  sessions: { answers: sessionList },
  endOtherSessions: {},
  changePassword: { asks: changePasswordRequest },
  secondFactor: { answers: secondFactorAnswer },
  beginCodes: { asks: againRequest, answers: begunCodes, status: 201 },
  confirmCodes: { asks: confirmCodesRequest, answers: secondFactorAnswer },
  dropCodes: { asks: againRequest, answers: secondFactorAnswer },
  askPasskey: { asks: againRequest, answers: passkeyOptions },
  keepPasskey: { asks: keepPasskeyRequest, answers: secondFactorAnswer, status: 201 },
  dropPasskey: { asks: againRequest, answers: secondFactorAnswer },
  people: { ...manage, answers: peopleList },
  makePerson: { ...manage, asks: makePersonRequest, answers: peopleList, status: 201 },
  changePerson: { ...manage, asks: changePersonRequest, answers: peopleList },
  personData: { ...manage, answers: personData },
  removePerson: manage,

  forms: { answers: formList },
  formSchema: { sends: "file" },
  form: { answers: formDraft },
  versions: { answers: formVersions },
  makeForm: {
    ...edit,
    asks: z.strictObject({ definition: formDefinitionSchema }),
    answers: formDraft,
    status: 201,
  },
  saveDraft: { ...edit, asks: saveDraftRequest, answers: formDraft },
  publishForm: { ...edit, asks: publishFormRequest, answers: formDraft },
  rehearsals: { answers: keptRehearsals },
  keepRehearsal: {
    ...edit,
    asks: keepRehearsalRequest,
    answers: keptRehearsals,
    status: 201,
  },
  dropRehearsal: edit,
  traces: { answers: keptTraceList },
  trace: { answers: keptTrace },
  keepTrace: { ...edit, asks: keepTraceRequest, answers: numbered, status: 201 },

  keys: { answers: keyList },
  makeKey: { ...manage, asks: makeKeyRequest, answers: madeKey, status: 201 },
  changeKey: { ...manage, asks: changeKeyRequest, answers: keySummary },
  replaceKey: { ...manage, asks: replaceKeyRequest, answers: madeKey, status: 201 },
  withdrawKey: manage,
  uses: { asks: usesRequest, answers: usesAnswer },
  usesFile: { asks: usesRequest, sends: "file" },

  lookups: { answers: earlierLookups },
  keepLookup: { asks: keepLookupRequest },
  forgetLookups: {},
  keepingLookups: { asks: keepsLookupsRequest, answers: earlierLookups },

  data: { answers: dataAnswer },
  handIn: { ...edit, asks: fileRequest, answers: fileAnswer, status: 201 },
  inspectFile: { ...edit, asks: lookAtFileRequest, answers: fileStart },
  makeLoad: { ...edit, asks: makeLoadRequest, answers: made, status: 202 },
  publishData: { ...edit, asks: publishRequest, answers: made, status: 202 },
  dropVersion: edit,
  oddRows: { asks: oddRowsRequest, answers: oddRows },
  refusedFile: { sends: "file" },
  versionFile: { asks: outRequest, sends: "file" },
  liveCoverage: { answers: liveCoverageAnswer },
  coverage: { asks: coverageRequest, answers: coverageAnswer },
  difference: { asks: differenceRequest, answers: versionDifference },

  jobs: { answers: jobList },
  jobEvents: { sends: "events" },
  steerJob: edit,

  batches: { answers: batchList },
  makeBatch: {
    ...edit,
    asks: makeBatchRequest,
    answers: z.object({ batch: z.int(), job: z.int() }),
    status: 202,
  },
  batch: { answers: batchDetail },
  dropBatch: edit,
  batchRows: { asks: listRowsRequest, answers: batchRows },
  batchPoints: { answers: batchPoints },
  batchValues: { asks: batchValuesRequest, answers: batchValues },
  batchRow: { asks: candidatesRequest, answers: batchCandidates },
  decideRow: { ...edit, asks: decideRequest },
  takeBack: { ...edit, answers: z.object({ number: z.int() }) },
  batchFile: { asks: batchOutRequest, sends: "file" },

  services: { answers: serviceList },
  service: { answers: heldService },
  saveService: { ...manage, asks: saveServiceRequest, answers: heldService },
  dropService: manage,
  tryService: { ...edit, asks: tryServiceRequest, answers: triedService },
  readWsdl: { ...manage, asks: wsdlRequest, answers: wsdlAnswer },
  secrets: { ...edit, answers: secretList },
  setSecret: { ...manage, asks: setSecretRequest },
  dropSecret: manage,
  hosts: { ...edit, answers: hostList },
  allowHost: { ...manage, asks: allowHostRequest, answers: hostList, status: 201 },
  refuseHost: manage,

  corrections: { answers: correctionList },
  makeCorrection: { ...edit, asks: correctRequest, answers: numbered, status: 201 },
  decideCorrection: { ...edit, asks: decideCorrectionRequest },
} as const satisfies Readonly<Record<OwnCallName, Omit<OwnCall, keyof OwnPath>>>;

type Declared<N extends OwnCallName> = (typeof OWN_PATHS)[N] & (typeof DECLARED)[N];

/** Every call of /api. */
export const OWN_CALLS = Object.fromEntries(
  Object.entries(OWN_PATHS).map(([name, path]) => [name, { ...path, ...DECLARED[name as OwnCallName] }]),
) as { readonly [N in OwnCallName]: Declared<N> };

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
