import type { Position } from "@bibliotope/core/geo";

/** Metres east and north of an island's middle. */
export interface Point {
  x: number;
  y: number;
}

/** A flat piece of the world around a middle, good enough for an island. */
export class Plane {
  readonly #metresLon: number;

  constructor(
    readonly middle: Position,
    private readonly origin: Point = { x: 0, y: 0 },
  ) {
    this.#metresLon = 111320 * Math.cos((middle.lat * Math.PI) / 180);
  }

  /** The same plane, counted from another point of it. */
  around(origin: Point): Plane {
    return new Plane(this.middle, origin);
  }

  position({ x, y }: Point): Position {
    return {
      lat: round(this.middle.lat + (y + this.origin.y) / 111132),
      lon: round(this.middle.lon + (x + this.origin.x) / this.#metresLon),
    };
  }

  /** The way back from a position. */
  point({ lat, lon }: Position): Point {
    return {
      x: (lon - this.middle.lon) * this.#metresLon - this.origin.x,
      y: (lat - this.middle.lat) * 111132 - this.origin.y,
    };
  }

  pair(point: Point): [lon: number, lat: number] {
    const { lat, lon } = this.position(point);
    return [lon, lat];
  }
}

const round = (degrees: number) => Math.round(degrees * 1e6) / 1e6;

export const distance = (a: Point, b: Point) => Math.sqrt((a.x - b.x) ** 2 + (a.y - b.y) ** 2);
