import { GPX_FOOT, GPX_HEAD, rowOf, waypointOf } from "@bibliotope/core/formats";
import { type Correction, joinCorrections, renamed } from "@bibliotope/core/index";
import {
  type Facts,
  factText,
  formatHouseNumber,
  hoursLine,
  type Name,
  profileOf,
  refOf,
} from "@bibliotope/core/place";
import type { Knex } from "knex";
import { appliedCorrections } from "../corrections/corrections.repository.ts";
import type { Rows } from "../database/tables.ts";

export const OUT_FORMATS = { csv: "text/csv", geojson: "application/geo+json", gpx: "application/gpx+xml" } as const;
export type OutFormat = keyof typeof OUT_FORMATS;

/** A column of what goes out: its head, as `proposeColumns` reads it, and what is in it. */
interface Column {
  head: string;
  value: (row: OutRow) => string | number | undefined;
}

interface Around {
  identity: number;
  kind: string;
  names: Name[];
  code: string | null;
  importance: number;
  parent: number | null;
}

interface OutRow {
  identity: number;
  country: string;
  lat: number;
  lon: number;
  house: string;
  suffix: string;
  name: string | null;
  unit: string | null;
  postcode: string | undefined;
  street?: { kind: string; names: Name[] };
  place?: { kinds: string[]; names: Name[]; facts: Facts };
  importance: number;
  area: number;
}

/** The common facts, as columns that are read again. */
const FACT_COLUMNS: readonly (Column & { of: readonly (keyof Facts)[] })[] = [
  { of: ["phone"], head: "phone", value: ({ place }) => place?.facts.phone },
  { of: ["url"], head: "url", value: ({ place }) => place?.facts.url },
  {
    of: ["openingHours", "hoursText"],
    head: "hours",
    value: ({ place }) => {
      const { openingHours, hoursText } = place?.facts ?? {};
      return openingHours ? hoursLine(openingHours) : hoursText;
    },
  },
  { of: ["languages"], head: "languages", value: ({ place }) => place?.facts.languages?.join(";") },
  {
    of: ["stepFree"],
    head: "stepfree",
    value: ({ place }) => {
      const { stepFree } = place?.facts ?? {};
      return stepFree === undefined ? undefined : stepFree ? "yes" : "no";
    },
  },
];

/** Names and labels of the facts that the places of a version have beyond the common ones. */
async function ownFacts(database: Knex, version: number): Promise<{ name: string; label: string }[]> {
  const { rows } = await database.raw(
    `select name, min(fact ->> 'label') as label
     from places, jsonb_each(coalesce(facts -> 'own', '{}')) as own (name, fact)
     where version_id = ? group by name order by name`,
    [version],
  );
  return rows;
}

async function commonFacts(database: Knex, version: number): Promise<{ name: string }[]> {
  const { rows } = await database.raw(
    "select distinct name from places, jsonb_object_keys(facts) as name where version_id = ?",
    [version],
  );
  return rows;
}

const AREAS = ["district", "town", "county", "region"] as const;
/** Characters that are handed on at once. */
const PIECE = 65_536;

/** What of a version goes out. */
export interface ExportRequest {
  /** Identity of the area to which it is narrowed. */
  inside?: number;
  /** Whether with what was corrected by hand, as answers have it; else as it was imported. */
  isCorrected: boolean;
}

/** A version, or what lies in one of the areas, as a file: what `import` reads. */
export class Out {
  readonly #areas = new Map<number, Around>();
  readonly #postcodes = new Map<number, string>();
  readonly #streets = new Map<number, { kind: string; names: Name[]; area: number; importance: number }>();
  readonly #corrections = new Map<number, Correction>();
  /** Labels of the facts that places of this version have beyond the common ones, by name. */
  readonly #facts = new Map<string, string>();
  /** Common facts that any of them has. */
  readonly #common = new Set<string>();

  private constructor(
    private readonly database: Knex,
    private readonly version: number,
    private readonly inside: number | undefined,
  ) {}

