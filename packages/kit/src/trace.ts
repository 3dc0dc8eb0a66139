import type { Filling } from "@bibliotope/core/form";

/** What happened between a keystroke and a filled field. Times in milliseconds of `performance.now()`. */
export type TraceEvent =
  | { row: "keys"; at: number; text: string; key: string }
  | { row: "requests"; id: number; at: number; call: string; asked: Record<string, string> }
  | { row: "answered"; id: number; at: number; status: number; answer: unknown }
  | { row: "dropped"; id: number; at: number }
  | { row: "list"; at: number; count: number; text: string }
  | {
      row: "fields";
      at: number;
      why: "chosen" | "pressed" | "moved" | "asked" | "typed" | "cleared" | "corrected";
      fillings: Filling[];
    };

export type Tracer = (event: TraceEvent) => void;
