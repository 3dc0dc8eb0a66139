import type { Filling } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";

/** What happened between a keystroke and a filled field. Times in milliseconds of `performance.now()`. */
export type TraceEvent =
  /** A key in a search field, `↵` for a line that was taken; `⌖` for a press on the map. */
  | { row: "keys"; at: number; text: string; key: string; field?: string; place?: Position }
  | { row: "requests"; id: number; at: number; call: string; params: Record<string, string> }
  | { row: "answered"; id: number; at: number; status: number; answer: unknown }
  | { row: "dropped"; id: number; at: number }
  /** The page's key may not ask for something that the form uses. */
  | { row: "key"; at: number; lacks: string[] }
  | { row: "list"; at: number; count: number; text: string }
  | {
      row: "fields";
      at: number;
      why:
        | "chosen"
        | "pressed"
        | "moved"
        | "asked"
        | "located"
        | "exchanged"
        | "typed"
        | "cleared"
        | "corrected"
        | "service";
      /** Name of the address that is filled; empty for the first. */
      address?: string;
      /** Line of the address that was found, and where it lies. */
      line?: string;
      place?: Position;
      /** Values, each with the rule by which it was written: a pattern or an autofill token. */
      fillings: (Filling & { by?: string })[];
    };

export type Tracer = (event: TraceEvent) => void;
