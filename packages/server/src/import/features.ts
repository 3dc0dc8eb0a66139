import { TableError } from "./bytes.ts";
import { MOST_FEATURE } from "./limits.ts";

/**
 * Cuts a FeatureCollection into the texts of the features, without holding more than one of them: parsing all of it
 * as a stream of JSON tokens took eight times as long.
 *
 * @throws TableError when it is JSON of another kind, or a feature is too long
 */
export async function* featureTexts(text: AsyncIterable<string>): AsyncGenerator<string> {
  const cutter = new FeatureCutter();
  for await (const piece of text) yield* cutter.cut(piece);
  cutter.end();
}

class FeatureCutter {
  #depth = 0;
  #isInText = false;
  #isEscaped = false;
  /** The last text of the outermost object, to know the name of the list that begins. */
  #name = "";
  #isNaming = false;
  #isInFeatures = false;
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
        continue;
      }
      if (unit === 0x22) {
        this.#isInText = true;
        this.#isNaming = this.#depth === 1;
        if (this.#isNaming) this.#name = "";
      } else if (unit === 0x7b || unit === 0x5b) {
        if (this.#depth === 1 && unit === 0x5b && this.#name === "features") {
          this.#isInFeatures = true;
          this.#wasThere = true;
        }
        if (this.#isInFeatures && this.#depth === 2) from = i;
        this.#depth++;
      } else if (unit === 0x7d || unit === 0x5d) {
        this.#depth--;
        if (this.#isInFeatures && this.#depth === 2) {
          yield this.#feature + piece.slice(from, i + 1);
          this.#count++;
          this.#feature = "";
        } else if (this.#depth === 1) this.#isInFeatures = false;
      }
    }
    if (!this.#isInFeatures || this.#depth <= 2) return;
    this.#feature += piece.slice(from);
    if (this.#feature.length > MOST_FEATURE) throw featureTooLong(this.#count + 1);
  }

  end(): void {
    if (!this.#wasThere)
      throw new TableError(
        "The file is JSON, but not a GeoJSON FeatureCollection: a list named “features” is missing.",
      );
    if (this.#depth !== 0)
      throw new TableError(
        `The GeoJSON ends too early, after ${this.#count.toLocaleString("en")} features: a bracket is not closed.`,
      );
  }
}

export const featureTooLong = (number: number) =>
  new TableError(
    `Feature ${number.toLocaleString("en")} is longer than ${MOST_FEATURE.toLocaleString("en")} characters. Leave out properties you do not need.`,
  );

/** A feature as a row: its id, its position, its properties in the order of `heads`. */
export function rowOfFeature(text: string, number: number, heads: readonly string[]): string[] {
  const { id, geometry, properties } = readFeature(text, number);
  const [lon, lat] = pointOf(geometry, number);
  return heads.map((head) => {
    if (head === "lat") return String(lat ?? "");
    if (head === "lon") return String(lon ?? "");
    return head === "id" && id !== undefined ? String(id) : textOf(properties[head], head, number);
  });
}

interface Feature {
  id?: string | number;
  geometry: unknown;
  properties: Record<string, unknown>;
}

/** @throws TableError with what the thing is instead */
export function readFeature(text: string, number: number): Feature {
  let read: Partial<Feature> & { type?: unknown };
  try {
    read = JSON.parse(text);
  } catch (error) {
    throw new TableError(`Feature ${number} is not valid JSON: ${(error as Error).message.slice(0, 120)}.`);
  }
  if (read?.type !== "Feature")
    throw new TableError(
      read?.type === "FeatureCollection"
        ? `Feature ${number} is a nested collection. Move its features to the outer one.`
        : `Feature ${number} is a ${String(read?.type ?? "thing without a type").slice(0, 40)}, where a Feature is expected.`,
    );
  const properties = read.properties && typeof read.properties === "object" ? read.properties : {};
  return { id: read.id, geometry: read.geometry, properties };
}

function pointOf(geometry: unknown, number: number): (number | undefined)[] {
  if (geometry === null || geometry === undefined) return [];
  const { type, coordinates } = geometry as { type?: unknown; coordinates?: unknown };
  if (type !== "Point")
    throw new TableError(
      `Feature ${number} is a ${String(type).slice(0, 40)}. Only points can be imported: give each address or place a point.`,
    );
  return Array.isArray(coordinates) ? coordinates : [];
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
