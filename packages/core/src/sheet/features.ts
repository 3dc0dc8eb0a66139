/** A name in a language (BCP 47). */
interface Name {
  lang: string;
  name: string;
}

/** Layers of a sheet, in the order in which they are drawn. */
export type SheetLayer =
  | "land"
  | "park"
  | "contour"
  | "water"
  | "river"
  | "boundary"
  | "building"
  | "ferry"
  | "street"
  | "name";

/** Geometry of a feature in a tile (RFC 7946): [lon, lat] in degrees. */
export type SheetGeometry =
  | { type: "Point"; coordinates: [number, number] }
  | { type: "LineString"; coordinates: [number, number][] }
  | { type: "MultiLineString"; coordinates: [number, number][][] }
  | { type: "Polygon"; coordinates: [number, number][][] }
  | { type: "MultiPolygon"; coordinates: [number, number][][][] };

/** A feature of a tile. */
export interface SheetFeature {
  type: "Feature";
  id?: string;
  geometry: SheetGeometry;
  properties: {
    layer: SheetLayer;
    /** 1 is the most important of its layer. */
    rank: number;
    /** The local name first. */
    names?: Name[];
    /** What a name stands for: town, water, park. */
    what?: string;
    /** Height of a contour in metres. */
    height?: number;
  };
}

/** What the wire answers for a tile: a FeatureCollection. */
export interface SheetTile {
  type: "FeatureCollection";
  features: SheetFeature[];
}
