import { BufferAttribute, BufferGeometry } from "three";
import type { HeightField, SquarePoint } from "./height-field.ts";

/** Where metres of the scene begin: x runs east, z south, y up. */
export interface Ground {
  origin: SquarePoint;
  /** Metres of the square's side, as long as they are at the origin's latitude. */
  side: number;
  heights: HeightField;
}

/** Metres of the scene for a point of the square. */
export function toScene({ origin, side }: Ground, { x, y }: SquarePoint): { x: number; z: number } {
  return { x: (x - origin.x) * side, z: (y - origin.y) * side };
}

/** The point of the square at metres of the scene. */
export function toSquare({ origin, side }: Ground, { x, z }: { x: number; z: number }): SquarePoint {
  return { x: origin.x + x / side, y: origin.y + z / side };
}

/** A square part that finer tiles show, in points of the square. */
export interface Hole {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/**
 * The ground under a tile as a mesh with texture coordinates of the tile from the north-west corner.
 * @param cells to a side
 * @param lowered metres by which it lies below the true ground, so that finer ground lies over it
 */
export function terrainOf(
  ground: Ground,
  { z, x, y }: { z: number; x: number; y: number },
  cells: number,
  { hole, lowered = 0 }: { hole?: Hole; lowered?: number } = {},
): BufferGeometry {
  const count = 2 ** z;
  const points = (cells + 1) ** 2;
  const places = new Float32Array(points * 3);
  const spots = new Float32Array(points * 2);
  const inHole = new Uint8Array(points);
  for (let row = 0, i = 0; row <= cells; row++) {
    for (let column = 0; column <= cells; column++, i++) {
      const point = { x: (x + column / cells) / count, y: (y + row / cells) / count };
      const { x: east, z: south } = toScene(ground, point);
      places.set([east, ground.heights.at(point) - lowered, south], 3 * i);
      spots.set([column / cells, row / cells], 2 * i);
      inHole[i] = Number(
        hole !== undefined &&
          point.x >= hole.left &&
          point.x <= hole.right &&
          point.y >= hole.top &&
          point.y <= hole.bottom,
      );
    }
  }
  const faces: number[] = [];
  for (let row = 0; row < cells; row++) {
    for (let column = 0; column < cells; column++) {
      const a = row * (cells + 1) + column;
      const [b, c, d] = [a + 1, a + cells + 1, a + cells + 2];
      if (inHole[a] && inHole[b] && inHole[c] && inHole[d]) continue;
      faces.push(a, c, b, b, c, d);
    }
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(places, 3));
  geometry.setAttribute("uv", new BufferAttribute(spots, 2));
  geometry.setIndex(faces);
  geometry.computeVertexNormals();
  return geometry;
}
