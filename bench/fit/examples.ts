import type { Position } from "@bibliotope/core/geo";

/** A question that comes out right, and would not if a weight were moved by a half. */
export interface Example {
  of: "world" | "islands";
  call: "forward" | "suggest";
  q: string;
  near?: Position;
  /** See `answerOf`. */
  answer: string;
}
