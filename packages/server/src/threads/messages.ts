import type { TileName } from "@bibliotope/core/map";
import type { OwnKeys } from "../keys/own-keys.ts";
import type { MetricValues } from "../metrics/metrics.ts";
import type { Still } from "../tiles/still.ts";

/** What a thread that answers is started with; all else it reads from the environment. */
export interface AnswerTask {
  /** Which of the threads it is; the main thread is 1. */
  number: number;
  port: number;
  /** How many ports are tried; 0 to share the port with the other threads. */
  ports: number;
  /** The port of the main thread. */
  mainPort: number;
  keys: OwnKeys;
}

/** What a thread asks of the main one. */
export type Wanted =
  | { kind: "segment"; versions: readonly number[] }
  | { kind: "heights" }
  | { kind: "tile"; tile: TileName }
  | { kind: "still"; still: Still };

/** What a thread tells the main one. */
export type FromThread =
  | { wanted: Wanted; id: number }
  | { unwanted: number }
  | { ready: { port: number } }
  | { failed: string }
  | { line: string; to: "log" | "securityLog" }
  | { signedIn: true }
  | { metrics: MetricValues; of: number };

/** What the main thread tells one. */
export type ToThread =
  | { id: number; result: unknown }
  | { id: number; failed: string; busy?: number }
  | { metrics: number }
  | { end: { isKept: boolean } };
