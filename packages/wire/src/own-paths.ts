/** Where a call of the workbench is made. */
export interface OwnPath {
  method: "GET" | "POST" | "PUT" | "DELETE";
  /** Behind `/api`; parts that are requested stand in braces. */
  path: `/${string}`;
  /** The body is a file as it is. */
  takes?: "file";
}

const get = <const P extends `/${string}`>(path: P) => ({ method: "GET", path }) as const;
const post = <const P extends `/${string}`>(path: P) => ({ method: "POST", path }) as const;
const put = <const P extends `/${string}`>(path: P) => ({ method: "PUT", path }) as const;
const remove = <const P extends `/${string}`>(path: P) => ({ method: "DELETE", path }) as const;

/**
 * Method and path of every call of /api. A page of the workbench needs these alone: what is requested and answered is
 * checked by the server, and known to the page by its types.
 */
export const OWN_PATHS = {
  linkKey: get("/link-key"),
  renewLinkKey: put("/link-key"),

  retention: get("/retention"),
  setRetention: put("/retention/{what}"),

  session: get("/session"),
  signOut: remove("/session"),
  sessions: get("/sessions"),
  endOtherSessions: remove("/sessions/others"),
  changePassword: put("/password"),
  secondFactor: get("/second-factor"),
  beginCodes: post("/second-factor/codes"),
  confirmCodes: put("/second-factor/codes"),
  dropCodes: post("/second-factor/codes/off"),
  askPasskey: post("/passkeys/options"),
  keepPasskey: post("/passkeys"),
  dropPasskey: post("/passkeys/{id}/off"),
  people: get("/people"),
  makePerson: post("/people"),
  changePerson: put("/people/{id}"),
  personData: get("/people/{id}/data"),
  removePerson: remove("/people/{id}"),

  forms: get("/forms"),
  formSchema: get("/forms/schema.json"),
  form: get("/forms/{ref}"),
  versions: get("/forms/{ref}/versions"),
  makeForm: post("/forms"),
  saveDraft: put("/forms/{ref}/draft"),
  publishForm: post("/forms/{ref}/publish"),
  rehearsals: get("/forms/{ref}/rehearsals"),
  keepRehearsal: post("/forms/{ref}/rehearsals"),
  dropRehearsal: remove("/forms/{ref}/rehearsals/{id}"),
  traces: get("/forms/{ref}/traces"),
  trace: get("/forms/{ref}/traces/{id}"),
  keepTrace: post("/forms/{ref}/traces"),

  keys: get("/keys"),
  makeKey: post("/keys"),
  changeKey: put("/keys/{id}"),
  replaceKey: post("/keys/{id}/replace"),
  withdrawKey: remove("/keys/{id}"),
  uses: get("/uses"),
  usesFile: get("/uses.csv"),

  lookups: get("/lookups"),
  keepLookup: post("/lookups"),
  forgetLookups: remove("/lookups"),
  keepingLookups: put("/lookups/keeping"),

  data: get("/data"),
  handIn: { ...post("/files"), takes: "file" },
  inspectFile: post("/files/{id}/look"),
  makeLoad: post("/loads"),
  publishData: post("/publications"),
  dropVersion: remove("/versions/{id}"),
  oddRows: get("/versions/{id}/rows"),
  refusedFile: get("/versions/{id}/refused.csv"),
  versionFile: get("/versions/{id}/out.{format}"),
  liveCoverage: get("/coverage"),
  coverage: get("/versions/{id}/coverage"),
  difference: get("/versions/{id}/difference"),

  jobs: get("/jobs"),
  jobEvents: get("/jobs/events"),
  steerJob: post("/jobs/{id}/{to}"),

  batches: get("/batches"),
  makeBatch: post("/batches"),
  batch: get("/batches/{id}"),
  dropBatch: remove("/batches/{id}"),
  batchRows: get("/batches/{id}/rows"),
  batchPoints: get("/batches/{id}/points"),
  batchValues: get("/batches/{id}/values"),
  batchRow: get("/batches/{id}/rows/{number}"),
  decideRow: post("/batches/{id}/rows/{number}/decision"),
  takeBack: post("/batches/{id}/back"),
  batchFile: get("/batches/{id}/out.{format}"),

  services: get("/services"),
  service: get("/services/{name}"),
  saveService: put("/services/{name}"),
  dropService: remove("/services/{name}"),
  tryService: post("/services/{name}/try"),
  readWsdl: post("/wsdl"),
  secrets: get("/secrets"),
  setSecret: put("/secrets/{name}"),
  dropSecret: remove("/secrets/{name}"),
  hosts: get("/hosts"),
  allowHost: post("/hosts"),
  refuseHost: remove("/hosts/{id}"),

  corrections: get("/corrections"),
  makeCorrection: post("/corrections"),
  decideCorrection: put("/corrections/{id}"),
} as const satisfies Readonly<Record<string, OwnPath>>;

export type OwnCallName = keyof typeof OWN_PATHS;
