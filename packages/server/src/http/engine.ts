import type { Engine } from "@bibliotope/core/search";
import type { Request, Response } from "express";
import type { LiveIndex } from "../publication/live-index.ts";
import { HttpProblem } from "./problem.ts";

/** The engine, or 503 while no index is open. */
export function engineOf(index: LiveIndex): Engine {
  if (index.engine) return index.engine;
  throw new HttpProblem("not-ready", "The index is being built. Ask again in a moment.", undefined, {
    "Retry-After": "2",
  });
}

/** Asked languages, from `lang` or else from Accept-Language. */
export function languagesOf(request: Request, lang: readonly string[] | undefined): readonly string[] {
  return lang ?? request.acceptsLanguages().filter((tag) => tag !== "*");
}

/** Answers JSON with how long the engine took; equal questions get equal bytes, so the time stands in a header. */
export function sendAnswer(response: Response, mediaType: string, answer: unknown, began: number): void {
  response
    .set("Server-Timing", `engine;dur=${(performance.now() - began).toFixed(2)}`)
    .set("Cache-Control", "private, no-cache")
    .vary("Accept-Language")
    .type(mediaType)
    .send(JSON.stringify(answer));
}
