import type { TileName } from "./paint.ts";

/** Picture tiles of one's own, such as pictures from the air, shown in place of the map's own styles. */
export interface PictureTiles {
  /** Its name in the choice of map styles. */
  name: string;
  /**
   * Address of a tile. XYZ: `https://pictures.example/{z}/{x}/{y}.jpg`, with `{-y}` where rows are counted from the south.
   * WMTS (OGC 07-057r7), tiles of WebMercatorQuad: a template with `{TileMatrix}`, `{TileRow}`, `{TileCol}`, or the address of a
   * GetTile request, to which the three are added.
   */
  url: string;
  /** Who made them: always shown on the map, as text. */
  attribution: string;
  /** Whole zooms of which there are tiles: 0 to 19 when not given. Beyond the last one its tiles are shown larger. */
  least?: number;
  most?: number;
  /** False to leave the map's own names out. */
  names?: boolean;
}

/** The greatest zoom of tiles that is requested. */
const MOST_TILES = 24;
const DEFAULT_MOST = 19;
const LONGEST = 1000;

const VARIABLE = /\{([^{}]*)\}/g;
const ORIGIN = /^(https?):\/\/([^/?#\s\\@{}]+)(?=[/?#]|$)/i;
/** What identifies a tile in a template, each in lower case. */
const XYZ = [["z"], ["x"], ["y", "-y"]];
const WMTS = [["tilematrix"], ["tilecol"], ["tilerow"]];
/** A query that asks a WMTS for a tile by keys and values. */
const GET_TILE = /[?&]request=gettile(?=&|$)/i;

/** True for the address of a GetTile request that does not say yet where its tile's matrix, row and column stand. */
const isBareGetTile = (url: string) => GET_TILE.test(url) && !/[?&]tilematrix=/i.test(url);

/** What is wrong with the address of picture tiles, in words; undefined when nothing is. */
export function pictureUrlTrouble(url: string): string | undefined {
  if (url.length > LONGEST) return `has more than ${LONGEST} characters`;
  if (!ORIGIN.test(url)) return "is not an http or https URL";
  if (/[\s\\]/.test(url)) return "has a space or a backslash in it";
  const names = [...url.matchAll(VARIABLE)].map(([, name]) => name.toLowerCase());
  const known = [...XYZ, ...WMTS].flat();
  const foreign = names.find((name) => !known.includes(name));
  if (foreign !== undefined) return `has {${foreign}} in it, which is not known`;
  if (isBareGetTile(url)) return names.length ? "asks for a tile by a query and by its path at once" : undefined;
  const isTold = (way: string[][]) => way.every((any) => any.some((name) => names.includes(name)));
  return isTold(XYZ) || isTold(WMTS) ? undefined : "needs {z}, {x} and {y}, or {TileMatrix}, {TileRow} and {TileCol}";
}

/** Scheme, host and port that tiles come from, in lower case; undefined where the address is wrong. */
export function pictureOrigin(url: string): string | undefined {
  const found = ORIGIN.exec(url);
  return found ? `${found[1]}://${found[2]}`.toLowerCase() : undefined;
}

/** The address of a tile. @throws RangeError for a wrong template */
export function pictureTileUrl(url: string, { z, x, y }: TileName): string {
  const trouble = pictureUrlTrouble(url);
  if (trouble) throw new RangeError(`The URL of the tiles ${trouble}.`);
  if (isBareGetTile(url)) {
    const [address, ...rest] = url.split("#");
    return [`${address}&TileMatrix=${z}&TileRow=${y}&TileCol=${x}`, ...rest].join("#");
  }
  const values: Record<string, number> = {
    ...{ z, x, y, "-y": 2 ** z - 1 - y },
    ...{ tilematrix: z, tilecol: x, tilerow: y },
  };
  return url.replace(VARIABLE, (_, name: string) => String(values[name.toLowerCase()]));
}

/** Which picture shows a tile, and which part of it: shares of the side. */
export interface PicturePart extends TileName {
  left: number;
  top: number;
  side: number;
}

/** The picture for a tile; of a tile beyond the last zoom a part of a larger one; undefined where there is none. */
export function picturePartOf({ least = 0, most = DEFAULT_MOST }: PictureTiles, { z, x, y }: TileName) {
  if (z < least) return undefined;
  const up = Math.max(0, z - Math.min(most, MOST_TILES));
  const count = 2 ** up;
  const part: PicturePart = {
    ...{ z: z - up, x: Math.floor(x / count), y: Math.floor(y / count) },
    ...{ left: (x % count) / count, top: (y % count) / count, side: 1 / count },
  };
  return part;
}
