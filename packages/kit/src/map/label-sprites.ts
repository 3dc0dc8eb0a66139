import { drawLabels, type LabelBox, type Painter, type Palette } from "@bibliotope/core/map";
import { hiddenContextOf } from "./context.ts";

/** Names kept as pictures. */
const KEPT = 800;
/** CSS pixels around a name for the halo, and above and below it for a second line. */
const MARGIN = 6;
const LINES = 24;
/** Milliseconds of a frame for lettering new names; the others come a frame later. */
const LETTERING = 3;

interface Sprite {
  picture: ImageBitmap;
  /** The drawing that used it last. */
  used: number;
}

/** Names as small pictures: lettering along a line with a halo takes longer than all tiles do. */
export class LabelSprites {
  readonly #sprites = new Map<string, Sprite>();
  #ratio = 0;
  #palette: Palette | undefined;
  #drawings = 0;

  /** Names are to be lettered anew: a font came. */
  forget(): void {
    this.#sprites.clear();
  }

  /**
   * Draws placed names at integer device pixels.
   * @param widthOf CSS pixels of a name's text
   * @returns whether all are drawn; those that there was no time for want another frame
   */
  draw(
    context: CanvasRenderingContext2D,
    placed: readonly LabelBox[],
    palette: Palette,
    ratio: number,
    widthOf: (box: LabelBox) => number,
  ): boolean {
    if (this.#ratio !== ratio || this.#palette !== palette) this.forget();
    this.#ratio = ratio;
    this.#palette = palette;
    const used = ++this.#drawings;
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    const began = performance.now();
    let isWhole = true;
    for (const box of placed) {
      const { what, rank, text, local = "", turn } = box.label;
      const key = `${what} ${rank} ${turn.toFixed(3)} ${text} ${local}`;
      let sprite = this.#sprites.get(key);
      if (!sprite) {
        if (performance.now() - began > LETTERING) {
          isWhole = false;
          continue;
        }
        sprite = { picture: this.#make(box, widthOf(box)), used };
        this.#sprites.set(key, sprite);
      }
      sprite.used = used;
      const [x, y] = [box.x * ratio - sprite.picture.width / 2, box.y * ratio - sprite.picture.height / 2];
      context.drawImage(sprite.picture, Math.round(x), Math.round(y));
    }
    context.restore();
    if (this.#sprites.size > KEPT)
      for (const [key, sprite] of this.#sprites) if (sprite.used !== used) this.#sprites.delete(key);
    return isWhole;
  }

  #make(box: LabelBox, width: number): ImageBitmap {
    const { turn } = box.label;
    const [along, across] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
    const sprite = new OffscreenCanvas(
      Math.ceil((along * width + across * LINES * 2 + 2 * MARGIN) * this.#ratio),
      Math.ceil((across * width + along * LINES * 2 + 2 * MARGIN) * this.#ratio),
    );
    const context = hiddenContextOf(sprite);
    context.scale(this.#ratio, this.#ratio);
    const middle = { x: sprite.width / 2 / this.#ratio, y: sprite.height / 2 / this.#ratio };
    drawLabels(context as unknown as Painter, [{ ...box, ...middle }], this.#palette!);
    return sprite.transferToImageBitmap();
  }
}
