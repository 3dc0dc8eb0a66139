import { type Position, readPosition } from "../geo/index.ts";
import type { PartName } from "../place/index.ts";
import { houseAsWritten } from "./house.ts";
import type { Meaning, Reading } from "./parts.ts";
import { positionOf } from "./read-row.ts";

/** What a row of a batch asks. */
export interface RowQuestion {
  /** The question as a person reads it. */
  words: string;
  q?: string;
  parts?: Partial<Record<PartName, string>>;
  at?: Position;
}

/** Parts that a column of a meaning asks for; the others go into the free text, or say a position. */
const PART_OF: Readonly<Partial<Record<Meaning, PartName>>> = {
  unit: "unit",
  name: "building",
  block: "block",
  street: "street",
  place: "place",
  district: "district",
  town: "town",
  county: "county",
  region: "region",
  postcode: "postcode",
  country: "country",
};
/** Characters of a cell that are read: longer ones are no addresses. */
const MOST = 300;

/** Makes questions of the rows of one table. */
export class RowAsker {
  readonly #columns: { meaning: Meaning; column: number }[];
  readonly #position: (cells: readonly string[]) => Position | undefined;

  /** @throws Error when the zone of a projection cannot be read */
  constructor(private readonly reading: Reading) {
    this.#columns = reading.columns.flatMap((use, column) =>
      use && !use.form ? [{ meaning: use.meaning, column }] : [],
    );
    this.#position = positionOf(reading);
  }

  /** @param cells of one row, in the order of the columns */
  ask(cells: readonly string[]): RowQuestion {
    const parts: Partial<Record<PartName, string>> = {};
    const free: string[] = [];
    const words: string[] = [];
    let [house, way] = ["", ""];
    for (const { meaning, column } of this.#columns) {
      const value = (cells[column] ?? "").slice(0, MOST).replace(/\s+/g, " ").trim();
      if (!value) continue;
      const part = PART_OF[meaning];
      if (meaning === "text" || meaning === "line") free.push(value);
      else if (meaning === "house") house += houseAsWritten(value);
      else if (meaning === "suffix") house += value;
      else if (meaning === "way" && parts.street) parts.street += ` ${value}`;
      else if (meaning === "way") way = value;
      else if (part) parts[part] ??= value;
      else continue;
      words.push(value);
    }
    if (house) parts.house = house;
    if (way && parts.street) parts.street = `${way} ${parts.street}`;
    if (!parts.country && this.reading.country && words.length) parts.country = this.reading.country;
    const at = this.#position(cells) ?? (free.length === 1 ? readPosition(free[0]) : undefined);
    return {
      words: words.join(", ") || (at ? `${at.lat}, ${at.lon}` : ""),
      ...(free.length ? { q: free.join(", ") } : {}),
      ...(Object.keys(parts).length ? { parts } : {}),
      ...(at ? { at } : {}),
    };
  }
}
