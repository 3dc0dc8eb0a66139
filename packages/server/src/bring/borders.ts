import { type Box, boxAroundRings, type Position, type Ring, ringsContain } from "@bibliotope/core/geo";
import type { Name } from "@bibliotope/core/place";
import type { Knex } from "knex";

/** Degrees of the cells for which it is kept whether they lie in a country. */
const CELL = 0.05;

interface Country {
  names: Name[];
  rings: { ring: Ring; box: Box }[];
  cells: Map<number, boolean>;
}

/** Where the countries lie that are held already: what is brought is held against that. */
export class Borders {
  readonly #countries = new Map<string, Country>();

  /** The countries of what is live. */
  static async of(database: Knex): Promise<Borders> {
    const borders = new Borders();
    const rows = await database("areas")
      .where({ kind: "country" })
      .whereIn(
        "version_id",
        database("publication_versions")
          .select("version_id")
          .where({
            publication_id: database("publications").max("id"),
          }),
      )
      .select("country", "names", "rings")
      .orderBy("version_id");
    for (const { country, names, rings } of rows)
      if (!borders.#countries.has(country)) {
        const boxed = (rings as Ring[]).map((ring) => ({ ring, box: boxAroundRings([ring]) }));
        borders.#countries.set(country, { names, rings: boxed, cells: new Map() });
      }
    return borders;
  }

  namesOf(country: string): Name[] | undefined {
    return this.#countries.get(country)?.names;
  }

  /** True for a position outside a country whose borders are known, by some kilometres at the least. */
  isOutside(code: string, { lat, lon }: Position): boolean {
    const country = this.#countries.get(code);
    if (!country?.rings.length) return false;
    const [row, column] = [Math.floor(lat / CELL), Math.floor(lon / CELL)];
    const cell = row * 10_000 + column;
    let isNear = country.cells.get(cell);
    if (isNear === undefined) {
      isNear = [0, 0.5, 1].some((y) =>
        [0, 0.5, 1].some((x) => contains(country, (row + y) * CELL, (column + x) * CELL)),
      );
      country.cells.set(cell, isNear);
    }
    return !isNear;
  }

  /** The same in words. */
  outsideWords(code: string, { lat, lon }: Position): string {
    return `${lat.toFixed(4)}, ${lon.toFixed(4)} lies outside ${this.namesOf(code)?.[0].name ?? code}`;
  }
}

/** A ring whose box does not hold a position has no say in whether all of them do. */
function contains({ rings }: Country, lat: number, lon: number): boolean {
  const near = rings.filter(
    ({ box: [west, south, east, north] }) => lon >= west && lon <= east && lat >= south && lat <= north,
  );
  const around = near.map(({ ring }) => ring);
  return around.length > 0 && ringsContain(around, { lat, lon });
}
