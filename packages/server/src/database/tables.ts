// Made from the database of the newest version; UPDATE_DOCS=1 npm run test:server -- tables writes it anew.

import type { Ring } from "@bibliotope/core/geo";
import type { MapFeature, MapLayer } from "@bibliotope/core/map";
import type { AreaKind, Facts, Name } from "@bibliotope/core/place";
import type { Service } from "@bibliotope/core/service";
import type {
  AllowedHost,
  JobKind,
  JobState,
  KeyCall,
  KeyKind,
  Role,
  RowStatus,
  VersionSummary,
} from "@bibliotope/wire";
import type { Knex } from "knex";
import type { StoredChange } from "../corrections/corrections.repository.ts";

/** Rows of each table as the driver gives them. */
export interface Rows {
  addresses: {
    version_id: number;
    identity: number;
    country: string;
    lat: number;
    lon: number;
    street: number;
    number: number | null;
    suffix: string;
    postcode: number | null;
    name: string | null;
    unit: string | null;
  };
  areas: {
    version_id: number;
    identity: number;
    country: string;
    lat: number;
    lon: number;
    parent: number | null;
    kind: AreaKind;
    code: string | null;
    names: Name[];
    population: number;
    importance: number;
    rings: Ring[];
  };
  batch_decisions: {
    id: number;
    batch_id: number;
    number: number;
    how: string;
    answer: Pick<Rows["batch_results"], "standing" | "answer" | "decision"> | null;
    made_by: number | null;
    made_at: Date;
  };
  batch_results: {
    batch_id: number;
    number: number;
    standing: RowStatus;
    asked: string;
    score: number | null;
    distance: number | null;
    others: number;
    answer: unknown;
    decision: string | null;
    register: unknown;
  };
  batch_rows: { batch_id: number; number: number; cells: string[] };
  batches: {
    id: number;
    name: string;
    job_id: number | null;
    key_id: number | null;
    reading: unknown;
    ask: string;
    heads: unknown;
    made_by: number | null;
    made_at: Date;
    rows: number | null;
    register: string | null;
  };
  brought_rows: {
    version_id: number;
    number: number;
    kind: string;
    is_refused: boolean;
    words: string;
    column_number: number | null;
    cells: string[] | null;
  };
  choices: { hour: Date; key_id: number; letters: number; count: string };
  corrections: {
    id: number;
    state: string;
    ref: string | null;
    country: string | null;
    identity: number | null;
    line: string;
    change: StoredChange;
    note: string;
    key_id: number | null;
    made_by: number | null;
    made_at: Date;
    decided_by: number | null;
    decided_at: Date | null;
  };
  data_set_versions: {
    id: number;
    data_set_id: number;
    number: number;
    day: Date;
    created_at: Date;
    file_name: string | null;
    counts: VersionSummary["counts"] | null;
    checks: Record<string, number> | null;
    made_by: number | null;
    job_id: number | null;
  };
  data_sets: { id: number; name: string; licence: string; trust: number; source: string; reading: unknown };
  files: { id: string; name: string; bytes: string; made_at: Date };
  form_versions: { form_id: number; number: number; revision: number; definition: unknown; published_at: Date };
  forms: { id: number; ref: string; revision: number; draft: unknown; saved_at: Date };
  height_grids: {
    id: number;
    version_id: number;
    west: number;
    south: number;
    step_lon: number;
    step_lat: number;
    columns: number;
    rows: number;
    metres: Buffer;
  };
  identities: { id: number; data_set_id: number; natural_key: string; replaced_by: number | null };
  installation: { history: string };
  jobs: {
    id: number;
    kind: JobKind;
    state: JobState;
    wanted: "paused" | "cancelled" | null;
    asked: unknown;
    title: string;
    done: number;
    total: number;
    words: string;
    result: unknown;
    made_by: number | null;
    made_at: Date;
    began_at: Date | null;
    ended_at: Date | null;
  };
  keys: {
    id: number;
    kind: KeyKind;
    name: string;
    key_hash: string;
    origins: string[];
    created_at: Date;
    withdrawn_at: Date | null;
    calls: KeyCall[];
    countries: string[];
    ends_at: Date | null;
    used_at: Date | null;
    per_minute: number | null;
    per_day: number | null;
  };
  lookups: { id: number; user_id: number; asked: string; outcome: string; found: number; asked_at: Date };
  map_features: {
    version_id: number;
    number: number;
    layer: MapLayer;
    rank: number;
    names: NonNullable<MapFeature["properties"]["names"]>;
    identity: number | null;
    country: string | null;
    properties: Omit<MapFeature["properties"], "layer" | "rank" | "names">;
    geometry: MapFeature["geometry"];
  };
  passkeys: {
    id: string;
    user_id: number;
    name: string;
    public_key: Buffer;
    counter: string;
    transports: string[];
    made_at: Date;
    used_at: Date | null;
  };
  permits: { key_id: number; amount: string; turn: number; began: Date; taken: number };
  places: {
    version_id: number;
    identity: number;
    country: string;
    lat: number;
    lon: number;
    area: number;
    address: number | null;
    kinds: string[];
    names: Name[];
    importance: number;
    facts: Facts;
  };
  postcodes: {
    version_id: number;
    identity: number;
    country: string;
    lat: number;
    lon: number;
    code: string;
    area: number;
  };
  publication_versions: { publication_id: number; position: number; version_id: number };
  publications: { id: number; created_at: Date; made_by: number | null; why: string; job_id: number | null };
  rehearsals: {
    id: number;
    form_id: number;
    name: string;
    situation: string;
    steps: unknown;
    expected: unknown;
    kept_at: Date;
    states: unknown;
  };
  retention: { what: string; days: number };
  service_hosts: {
    id: number;
    scheme: AllowedHost["scheme"];
    host: string;
    port: number;
    is_inside: boolean;
    stand_in: string | null;
    for_pictures: boolean;
  };
  service_secrets: { name: string; sealed: Buffer; set_at: Date };
  services: { name: string; revision: number; definition: Service; saved_at: Date };
  sessions: {
    token_hash: string;
    user_id: number;
    expires_at: Date;
    family: string | null;
    previous_hash: string | null;
    rotated_at: Date;
    made_at: Date;
    seen_at: Date;
    agent: string;
    address: string;
  };
  sign_in_links: { token_hash: string; user_id: number; expires_at: Date; used_at: Date | null };
  sign_in_places: { user_id: number; address: string; seen_at: Date };
  sign_in_tries: { id: string; name_key: string; address: string; at: Date };
  stored_chunks: { name: string; number: number; data: Buffer };
  stored_files: { name: string; bytes: string; sha256: string; made_at: Date };
  streets: {
    version_id: number;
    identity: number;
    country: string;
    lat: number;
    lon: number;
    kind: "street" | "block";
    area: number;
    names: Name[];
    importance: number;
  };
  traces: { id: number; form_id: number; about: string; events: unknown; count: number; kept_at: Date };
  used_challenges: { challenge: string; at: Date };
  users: {
    id: number;
    name: string;
    keeps_lookups: boolean;
    role: Role;
    password_hash: string | null;
    signed_in_at: Date | null;
    name_key: string;
    codes_secret: Buffer | null;
    codes_since: Date | null;
    codes_step: string | null;
  };
  uses: { hour: Date; key_id: number; call: string; outcome: string; bucket: number; count: string };
}

