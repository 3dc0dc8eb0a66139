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

/** Signs kept as pictures. */
const KEPT = 400;
/** CSS pixels from a sign's spot to the sides of what it may take, and to its top and bottom. */
const SIDE = 48;
const ABOVE = 20;
const BELOW = 50;

/** A sign as a picture, no larger than its ink: what is empty takes as long to draw as what is not. */
interface Stamp {
  picture: ImageBitmap;
  /** Device pixels from the corner of what a sign may take. */
  left: number;
  top: number;
}

/** Signs as small pictures, for while a map with many of them moves. At rest they are drawn truly. */
export class SignStamps {
  readonly #stamps = new Map<string, Stamp>();
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
      const { picture, left, top } = stamp;
      const x = (Math.round((at.x - SIDE) * ratio) + left) / ratio;
      const y = (Math.round((at.y - ABOVE) * ratio) + top) / ratio;
      context.drawImage(picture, x, y, picture.width / ratio, picture.height / ratio);
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
      group: (at, { count, colour = style.madder }) => {
        const text = String(count);
        put(`sheaf ${text.length} ${colour}`, at, (painter) =>
          drawSheaf(painter, { x: SIDE, y: ABOVE }, text.length, colour, style),
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

  #make(draw: (painter: Painter) => void): Stamp {
    const whole = new OffscreenCanvas(2 * SIDE * this.#ratio, (ABOVE + BELOW) * this.#ratio);
    const context = whole.getContext("2d", { willReadFrequently: true })!;
    context.scale(this.#ratio, this.#ratio);
    draw(context as unknown as Painter);
    const { left, top, width, height } = inked(context.getImageData(0, 0, whole.width, whole.height));
    const cut = new OffscreenCanvas(width, height);
    cut.getContext("2d")!.drawImage(whole, -left, -top);
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