  /** @returns undefined when the version has no such area */
  static async of(database: Knex, version: number, { inside, isCorrected }: ExportRequest): Promise<Out | undefined> {
    const out = new Out(database, version, inside);
    const of = { version_id: version };
    for (const row of await database("areas")
      .where(of)
      .select("identity", "kind", "names", "code", "importance", "parent"))
      out.#areas.set(row.identity, row);
    for (const row of await database("postcodes").where(of).select("identity", "code"))
      out.#postcodes.set(row.identity, row.code);
    for (const row of await database("streets").where(of).select("identity", "kind", "names", "area", "importance"))
      out.#streets.set(row.identity, row);
    if (inside !== undefined && !out.#areas.has(inside)) return undefined;
    for (const { name, label } of await ownFacts(database, version)) out.#facts.set(name, label);
    for (const { name } of await commonFacts(database, version)) out.#common.add(name);
    if (isCorrected)
      for (const one of joinCorrections(await appliedCorrections(database))) out.#corrections.set(one.identity, one);
    for (const { identity, name } of out.#corrections.values()) {
      const street = out.#streets.get(identity);
      if (street) street.names = renamed(street.names, name);
    }
    return out;
  }

  async *write(format: OutFormat): AsyncGenerator<string> {
    const columns = this.#columns();
    let piece = "";
    let isFirst = true;
    if (format === "csv") piece = rowOf(columns.map(({ head }) => head));
    else piece = format === "gpx" ? GPX_HEAD : '{"type":"FeatureCollection","features":[\n';
    for await (const row of this.#rows()) {
      if (format === "csv") piece += rowOf(columns.map(({ value }) => value(row)));
      else if (format === "gpx") piece += this.#waypoint(row);
      else piece += `${isFirst ? "" : ",\n"}${JSON.stringify(this.#feature(columns, row))}`;
      isFirst = false;
      if (piece.length < PIECE) continue;
      yield piece;
      piece = "";
    }
    if (format === "geojson") piece += "\n]}\n";
    yield format === "gpx" ? piece + GPX_FOOT : piece;
  }

  async *#rows(): AsyncGenerator<OutRow> {
    const of = { version_id: this.version };
    const addresses = this.database("addresses").where(of).orderBy("identity").stream();
    for await (const row of addresses as AsyncIterable<Rows["addresses"]>) {
      const to = this.#corrections.get(row.identity);
      if (!to?.isRemoved) yield* this.#address({ ...row, ...to?.house, ...to?.at });
    }
    for (const added of this.#corrections.values()) yield* await this.#added(added);
    const places = this.database("places").where(of).orderBy("identity").stream();
    for await (const row of places as AsyncIterable<Rows["places"]>) {
      const to = this.#corrections.get(row.identity);
      if (to?.isRemoved || !this.#isInside(row.area)) continue;
      const place = { ...row, names: renamed(row.names as Name[], to?.name) };
      yield { ...row, ...to?.at, house: "", suffix: "", name: null, unit: null, postcode: undefined, place };
    }
  }

  *#address(row: Omit<Rows["addresses"], "version_id">): Generator<OutRow> {
    const street = this.#streets.get(row.street)!;
    if (!this.#isInside(street.area)) return;
    yield {
      ...row,
      house: row.number === null ? "" : String(row.number),
      postcode: row.postcode === null ? undefined : this.#postcodes.get(row.postcode),
      street,
      importance: street.importance,
      area: street.area,
    };
  }

  /** An address that was added by hand; it has the postcode of one in the street. */
  async #added({ identity, street, house, at, isRemoved }: Correction): Promise<Iterable<OutRow>> {
    if (street === undefined || isRemoved || !house || !at || !this.#streets.has(street)) return [];
    const neighbour = await this.database("addresses")
      .where({ version_id: this.version, street })
      .orderBy("identity")
      .first("country", "postcode");
    if (!neighbour) return [];
    return this.#address({ ...neighbour, identity, street, ...house, ...at, name: null, unit: null });
  }

  #isInside(area: number): boolean {
    if (this.inside === undefined) return true;
    for (let at: number | null | undefined = area; at != null; at = this.#areas.get(at)?.parent)
      if (at === this.inside) return true;
    return false;
  }

  #around(area: number, kind: string): Around | undefined {
    for (let at: number | null | undefined = area; at != null; at = this.#areas.get(at)?.parent) {
      const existing = this.#areas.get(at);
      if (existing?.kind === kind) return existing;
    }
    return undefined;
  }

  #columns(): Column[] {
    const has = (kind: string) => [...this.#areas.values()].some((area) => area.kind === kind);
    const streets = [...this.#streets.values()];
    const blocks = streets.filter(({ kind }) => kind === "block");
    const of = (kind: string) => (row: OutRow) => (row.street?.kind === kind ? row.street.names : undefined);
    return [
      { head: "id", value: ({ country, identity }) => refOf(country, identity) },
      ...(streets.length > blocks.length ? named("street", streets, of("street")) : []),
      ...(blocks.length ? named("block", blocks, of("block")) : []),
      { head: "house", value: ({ house, suffix }) => house + suffix },
      { head: "name", value: ({ name }) => name ?? undefined },
      { head: "unit", value: ({ unit }) => unit ?? undefined },
      { head: "place", value: ({ place }) => place?.names[0].name },
      { head: "kinds", value: ({ place }) => place?.kinds.join(";") },
      ...FACT_COLUMNS.filter(({ of }) => of.some((name) => this.#common.has(name))),
      ...[...this.#facts].map(([name, label]) => ({
        head: `fact:${label}`,
        value: ({ place }: OutRow) => {
          const fact = place?.facts.own?.[name];
          return fact && factText(fact);
        },
      })),
      { head: "postcode", value: ({ postcode }) => postcode },
      ...AREAS.filter(has).flatMap((kind) => {
        const areas = [...this.#areas.values()].filter((area) => area.kind === kind);
        const code: Column = { head: `${kind}:code`, value: ({ area }) => this.#around(area, kind)?.code ?? undefined };
        const id = ({ area, country }: OutRow) => {
          const own = this.#around(area, kind);
          return own && refOf(country, own.identity);
        };
        const importance = ({ area }: OutRow) => shareOf(this.#around(area, kind)?.importance);
        return [
          ...named(kind, areas, ({ area }) => this.#around(area, kind)?.names),
          ...(areas.some((area) => area.code) ? [code] : []),
          { head: `${kind}:id`, value: id },
          { head: `${kind}:importance`, value: importance },
        ];
      }),
      { head: "country", value: ({ country }) => country },
      { head: "lat", value: ({ lat }) => lat },
      { head: "lon", value: ({ lon }) => lon },
      { head: "importance", value: ({ importance }) => shareOf(importance) },
    ];
  }

  #feature(columns: readonly Column[], row: OutRow) {
    const properties = columns.flatMap(({ head, value }) => {
      const existing = value(row);
      return existing === undefined || existing === "" || ["id", "lat", "lon"].includes(head) ? [] : [[head, existing]];
    });
    return {
      type: "Feature",
      id: refOf(row.country, row.identity),
      geometry: { type: "Point", coordinates: [row.lon, row.lat] },
      properties: Object.fromEntries(properties),
    };
  }

  #waypoint(row: OutRow): string {
    const { stands } = profileOf(row.country).number;
    const house = row.house
      ? formatHouseNumber({ number: Number(row.house), suffix: row.suffix }, stands)
      : (row.name ?? "");
    const street = row.street?.names[0].name ?? "";
    const line = (stands === "before" ? [house, street] : [street, house]).filter(Boolean).join(" ");
    const within = [this.#around(row.area, "town")?.names[0].name, row.postcode].filter(Boolean);
    const name = row.place?.names[0].name ?? line;
    return waypointOf({
      at: row,
      name,
      description: [name, ...within].join(", "),
      source: refOf(row.country, row.identity),
      type: row.place ? "place" : "address",
    });
  }
}

/** In steps finer than those of an index. */
const shareOf = (share: number | undefined) => (share === undefined ? undefined : Math.round(share * 1e5) / 1e5);

/** A column for the local name, one for each further language, and one for each other form of the name that is there. */
function named(
  head: string,
  things: readonly { names: readonly Name[] }[],
  namesOf: (row: OutRow) => readonly Name[] | undefined,
): Column[] {
  const langs = new Set(things.flatMap(({ names }) => names.slice(1).map(({ lang }) => lang)));
  const forms = (["abbr", "written"] as const).filter((form) => things.some(({ names }) => names[0][form]));
  return [
    { head, value: (row) => namesOf(row)?.[0].name },
    ...[...langs].map((lang) => ({
      head: `${head}:${lang}`,
      value: (row: OutRow) =>
        namesOf(row)
          ?.slice(1)
          .find((name) => name.lang === lang)?.name,
    })),
    ...forms.map((form) => ({ head: `${head}:${form}`, value: (row: OutRow) => namesOf(row)?.[0][form] })),
  ];
}
