import type { Position } from "@bibliotope/core/geo";
import type { Heights } from "../heights/heights.ts";
import type { Incoming } from "../http/incoming.ts";
import { HttpProblem } from "../http/problem.ts";
import { jsonReply } from "../http/reply.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";

/** How high the ground lies, at one position or at many. */
export function heightHandlers(heights: Heights) {
  return { height } satisfies Partial<Handlers>;

  function height(incoming: Incoming<"height">): Reply {
    const { at } = incoming.params;
    const began = performance.now();
    if (!heights.isReady)
      throw new HttpProblem("not-ready", "Elevation data is being loaded. Try again in a moment.", undefined, {
        "Retry-After": "2",
      });
    const { engine } = incoming;
    const metresAt = (position: Position) => (engine.allowsAt(position) ? heights.at(position) : null);
    const found = Array.isArray(at) ? { heights: at.map(metresAt) } : { metres: metresAt(at) };
    return jsonReply(incoming, { ...found, source: engine.sources }, began);
  }
}
