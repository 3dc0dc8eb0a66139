import { type Position, type Ring, ringsContain } from "@bibliotope/core/geo";
import type { Name } from "@bibliotope/core/place";
import type { Knex } from "knex";

/** Degrees of the cells for which it is kept whether they lie in a country. */
const CELL = 0.05;

interface Country {
  names: Name[];
  rings: Ring[];
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
      if (!borders.#countries.has(country)) borders.#countries.set(country, { names, rings, cells: new Map() });
    return borders;
  }

  namesOf(country: string): Name[] | undefined {
    return this.#countries.get(country)?.names;
  }

  /** What is odd about a position for a country, in words; nothing within some kilometres of its border. */
  outside(code: string, { lat, lon }: Position): string | undefined {
    const country = this.#countries.get(code);
    if (!country?.rings.length) return undefined;
    const [row, column] = [Math.floor(lat / CELL), Math.floor(lon / CELL)];
    const cell = row * 10_000 + column;
    let isNear = country.cells.get(cell);
    if (isNear === undefined) {
      isNear = [0, 0.5, 1].some((y) =>
        [0, 0.5, 1].some((x) => ringsContain(country.rings, { lat: (row + y) * CELL, lon: (column + x) * CELL })),
      );
      country.cells.set(cell, isNear);
    }
    return isNear ? undefined : `${lat.toFixed(4)}, ${lon.toFixed(4)} lies outside ${country.names[0].name}`;
  }
}
