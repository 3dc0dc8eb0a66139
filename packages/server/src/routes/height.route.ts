import { CALLS, heightAsking, heightsAsking } from "@bibliotope/wire";
import type { Request, Response, Router } from "express";
import type { Heights } from "../heights/heights.ts";
import { readAsking } from "../http/asking.ts";
import { engineOf, sendAnswer } from "../http/engine.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import { sourceOf } from "./lookups.route.ts";

/** `/v1/height`: how high the ground lies, at one position by GET, at many by POST. */
export function heightRoutes(heights: Heights, index: LiveIndex): Router {
  const router = exactRouter();
  router.get("/height", (request: Request, response: Response) => {
    const { at } = readAsking(request, heightAsking);
    const began = performance.now();
    answer(response, { metres: ready().at(at) }, began);
  });
  router.post("/height", (request: Request, response: Response) => {
    const { at } = readAsking(request, heightsAsking);
    const began = performance.now();
    const held = ready();
    answer(response, { heights: at.map((position) => held.at(position)) }, began);
  });
  return router;

  function ready(): Heights {
    if (heights.isReady) return heights;
    throw new HttpProblem("not-ready", "The heights are being read. Ask again in a moment.", undefined, {
      "Retry-After": "2",
    });
  }

  function answer(response: Response, found: object, began: number): void {
    sendAnswer(response, CALLS.height.mediaType, { ...found, source: sourceOf(engineOf(index)) }, began);
  }
}
