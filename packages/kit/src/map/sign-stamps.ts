import {
  digitWidth,
  drawMarker,
  drawSheaf,
  letterCount,
  type MarkerSign,
  type Over,
  type Painter,
  type SheetStyle,
} from "@bibliotope/core/sheet";
import { make } from "./make.ts";

/** Signs kept as pictures. */
const KEPT = 400;
/** CSS pixels from a sign's spot to the sides of its picture, and to its top and bottom. */
const SIDE = 48;
const ABOVE = 20;
const BELOW = 50;

/** Signs as small pictures, for while a map with many of them moves. At rest they are drawn truly. */
export class SignStamps {
  readonly #stamps = new Map<string, HTMLCanvasElement>();
  #digit: number | undefined;
  #ratio = 0;
  #style: SheetStyle | undefined;

  forget(): void {
    this.#stamps.clear();
    this.#digit = undefined;
  }

  /** What draws on a context with one unit to a CSS pixel. */
  on(context: CanvasRenderingContext2D, style: SheetStyle, ratio: number): NonNullable<Over["stamp"]> {
    if (this.#ratio !== ratio || this.#style !== style || this.#stamps.size > KEPT) this.forget();
    this.#ratio = ratio;
    this.#style = style;
    const put = (key: string, at: { x: number; y: number }, draw: (painter: Painter) => void) => {
      let stamp = this.#stamps.get(key);
      if (!stamp) {
        stamp = this.#make(draw);
        this.#stamps.set(key, stamp);
      }
      // whole device pixels, so that nothing is drawn between two
      const [x, y] = [Math.round((at.x - SIDE) * ratio) / ratio, Math.round((at.y - ABOVE) * ratio) / ratio];
      context.drawImage(stamp, x, y, stamp.width / ratio, stamp.height / ratio);
      return true;
    };
    return {
      marker: (sign: MarkerSign) => {
        const { label, picture, lifted, colour = "", number = "", marked = false, state = "" } = sign;
        if (label || picture || lifted) return false;
        return put(`marker ${colour} ${number} ${marked} ${state}`, sign, (painter) =>
          drawMarker(painter, { ...sign, x: SIDE, y: ABOVE }, style),
        );
      },
      group: (at, count) => {
        const text = String(count);
        put(`sheaf ${text.length}`, at, (painter) =>
          drawSheaf(painter, { x: SIDE, y: ABOVE }, text.length, style.madder, style),
        );
        // digit by digit: each zoom has groups of other counts
        const width = this.#digitWidth(context);
        [...text].forEach((digit, i) => {
          const x = at.x + (i - (text.length - 1) / 2) * width;
          put(`digit ${digit}`, { x, y: at.y }, (painter) => {
            painter.translate(SIDE, ABOVE);
            letterCount(painter, digit, style);
          });
        });
        return true;
      },
    };
  }

  #digitWidth(context: CanvasRenderingContext2D): number {
    this.#digit ??= digitWidth(context as unknown as Painter);
    return this.#digit;
  }

  #make(draw: (painter: Painter) => void): HTMLCanvasElement {
    const stamp = make("canvas");
    stamp.width = Math.ceil(2 * SIDE * this.#ratio);
    stamp.height = Math.ceil((ABOVE + BELOW) * this.#ratio);
    const context = stamp.getContext("2d")!;
    context.scale(this.#ratio, this.#ratio);
    draw(context as unknown as Painter);
    return stamp;
  }
}
