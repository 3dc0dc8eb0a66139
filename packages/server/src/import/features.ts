import { type Position, pointWithin, type Ring, signedArea } from "@bibliotope/core/geo";
import type { TableFormat } from "@bibliotope/wire";
import { TableError } from "./bytes.ts";
import { MOST_FEATURE } from "./limits.ts";

/**
 * The texts of a file's features, one by one.
 * @throws TableError when it is JSON of another kind, or a feature is too long
 */
export const featuresOf = (text: AsyncIterable<string>, kind: TableFormat["kind"]) =>
  kind === "geojson" ? featureTexts(text) : lineTexts(text);

/**
 * Cuts a FeatureCollection, or a list of objects, into the texts of the features, without holding more than one of them: parsing all
 * of it as a stream of JSON tokens took eight times as long.
 *
 * @throws TableError when it is JSON of another kind, or a feature is too long
 */
async function* featureTexts(text: AsyncIterable<string>): AsyncGenerator<string> {
  const cutter = new FeatureCutter();
  for await (const piece of text) yield* cutter.cut(piece);
  cutter.end();
}

/** Lines that hold something, without the mark of RFC 8142 before them. */
async function* lineTexts(text: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = "";
  let count = 0;
  for await (const piece of text) {
    const all = (rest + piece).split("\n");
    rest = all.pop() ?? "";
    for (const line of all) {
      if (!line.replace("\u001e", "").trim()) continue;
      count++;
      if (line.length > MOST_FEATURE) throw featureTooLong(count);
      yield line.replace("\u001e", "");
    }
    if (rest.length > MOST_FEATURE) throw featureTooLong(count + 1);
  }
  if (rest.replace("\u001e", "").trim()) yield rest.replace("\u001e", "");
}

/** Kinds of GeoJSON that a file as a whole may be. */
const GEO_TYPES: ReadonlySet<string> = new Set(["FeatureCollection", "Feature", "GeometryCollection", "Topology"]);
/** Lists that a service answers with beside its rows. */
const BESIDE_ROWS: ReadonlySet<string> = new Set(
  "links errors warnings messages fields columns facets aggregations attributions".split(" "),
);

class FeatureCutter {
  #depth = 0;
  /** The depth at which features begin: 1 in a list that is the whole file. */
  #base = 2;
  #isInText = false;
  #isEscaped = false;
  /** The last text of the outermost object, to know the name of the list that begins. */
  #name = "";
  #isNaming = false;
  #isInFeatures = false;
  /** True in a list of another name, until its first member shows what it is of. */
  #isMaybe = false;
  #isGeo = false;
  #wasThere = false;
  #feature = "";
  #count = 0;

