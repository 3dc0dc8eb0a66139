import { EARTH_RADIUS } from "./distance.ts";
import { type Box, boxAroundRings, boxContains, type Position, type Ring } from "./position.ts";

/** Degrees of latitude that share a list of edges. */
const BAND = 0.25;
const BANDS = 180 / BAND;
const METRES_PER_DEGREE = (EARTH_RADIUS * Math.PI) / 180;

/** An area of many edges, of which is asked often whether it holds a position, or is near one. Holes are rings too. */
export class Outline {
  readonly box: Box;
  /** Edges, four numbers each: longitude and latitude of one end and the other. */
  readonly #edges: Float64Array;
  /** Edges that reach into each band, from the south. */
  readonly #bands = new Map<number, number[]>();

  /** @param rings closed, in degrees, none across the 180th meridian */
  constructor(rings: readonly Ring[]) {
    this.box = boxAroundRings(rings);
    const edges: number[] = [];
    for (const ring of rings)
      for (let i = 1; i < ring.length; i++) {
        const [[west, south], [east, north]] = [ring[i - 1], ring[i]];
        const place = edges.length;
        edges.push(west, south, east, north);
        for (let band = bandOf(Math.min(south, north)); band <= bandOf(Math.max(south, north)); band++) {
          const own = this.#bands.get(band);
          if (own) own.push(place);
          else this.#bands.set(band, [place]);
        }
      }
    this.#edges = Float64Array.from(edges);
  }

  /** True where a position lies inside, by the even-odd rule. */
  contains(at: Position): boolean {
    if (!boxContains(this.box, at)) return false;
    const edges = this.#edges;
    let isInside = false;
    for (const i of this.#bands.get(bandOf(at.lat)) ?? []) {
      const [ax, ay, bx, by] = [edges[i], edges[i + 1], edges[i + 2], edges[i + 3]];
      if (ay > at.lat !== by > at.lat && at.lon < ((bx - ax) * (at.lat - ay)) / (by - ay) + ax) isInside = !isInside;
    }
    return isInside;
  }

  /** True where a position lies inside, or at most some metres outside; metres are a plane's, good for a few tens of kilometres. */
  isNear(at: Position, metres: number): boolean {
    return this.contains(at) || this.isByEdge(at, metres);
  }

  /** True where an edge is at most some metres away. */
  isByEdge({ lat, lon }: Position, metres: number): boolean {
    const reach = metres / METRES_PER_DEGREE;
    const narrow = Math.cos((lat * Math.PI) / 180);
    const [west, south, east, north] = this.box;
    if (lat < south - reach || lat > north + reach) return false;
    if (west <= east && (lon < west - reach / narrow || lon > east + reach / narrow)) return false;
    const edges = this.#edges;
    for (let band = bandOf(lat - reach); band <= bandOf(lat + reach); band++)
      for (const i of this.#bands.get(band) ?? []) {
        const [ax, ay] = [(edges[i] - lon) * narrow, edges[i + 1] - lat];
        const [dx, dy] = [(edges[i + 2] - edges[i]) * narrow, edges[i + 3] - edges[i + 1]];
        const length = dx * dx + dy * dy;
        const share = length ? Math.min(1, Math.max(0, -(ax * dx + ay * dy) / length)) : 0;
        if (Math.hypot(ax + share * dx, ay + share * dy) <= reach) return true;
      }
    return false;
  }
}

const bandOf = (lat: number) => Math.min(BANDS - 1, Math.max(0, Math.floor((lat + 90) / BAND)));
