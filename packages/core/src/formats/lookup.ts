import type { Position } from "../geo/index.ts";
import type { AutofillValues, Continent, Difference, Exactness, Facts, Kind, Parts } from "../place/index.ts";
import type { PointFeature } from "./geojson.ts";

/** What the other forms of an answer are made from: its Features. */
export type LookupFeature = PointFeature<{
  kind: Kind;
  exactness: Exactness;
  at: Position;
  line: string;
  lines: string[];
  parts: Parts;
  autofill: AutofillValues;
  facts?: Facts;
  /** Metres above the sea; null outside the data. */
  height?: number | null;
  continent?: Continent;
  score?: number;
  /** What was written and is not so in it. */
  differences?: Difference[];
  /** Metres. */
  distance?: number;
  /** Degrees clockwise from north. */
  bearing?: number;
}>;
