import { COVERS, type Cover, type MapFeature } from "./features.ts";
import type { Painter } from "./painter.ts";
import type { Box, Pen } from "./pen.ts";

/** From these zooms on a cover has a texture, and fields are single ones. */
const TEXTURE_ZOOM = 11;
const FIELDS_ZOOM = 12;
/** From this zoom on a texture's marks lie further apart. */
const BROAD_ZOOM = 15;

/** What covers the land: papers first, then each with its own texture, so that inks never run under a paper. */
export function* paintCovers(pen: Pen, features: readonly MapFeature[]): Generator<void> {
  const { palette, part } = pen;
  for (const cover of COVERS) {
    const areas = features.filter(({ properties }) => properties.what === cover && properties.rank === 1);
    pen.fill(areas, palette.covers[cover].paper);
    if (cover === "field" && part.z >= FIELDS_ZOOM) paintFields(pen, features);
    else if (part.z >= TEXTURE_ZOOM) for (const feature of areas) paintTexture(pen, feature, cover);
    yield;
  }
}

/** Single fields: a paper for each tilth, furrows its own way, a hedge around. */
function paintFields(pen: Pen, features: readonly MapFeature[]): void {
  const { painter, part, palette } = pen;
  const fields = features.filter(({ properties }) => properties.what === "field" && properties.rank === 2);
  for (const tilth of [0, 1, 2] as const) {
    const own = fields.filter(({ properties }) => properties.tilth === tilth);
    pen.fill(own, palette.fields[tilth]);
    if (part.z < FIELDS_ZOOM + 1) continue;
    for (const feature of own) {
      painter.save();
      pen.clip(feature);
      painter.beginPath();
      furrows(painter, pen, pen.boxOf(feature), FURROWS[tilth]);
      painter.globalAlpha = 0.55;
      pen.ink(palette.covers.field.ink, 0.6);
      painter.restore();
    }
    if (part.z >= FIELDS_ZOOM + 2) pen.lines(own, palette.covers.wood.ink, 1.1, [1, 3]);
  }
}

/** Furrows of each tilth: how far right a line goes for each pixel down, and pixels between two. */
const FURROWS = [
  { lean: 0.35, gap: 7 },
  { lean: -1.1, gap: 9 },
  { lean: 1.6, gap: 11 },
] as const;

/** Slanting lines that go on from tile to tile: gaps divide a tile's side times the lean only nearly, so both count from the world's corner. */
function furrows(painter: Painter, { part }: Pen, box: Box, { lean, gap }: { lean: number; gap: number }): void {
  // a line is where x - lean * y is a multiple of the gap, in the world's pixels
  const offset = (part.left - lean * part.top) % gap;
  const ends = [
    box.left - lean * box.top,
    box.right - lean * box.top,
    box.left - lean * box.bottom,
    box.right - lean * box.bottom,
  ];
  const [from, to] = [Math.min(...ends), Math.max(...ends)];
  for (let k = Math.ceil((from + offset) / gap); k * gap - offset <= to; k++) {
    const x = k * gap - offset;
    painter.moveTo(x + lean * box.top, box.top);
    painter.lineTo(x + lean * box.bottom, box.bottom);
  }
}

/** Where and how a texture sets its marks. */
interface Texture {
  /** Pixels from one mark to the next. */
  gap: number;
  /** Share of the gap by which a mark may stand off its place. */
  stray: number;
  /** Adds one mark to the path. @param chance 0 to 1, the same for the same place */
  mark(painter: Painter, x: number, y: number, chance: number): void;
  /** Width of the ink; filled instead where there is none. */
  width?: number;
}

const dot = (radius: number) => (painter: Painter, x: number, y: number) => {
  painter.moveTo(x + radius, y);
  painter.arc(x, y, radius, 0, 2 * Math.PI);
};

const TEXTURES: Readonly<Partial<Record<Cover, Texture>>> = {
  // crowns, open where the light falls in
  wood: {
    gap: 13,
    stray: 0.75,
    width: 0.8,
    mark(painter, x, y, chance) {
      const radius = 2.2 + 1.8 * chance;
      painter.moveTo(x + radius * Math.cos(2.6), y + radius * Math.sin(2.6));
      painter.arc(x, y, radius, 2.6, 7.6);
    },
  },
  // tufts
  heath: {
    gap: 15,
    stray: 0.8,
    width: 0.7,
    mark(painter, x, y, chance) {
      const up = 2.5 + 2 * chance;
      painter.moveTo(x, y);
      painter.lineTo(x - 2, y - up);
      painter.moveTo(x, y);
      painter.lineTo(x + 2.2, y - up);
    },
  },
  // water between reeds
  marsh: {
    gap: 14,
    stray: 0.7,
    width: 0.8,
    mark(painter, x, y, chance) {
      const half = 3 + 3 * chance;
      painter.moveTo(x - half, y);
      painter.lineTo(x + half, y);
      painter.moveTo(x - half * 0.4, y + 2.6);
      painter.lineTo(x + half * 0.7, y + 2.6);
    },
  },
  // hachures down the face
  rock: {
    gap: 11,
    stray: 0.9,
    width: 0.8,
    mark(painter, x, y, chance) {
      painter.moveTo(x, y);
      painter.lineTo(x + 1.5 + 3 * chance, y + 3 + 3 * chance);
      painter.lineTo(x + 5 + 2 * chance, y + 2 + 2 * chance);
    },
  },
  sand: { gap: 6, stray: 0.9, mark: dot(0.7) },
};

function paintTexture(pen: Pen, feature: MapFeature, cover: Cover): void {
  const texture = TEXTURES[cover];
  if (!texture) return;
  const { painter, palette, part } = pen;
  const { left, top, right, bottom } = pen.boxOf(feature);
  const gap = texture.gap * (part.z >= BROAD_ZOOM ? 1.5 : 1);
  painter.save();
  pen.clip(feature);
  painter.beginPath();
  // places count from the world's corner, so that marks go on from tile to tile; those just outside reach in
  for (let row = Math.floor((top + part.top) / gap) - 1; row * gap <= bottom + part.top + gap; row++) {
    for (let column = Math.floor((left + part.left) / gap) - 1; column * gap <= right + part.left + gap; column++) {
      const chance = chanceAt(column, row);
      const stray = texture.stray * gap;
      const x = column * gap + (chance - 0.5) * stray - part.left;
      const y = row * gap + (chanceAt(row, column + 7) - 0.5) * stray - part.top;
      texture.mark(painter, x, y, chance);
    }
  }
  const { ink } = palette.covers[cover];
  if (texture.width) pen.ink(ink, texture.width);
  else {
    painter.fillStyle = ink;
    painter.fill();
  }
  painter.restore();
}

/** A number from 0 to 1 for a place of the texture's grid: the same wherever it is asked. */
function chanceAt(column: number, row: number): number {
  let hash = Math.imul(column, 0x27d4eb2d) ^ Math.imul(row, 0x165667b1);
  hash = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
  return ((hash ^ (hash >>> 13)) >>> 0) / 2 ** 32;
}
