import { setTimeout as wait } from "node:timers/promises";
import { SITUATIONS, type Situation } from "@bibliotope/wire";
import type { NextFunction, Request, Response } from "express";
import { HttpProblem } from "./problem.ts";

/** Milliseconds by which a slow answer is late: longer than anybody waits gladly, shorter than a client's time limit. */
const SLOW = 2500;
/** Lookups play situations; sheets, stills and forms do not. */
const LOOKUPS = /^\/(suggest|forward|reverse|records|postcodes|distance|height)\b/;

/** Plays what a try key asks for by `situation=` or the header `Bibliotope-Situation`, so that a form can be rehearsed. */
export async function playSituation(request: Request, response: Response, next: NextFunction): Promise<void> {
  const asked = request.get("Bibliotope-Situation") ?? request.query.situation;
  if (asked === undefined || asked === "" || !LOOKUPS.test(request.path)) {
    next();
    return;
  }
  if (response.locals.key?.kind !== "try")
    throw new HttpProblem(
      "not-allowed",
      "Situations are played for try keys (bt_try_…) only. Leave it out, or use one.",
    );
  const situation = SITUATIONS.find((one) => one === asked);
  if (!situation)
    throw new HttpProblem("malformed", `There is no such situation; known are ${SITUATIONS.join(", ")}.`, [
      { parameter: "situation", message: "is not known", example: "none" },
    ]);
  await play(situation, response);
  next();
}

async function play(situation: Situation, response: Response): Promise<void> {
  const played = `This is the situation “${situation}”, as the try key asked.`;
  if (situation === "slow") await wait(SLOW);
  else if (situation === "down") throw new HttpProblem("not-ready", played, undefined, { "Retry-After": "5" });
  else if (situation === "limit") throw new HttpProblem("too-many", played, undefined, { "Retry-After": "30" });
  else if (situation === "refused") throw new HttpProblem("not-allowed", played);
  else if (situation === "malformed") throw new HttpProblem("malformed", played);
  else response.locals.situation = situation;
}

/** An answer with nothing in it, where that is being played; else the answer. */
export function played<T extends object>(response: Response, answer: T): T {
  if (response.locals.situation !== "none" || !("outcome" in answer)) return answer;
  return {
    ...answer,
    outcome: "none",
    advice: ["This is the situation “none”, as the try key asked."],
    ...("features" in answer ? { features: [] } : {}),
    ...("suggestions" in answer ? { suggestions: [] } : {}),
  };
}

/** True while something that was written is not so in what was found. */
export function playsDiffers(response: Response): boolean {
  return response.locals.situation === "differs";
}

/** True while an answer has to have several that fit. */
export function playsSeveral(response: Response): boolean {
  return response.locals.situation === "several";
}
