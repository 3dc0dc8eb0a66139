import { type Frame, framesMeet } from "./clip.ts";

/** Children of a node. */
const FAN = 16;

/** A node, and the places of the children: nodes of the level below, or frames of the list in the lowest level. */
interface Node {
  frame: Frame;
  children: readonly Node[];
  places: readonly number[];
}

/**
 * Finds the frames of a list that meet one, without visiting most of the others. Packed once: strips by the middles
 * from west to east, each cut from north to south (Leutenegger and others, STR: a simple and efficient algorithm for
 * R-tree packing, ICDE 1997).
 */
export class FrameTree {
  readonly #root: Node | undefined;

  constructor(private readonly frames: readonly Frame[]) {
    let nodes = leavesOf(frames);
    while (nodes.length > 1) {
      const above: Node[] = [];
      for (let i = 0; i < nodes.length; i += FAN) {
        const children = nodes.slice(i, i + FAN);
        above.push({ frame: around(children.map(({ frame }) => frame)), children, places: [] });
      }
      nodes = above;
    }
    this.#root = nodes[0];
  }

  /** Places of the frames that meet one, edges included, in rising order. */
  meeting(frame: Frame): number[] {
    const found: number[] = [];
    const visit = (node: Node): void => {
      if (!framesMeet(node.frame, frame)) return;
      for (const child of node.children) visit(child);
      for (const place of node.places) if (framesMeet(this.frames[place], frame)) found.push(place);
    };
    if (this.#root) visit(this.#root);
    return found.sort((a, b) => a - b);
  }
}

function leavesOf(frames: readonly Frame[]): Node[] {
  const x = frames.map(({ left, right }) => left + right);
  const y = frames.map(({ top, bottom }) => top + bottom);
  const eastward = frames.map((_, place) => place).sort((a, b) => x[a] - x[b]);
  const strip = FAN * Math.ceil(Math.sqrt(frames.length / FAN));
  const leaves: Node[] = [];
  for (let from = 0; from < eastward.length; from += strip) {
    const southward = eastward.slice(from, from + strip).sort((a, b) => y[a] - y[b]);
    for (let i = 0; i < southward.length; i += FAN) {
      const places = southward.slice(i, i + FAN);
      leaves.push({ frame: around(places.map((place) => frames[place])), children: [], places });
    }
  }
  return leaves;
}

function around(frames: readonly Frame[]): Frame {
  const frame = { ...frames[0] };
  for (const { left, top, right, bottom } of frames) {
    frame.left = Math.min(frame.left, left);
    frame.top = Math.min(frame.top, top);
    frame.right = Math.max(frame.right, right);
    frame.bottom = Math.max(frame.bottom, bottom);
  }
  return frame;
}
