import { drawMarker, type Painter, type Palette } from "@bibliotope/core/map";
import { CanvasTexture, Sprite, SpriteMaterial, SRGBColorSpace } from "three";
import { contextOf } from "../map/context.ts";
import { make } from "../map/make.ts";

/** Degrees that the camera sees from top to bottom. */
export const FIELD_OF_VIEW = 50;
/** CSS pixels of the sign's picture, and of the spot in it. */
const SIZE = { width: 360, height: 140 };
const SPOT = { x: 40, y: 40 };
/** Pixels of the picture to a CSS pixel. */
const FINENESS = 2;

/**
 * The marker of the flat map, standing at the origin and always as large on the screen.
 * @param metres of the ground there
 * @param viewHeight CSS pixels of the view
 */
export function makeSign(label: string | undefined, metres: number, palette: Palette, viewHeight: number): Sprite {
  const canvas = make("canvas");
  canvas.width = SIZE.width * FINENESS;
  canvas.height = SIZE.height * FINENESS;
  const context = contextOf(canvas);
  context.scale(FINENESS, FINENESS);
  drawMarker(context as unknown as Painter, { ...SPOT, marked: true, ...(label ? { label } : {}) }, palette);
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  const sprite = new Sprite(new SpriteMaterial({ map: texture, depthTest: false, sizeAttenuation: false, fog: false }));
  sprite.name = "sign";
  sprite.center.set(SPOT.x / SIZE.width, 1 - SPOT.y / SIZE.height);
  sprite.position.set(0, metres + 1, 0);
  sizeSign(sprite, viewHeight);
  return sprite;
}

/** A sprite's size is given in parts of the view: as many pixels as on the flat map. */
export function sizeSign(sprite: Sprite, viewHeight: number): void {
  const perPixel = (2 * Math.tan((FIELD_OF_VIEW * Math.PI) / 360)) / Math.max(1, viewHeight);
  sprite.scale.set(SIZE.width * perPixel, SIZE.height * perPixel, 1);
}