/** A table some columns of which are written otherwise than they are read. */
type Written<Row, Columns> = Knex.CompositeTableType<
  Row,
  {
    [Column in keyof Row]?:
      | (Column extends keyof Columns ? Columns[Column] : Row[Column])
      | Knex.Raw
      | Knex.Ref<string, object>;
  }
>;

declare module "knex/types/tables.js" {
  interface Tables {
    addresses: Rows["addresses"];
    areas: Written<Rows["areas"], { names: string | Name[]; rings: string | Ring[] }>;
    batch_decisions: Written<
      Rows["batch_decisions"],
      {
        answer: string | Pick<Rows["batch_results"], "standing" | "answer" | "decision"> | null;
        made_at: string | Date;
      }
    >;
    batch_results: Written<Rows["batch_results"], { answer: string | unknown; register: string | unknown }>;
    batch_rows: Rows["batch_rows"];
    batches: Written<Rows["batches"], { reading: string | unknown; heads: string | unknown; made_at: string | Date }>;
    brought_rows: Written<Rows["brought_rows"], { cells: string | string[] | null }>;
    choices: Written<Rows["choices"], { hour: string | Date; count: number | string }>;
    corrections: Written<
      Rows["corrections"],
      { change: string | StoredChange; made_at: string | Date; decided_at: string | Date | null }
    >;
    data_set_versions: Written<
      Rows["data_set_versions"],
      {
        day: string | Date;
        created_at: string | Date;
        counts: string | VersionSummary["counts"] | null;
        checks: string | Record<string, number> | null;
      }
    >;
    data_sets: Written<Rows["data_sets"], { reading: string | unknown }>;
    files: Written<Rows["files"], { bytes: number | string; made_at: string | Date }>;
    form_versions: Written<Rows["form_versions"], { definition: string | unknown; published_at: string | Date }>;
    forms: Written<Rows["forms"], { draft: string | unknown; saved_at: string | Date }>;
    height_grids: Rows["height_grids"];
    identities: Rows["identities"];
    installation: Rows["installation"];
    jobs: Written<
      Rows["jobs"],
      {
        asked: string | unknown;
        result: string | unknown;
        made_at: string | Date;
        began_at: string | Date | null;
        ended_at: string | Date | null;
      }
    >;
    keys: Written<
      Rows["keys"],
      {
        created_at: string | Date;
        withdrawn_at: string | Date | null;
        ends_at: string | Date | null;
        used_at: string | Date | null;
      }
    >;
    lookups: Written<Rows["lookups"], { asked_at: string | Date }>;
    map_features: Written<
      Rows["map_features"],
      {
        names: string | NonNullable<MapFeature["properties"]["names"]>;
        properties: string | Omit<MapFeature["properties"], "layer" | "rank" | "names">;
        geometry: string | MapFeature["geometry"];
      }
    >;
    passkeys: Written<
      Rows["passkeys"],
      { counter: number | string; made_at: string | Date; used_at: string | Date | null }
    >;
    permits: Written<Rows["permits"], { began: string | Date }>;
    places: Written<Rows["places"], { names: string | Name[]; facts: string | Facts }>;
    postcodes: Rows["postcodes"];
    publication_versions: Rows["publication_versions"];
    publications: Written<Rows["publications"], { created_at: string | Date }>;
    rehearsals: Written<
      Rows["rehearsals"],
      { steps: string | unknown; expected: string | unknown; kept_at: string | Date; states: string | unknown }
    >;
    retention: Rows["retention"];
    service_hosts: Rows["service_hosts"];
    service_secrets: Written<Rows["service_secrets"], { set_at: string | Date }>;
    services: Written<Rows["services"], { definition: string | Service; saved_at: string | Date }>;
    sessions: Written<
      Rows["sessions"],
      { expires_at: string | Date; rotated_at: string | Date; made_at: string | Date; seen_at: string | Date }
    >;
    sign_in_links: Written<Rows["sign_in_links"], { expires_at: string | Date; used_at: string | Date | null }>;
    sign_in_places: Written<Rows["sign_in_places"], { seen_at: string | Date }>;
    sign_in_tries: Written<Rows["sign_in_tries"], { id: number | string; at: string | Date }>;
    stored_chunks: Rows["stored_chunks"];
    stored_files: Written<Rows["stored_files"], { bytes: number | string; made_at: string | Date }>;
    streets: Written<Rows["streets"], { names: string | Name[] }>;
    traces: Written<Rows["traces"], { events: string | unknown; kept_at: string | Date }>;
    used_challenges: Written<Rows["used_challenges"], { at: string | Date }>;
    users: Written<
      Rows["users"],
      { signed_in_at: string | Date | null; codes_since: string | Date | null; codes_step: number | string | null }
    >;
    uses: Written<Rows["uses"], { hour: string | Date; count: number | string }>;
  }
}