  *cut(piece: string): Generator<string> {
    let from = 0;
    for (let i = 0; i < piece.length; i++) {
      const unit = piece.charCodeAt(i);
      if (this.#isInText) {
        if (this.#isEscaped) this.#isEscaped = false;
        else if (unit === 0x5c) this.#isEscaped = true;
        else if (unit === 0x22) this.#isInText = false;
        if (this.#isNaming && this.#isInText) this.#name += piece[i];
        if (this.#isNaming && !this.#isInText) this.#isGeo ||= GEO_TYPES.has(this.#name);
        continue;
      }
      if (unit === 0x22) {
        this.#isInText = true;
        this.#isNaming = this.#depth === 1;
        if (this.#isNaming) this.#name = "";
      } else if (unit === 0x7b || unit === 0x5b) {
        const isList = unit === 0x5b && this.#depth === 0;
        if (isList) this.#base = 1;
        if (isList || this.#mayBegin(unit)) {
          this.#isInFeatures = true;
          this.#isMaybe = !isList && this.#name !== "features";
          this.#wasThere = !this.#isMaybe;
        } else if (this.#isInFeatures && this.#depth === this.#base) {
          if (this.#isMaybe) this.#isInFeatures = this.#wasThere = unit === 0x7b;
          this.#isMaybe = false;
          from = i;
        }
        this.#depth++;
      } else if (unit === 0x7d || unit === 0x5d) {
        this.#depth--;
        if (this.#isInFeatures && this.#depth === this.#base) {
          yield this.#feature + piece.slice(from, i + 1);
          this.#count++;
          this.#feature = "";
        } else if (this.#depth < this.#base) this.#isInFeatures = false;
      }
    }
    if (!this.#isInFeatures || this.#depth <= this.#base) return;
    this.#feature += piece.slice(from);
    if (this.#feature.length > MOST_FEATURE) throw featureTooLong(this.#count + 1);
  }

  /** True where the list "features" begins; in what is no GeoJSON any list that may be of objects, as services answer with it. */
  #mayBegin(unit: number): boolean {
    if (unit !== 0x5b || this.#depth !== 1 || this.#base !== 2 || this.#wasThere) return false;
    return this.#name === "features" || (!this.#isGeo && !BESIDE_ROWS.has(this.#name.toLowerCase()));
  }

  end(): void {
    if (!this.#wasThere)
      throw new TableError(
        "The file is JSON, but neither a GeoJSON FeatureCollection nor a list of objects: a list named “features”, or another one of objects, is missing.",
      );
    if (this.#depth !== 0)
      throw new TableError(
        `The JSON ends too early, after ${this.#count.toLocaleString("en")} features: a bracket is not closed.`,
      );
  }
}

const featureTooLong = (number: number) =>
  new TableError(
    `Feature ${number.toLocaleString("en")} is longer than ${MOST_FEATURE.toLocaleString("en")} characters. Leave out properties you do not need.`,
  );

/** A feature as a row: id, position, properties in the order of `heads`. */
export function rowOfFeature(text: string, number: number, heads: readonly string[]): string[] {
  const { id, geometry, properties } = readFeature(text, number);
  const at = geometry === undefined ? undefined : pointOf(geometry, number);
  return heads.map((head) => {
    if (at && head === "lat") return String(at[1] ?? "");
    if (at && head === "lon") return String(at[0] ?? "");
    return head === "id" && id !== undefined ? String(id) : textOf(properties.get(head), head, number);
  });
}

interface Feature {
  id?: string | number | undefined;
  /** Undefined for an object that is no feature: the properties say all. */
  geometry: unknown;
  /** By name; that of one within another is both names with a full stop between. */
  properties: ReadonlyMap<string, unknown>;
}

/** What GeoJSON has besides features. */
const OTHER_TYPES: ReadonlySet<unknown> = new Set([
  "FeatureCollection",
  "GeometryCollection",
  "Point",
  "MultiPoint",
  "LineString",
  "MultiLineString",
  "Polygon",
  "MultiPolygon",
]);

/** @throws TableError with what the thing is instead */
export function readFeature(text: string, number: number): Feature {
  let read: { type?: unknown; id?: string | number; geometry?: unknown; properties?: unknown };
  try {
    read = JSON.parse(text);
  } catch (error) {
    throw new TableError(`Feature ${number} is not valid JSON: ${(error as Error).message.slice(0, 120)}.`);
  }
  const isObject = isRecord(read);
  const isFeature = isObject && read.type === "Feature";
  if (!isObject || (!isFeature && (OTHER_TYPES.has(read.type) || "geometry" in read || "properties" in read)))
    throw new TableError(
      isObject && read.type === "FeatureCollection"
        ? `Feature ${number} is a nested collection. Move its features to the outer one.`
        : `Feature ${number} is a ${String((isObject ? read.type : undefined) ?? "thing without a type").slice(0, 40)}, where a Feature is expected.`,
    );
  if (!isFeature) return { geometry: undefined, properties: flat(read as Record<string, unknown>) };
  const properties = isRecord(read.properties) ? flat(read.properties) : new Map<string, unknown>();
  return { id: read.id, geometry: read.geometry ?? null, properties };
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Objects within one another whose properties become columns; deeper ones stay a text. */
const DEEPEST = 4;

/** All properties, those of objects within by both names: `address.street`. */
function flat(properties: Record<string, unknown>): Map<string, unknown> {
  const all = new Map<string, unknown>();
  const put = (from: Record<string, unknown>, before: string, depth: number) => {
    for (const [name, value] of Object.entries(from)) {
      if (depth < DEEPEST && isRecord(value)) put(value, `${before}${name}.`, depth + 1);
      else if (!all.has(before + name)) all.set(before + name, value);
    }
  };
  put(properties, "", 0);
  return all;
}

/** Longitude and latitude of a point, or of one within an area; empty where there is no geometry. */
function pointOf(geometry: unknown, number: number): (number | undefined)[] {
  if (geometry === null) return [];
  const { type, coordinates } = geometry as { type?: unknown; coordinates?: unknown };
  if (type === "Point") return Array.isArray(coordinates) ? coordinates : [];
  if (type === "MultiPoint" && Array.isArray(coordinates) && coordinates.length === 1) return coordinates[0];
  if (type !== "Polygon" && type !== "MultiPolygon")
    throw new TableError(
      `Feature ${number} is a ${String(type).slice(0, 40)}. Only points and areas can be imported: give each address or place a point.`,
    );
  const areas = type === "Polygon" ? [coordinates] : coordinates;
  if (!Array.isArray(areas) || !areas.every(isArea))
    throw new TableError(`Feature ${number}: the coordinates of the ${type} are not lists of positions.`);
  const { lat, lon } = middleOf(areas);
  return [lon, lat];
}

const isArea = (value: unknown): value is Ring[] =>
  Array.isArray(value) && value.length > 0 && value.every((ring) => Array.isArray(ring) && ring.every(isPair));
const isPair = (value: unknown) => Array.isArray(value) && value.slice(0, 2).every(Number.isFinite) && value.length > 1;

/** A point within the largest of some areas, each a ring and holes. */
function middleOf(areas: readonly Ring[][]): Partial<Position> {
  const size = (rings: Ring[]) => Math.abs(signedArea(rings[0]));
  const [first, ...others] = areas.filter(([ring]) => ring.length > 0);
  if (!first) return {};
  return pointWithin(others.reduce((most, one) => (size(one) > size(most) ? one : most), first));
}

function textOf(value: unknown, head: string, number: number): string {
  if (value === null || value === undefined) return "";
  if (typeof value !== "object") return String(value);
  try {
    return JSON.stringify(value);
  } catch {
    throw new TableError(
      `Feature ${number}, property “${head.slice(0, 60)}”: its lists lie too deep within one another.`,
    );
  }
}
