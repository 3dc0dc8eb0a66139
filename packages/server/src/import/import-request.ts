import type { Reading } from "@bibliotope/core/import";
import type { TableFormat } from "@bibliotope/wire";

/** Parameters of a load. */
export interface ImportRequest {
  /** The upload; jobs of earlier versions have its path alone. */
  file?: string;
  /** Where the file lies. */
  path: string;
  fileName: string;
  format: TableFormat;
  heads: string[] | undefined;
  reading: Reading;
  dataSet: { name: string; licence: string; source: string };
  /** Day of the data, ISO 8601. */
  day: string;
  madeBy: number | null;
  /** Keeps nothing. */
  isTrial?: boolean | undefined;
  /** The job that asks: it makes one version, however often it is begun. */
  job: number;
}

/** What a load came to. */
export interface Loaded {
  /** None of a trial. */
  version?: number;
  counts: VersionCounts;
  checks: Record<string, number>;
}

/** How much a version holds. */
export interface VersionCounts {
  rows: number;
  addresses: number;
  places: number;
  streets: number;
  postcodes: number;
  areas: number;
}

/** Settings of PostgreSQL for a load's connections. */
export const loadName = (job: number) => `bibliotope load ${job}`;
