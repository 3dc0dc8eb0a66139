import {
  digitWidth,
  drawMarker,
  drawSheaf,
  letterCount,
  type MarkerSign,
  type Over,
  type Painter,
  type Palette,
  tabOf,
} from "@bibliotope/core/map";
import { hiddenContextOf } from "./context.ts";

/** Signs kept as pictures. */
const KEPT = 800;
/** CSS pixels from a sign's spot to the sides of what it may take, and to the top and bottom. */
const SIDE = 48;
const ABOVE = 22;
const BELOW = 70;

/** Size of the picture that serves signs of all sizes. */
const LARGE = 1.6;

/** Milliseconds of a frame for making pictures; the other signs are drawn truly. */
const MAKING = 4;

/** A sign as a picture, no larger than its ink: what is empty takes as long to draw as what is not. */
interface Stamp {
  picture: ImageBitmap;
  /** Device pixels from the corner of what a sign may take. */
  left: number;
  top: number;
  /** The drawing that used it last. */
  used: number;
}

/** Signs as small pictures, for maps with many of them. */
export class SignStamps {
  readonly #stamps = new Map<string, Stamp>();
  /** Device pixels of a digit's width. */
  #digit: number | undefined;
  #ratio = 0;
  #palette: Palette | undefined;
  #drawings = 0;

  forget(): void {
    this.#stamps.clear();
    this.#digit = undefined;
  }

  /** What draws on a context with one unit to a CSS pixel. */
  on(context: CanvasRenderingContext2D, palette: Palette, ratio: number): NonNullable<Over["stamp"]> {
    if (this.#ratio !== ratio || this.#palette !== palette) this.forget();
    this.#ratio = ratio;
    this.#palette = palette;
    this.#sweep();
    this.#drawings++;
    const began = performance.now();
    const isLate = () => performance.now() - began > MAKING;
    const put = ({ picture, left, top }: Stamp, at: { x: number; y: number }, scale = 1) => {
      // integer device pixels, so that nothing is drawn between two
      const x = Math.round((at.x - SIDE * scale) * ratio + left * scale) / ratio;
      const y = Math.round((at.y - ABOVE * scale) * ratio + top * scale) / ratio;
      context.drawImage(picture, x, y, (picture.width * scale) / ratio, (picture.height * scale) / ratio);
      return true;
    };
    return {
      marker: (sign: MarkerSign) => {
        const { label, picture, lifted, colour = "", number = "", marked = false, state = "", size } = sign;
        if (label || picture || lifted) return false;
        // one picture serves all sizes, made larger than most of them are
        const made = size === undefined ? 1 : LARGE;
        const key = `marker ${colour} ${number} ${marked} ${state} ${made}`;
        if (!this.#stamps.has(key) && isLate()) return false;
        const draw = (painter: Painter) => drawMarker(painter, { ...sign, size: made, x: SIDE, y: ABOVE }, palette);
        const stamp = this.#stamp(key, () => this.#make(draw));
        return put(stamp, sign, size === undefined ? 1 : size / LARGE);
      },
      group: (at, group) => {
        const { colour = palette.madder } = group;
        for (const [piece, shift] of this.#piecesOf(tabOf(group), colour, palette))
          put(piece, { x: at.x + shift / ratio, y: at.y });
        return true;
      },
    };
  }

  /** A picture that is kept, or made. */
  #stamp(key: string, make: () => Omit<Stamp, "used">): Stamp {
    let stamp = this.#stamps.get(key);
    if (!stamp) {
      stamp = { ...make(), used: 0 };
      this.#stamps.set(key, stamp);
    }
    stamp.used = this.#drawings;
    return stamp;
  }

  /**
   * A group's sheaf and the characters on its tab, all of one width, each with device pixels by which it stands further right. A picture for
   * each count is slower: every zoom has other counts, and each new picture has to be handed to whoever draws.
   */
  #piecesOf(tab: string, colour: string, palette: Palette): [Stamp, number][] {
    const digits = tab.length;
    const sheaf = this.#stamp(`sheaf ${digits} ${colour}`, () =>
      this.#make((painter) => drawSheaf(painter, { x: SIDE, y: ABOVE }, digits, colour, palette)),
    );
    return [
      [sheaf, 0],
      ...Array.from(tab, (digit, i): [Stamp, number] => {
        const draw = (painter: Painter) => {
          painter.translate(SIDE, ABOVE);
          this.#digit ??= digitWidth(painter) * this.#ratio;
          letterCount(painter, digit, palette);
        };
        const stamp = this.#stamp(`digit ${digit}`, () => this.#make(draw));
        return [stamp, Math.round((i - (digits - 1) / 2) * this.#digit!)];
      }),
    ];
  }

  /** Lets go of what the drawing before did not use, when there are many. */
  #sweep(): void {
    if (this.#stamps.size <= KEPT) return;
    for (const [key, { used }] of this.#stamps) if (used !== this.#drawings) this.#stamps.delete(key);
  }

  #make(draw: (painter: Painter) => void): Omit<Stamp, "used"> {
    const drawn = new OffscreenCanvas(2 * SIDE * this.#ratio, (ABOVE + BELOW) * this.#ratio);
    const context = hiddenContextOf(drawn, { willReadFrequently: true });
    context.scale(this.#ratio, this.#ratio);
    draw(context as unknown as Painter);
    const { left, top, width, height } = inked(context.getImageData(0, 0, drawn.width, drawn.height));
    const cut = new OffscreenCanvas(width, height);
    hiddenContextOf(cut).drawImage(drawn, -left, -top);
    return { picture: cut.transferToImageBitmap(), left, top };
  }
}

/** The smallest box around all that is not clear; never empty. */
function inked({ data, width, height }: ImageData): { left: number; top: number; width: number; height: number } {
  let [left, top, right, bottom] = [width - 1, height - 1, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!data[4 * (y * width + x) + 3]) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  }
  left = Math.min(left, right);
  top = Math.min(top, bottom);
  return { left, top, width: right - left + 1, height: bottom - top + 1 };
}
