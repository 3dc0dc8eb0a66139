import type { Position } from "@bibliotope/core/geo";
import { heldProfile, type Name } from "@bibliotope/core/place";
import type { Knex } from "knex";
import { countryNames } from "../world/country-names.ts";
import { mayLieIn } from "../world/outlines.ts";

/** Cells to a degree, in which all positions count as the same: two kilometres, far less than outlines may be wrong. */
const CELLS = 50;

/** Where countries lie and what they are called: imported data is checked against this. */
export class Borders {
  readonly #names = new Map<string, Name[]>();
  /** What was found of the last position: rows that follow each other stand close. */
  #last: { cell: string; isOutside: boolean } | undefined;

  /** With the names of the countries that are live. Where they lie is not read off the data: little of a country may be stored. */
  static async of(database: Knex): Promise<Borders> {
    const borders = new Borders();
    const rows = await database("areas")
      .where({ kind: "country" })
      .whereIn(
        "version_id",
        database("publication_versions")
          .select("version_id")
          .whereRaw("publication_id = (select max(id) from publications)"),
      )
      .select("country", "names")
      .orderBy("version_id");
    for (const { country, names } of rows) if (!borders.#names.has(country)) borders.#names.set(country, names);
    return borders;
  }

  /** As the data that is live has it, else in the languages of the country and in English; by code nobody knows it. */
  namesOf(country: string): Name[] | undefined {
    let names = this.#names.get(country);
    if (!names) {
      names = countryNames(country, [...(heldProfile(country)?.langs ?? []), "en"]);
      this.#names.set(country, names);
    }
    return names.length ? names : undefined;
  }

  /** True for a position that cannot be in a country. */
  isOutside(code: string, at: Position): boolean {
    const cell = `${code} ${Math.floor(at.lat * CELLS)} ${Math.floor(at.lon * CELLS)}`;
    if (this.#last?.cell !== cell) this.#last = { cell, isOutside: !mayLieIn(code, at) };
    return this.#last.isOutside;
  }

  /** The same in words. */
  outsideWords(code: string, { lat, lon }: Position): string {
    return `${lat.toFixed(4)}, ${lon.toFixed(4)} lies outside ${this.namesOf(code)?.[0].name ?? code}`;
  }
}
