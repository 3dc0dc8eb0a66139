import type { Heights } from "../heights/heights.ts";
import type { Incoming } from "../http/incoming.ts";
import { HttpProblem } from "../http/problem.ts";
import type { SeenEngine } from "../http/seen-engine.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import type { TileMaker } from "../tiles/map-tiles.ts";

const MOST_ZOOM = 20;

/** Map features of a tile, and heights of the ground (OGC WebMercatorQuad numbering). */
export function tileHandlers(tiles: TileMaker, heights: Heights) {
  return { tile, tileHeights } satisfies Partial<Handlers>;

  async function tile(incoming: Incoming<"tile">): Promise<Reply> {
    const { z, x, y } = tileOf(incoming.parts);
    const json = await tiles.tile(z, x, y, incoming.gone);
    if (json === undefined) throw notReady();
    const { engine } = incoming;
    // requested again each time, mostly answered by 304: what is corrected by hand is shown at once
    return {
      mediaType: incoming.call.mediaType,
      body: engine.isWhole ? json : seenOf(json, engine),
      cache: "private, no-cache",
    };
  }

  function tileHeights(incoming: Incoming<"tileHeights">): Reply {
    const name = tileOf(incoming.parts);
    if (!heights.isReady) throw notReady();
    return {
      mediaType: incoming.call.mediaType,
      body: JSON.stringify(heights.tile(name)),
      cache: "private, max-age=300",
    };
  }
}

/** Of a tile what the key may see: records of the countries, and land and water that are no record. */
function seenOf(json: string, engine: SeenEngine): string {
  const tile: { features: { id?: string }[] } = JSON.parse(json);
  return JSON.stringify({ ...tile, features: tile.features.filter(({ id }) => engine.allowsRef(id)) });
}

function tileOf(parts: { z: string; x: string; y: string }): { z: number; x: number; y: number } {
  const [z, x, y] = [parts.z, parts.x, parts.y].map((text) => (/^\d{1,7}$/.test(text) ? Number(text) : Number.NaN));
  if (z <= MOST_ZOOM && x < 2 ** z && y < 2 ** z) return { z, x, y };
  throw new HttpProblem(
    "not-found",
    `A tile is z/x/y with z from 0 to ${MOST_ZOOM} and x, y below 2 to the power of z.`,
  );
}

function notReady(): HttpProblem {
  return new HttpProblem("not-ready", "The map is being prepared. Try again in a moment.", undefined, {
    "Retry-After": "2",
  });
}
