import type * as z from "zod";

export const KEY_KINDS = ["web", "view", "srv", "app", "try"] as const;
export type KeyKind = (typeof KEY_KINDS)[number];

export const TAGS = {
  Lookups: "Find addresses and places by text, position or ref.",
  Countries: "Countries with data, and their address formats.",
  Map: "Map tiles, elevation and map pictures.",
  Forms: "Published forms, and reports from their users.",
  Services: "Outside services described in the workbench, for example a courier or a register.",
  Batches: "Many lookups at once, from a file.",
  Keys: "What a key allows.",
} as const;
export type Tag = keyof typeof TAGS;

/**
 * What is known of one call of the wire. The server's routes, what a key may do, limits and counts, the OpenAPI document
 * and the client's types are made from it.
 */
export interface Call {
  /** Parts that are requested stand in braces. */
  path: `/v1/${string}`;
  /** Its path and parameters before they were renamed: still answered, for kits that are already packed into pages. */
  formerly?: {
    path?: `/v1/${string}`;
    /** Parameters by their names of today. */
    params?: (params: Readonly<Record<string, unknown>>) => Record<string, unknown>;
  };
  methods: readonly ("GET" | "POST")[];
  tag: Tag;
  summary: string;
  description: string;
  /** The request: in the query string of GET, as JSON by POST. A call that takes a file asks in the query string. */
  asks?: z.ZodType;
  answers: z.ZodType;
  /** What POST asks and answers, where that is not the same. */
  many?: { asks: z.ZodType; answers: z.ZodType };
  /** Status of an answer; 200 when not given. */
  status?: 202;
  mediaType: string;
  /** Media types of other forms of the same answer, by the words of `format=`. */
  forms?: Readonly<Record<string, string>>;
  /** Media types of a body that is a file. */
  takes?: readonly string[];
  key: {
    /** The kind of lookup that a key may be kept to, and by which its use is counted. */
    as: string;
    /** That kind in words, several of it. */
    words: string;
    /** Kinds of key that may; all when not given. */
    kinds?: readonly KeyKind[];
    /** What it counts against: a key's amounts, those and the pictures a minute, or nothing, where a page needs it to be shown. */
    counts: "lookup" | "picture" | "nothing";
    /** Every key may, whatever it is kept to, and nothing is counted. */
    always?: true;
  };
  /** Whether its answer to the same question is the same until other data is live, so that it may be kept. */
  keeps?: true;
  /** Whether a try key may ask for a situation; `itself` where that is an answer too. */
  plays: boolean | "itself";
  /** Words of a query string that work, parts of the path among them. */
  example: Readonly<Record<string, string>>;
}

/** Declares a call; its type keeps every word. */
export const call = <const C extends Call>(declared: C): C => declared;

/** Names of the parts of a path, which stand in braces. */
export type PartIn<P extends string> = P extends `${string}{${infer Part}}${infer Rest}` ? Part | PartIn<Rest> : never;
