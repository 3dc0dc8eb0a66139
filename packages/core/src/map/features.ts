/** A name in a language (BCP 47). */
export interface Name {
  lang: string;
  name: string;
}

/** Layers of the map, in the order in which they are drawn. */
export type MapLayer =
  | "land"
  | "town"
  | "cover"
  | "park"
  | "contour"
  | "water"
  | "river"
  | "boundary"
  | "building"
  | "ferry"
  | "railway"
  | "street"
  | "point"
  | "name";

/** What covers land that is not plain grass, in the order in which one lies over the other. */
export const COVERS = ["heath", "wood", "field", "marsh", "rock", "sand", "built"] as const;
export type Cover = (typeof COVERS)[number];

/** Geometry of a feature in a tile (RFC 7946): [lon, lat] in degrees. */
export type MapGeometry =
  | { type: "Point"; coordinates: [number, number] }
  | { type: "MultiPoint"; coordinates: [number, number][] }
  | { type: "LineString"; coordinates: [number, number][] }
  | { type: "MultiLineString"; coordinates: [number, number][][] }
  | { type: "Polygon"; coordinates: [number, number][][] }
  | { type: "MultiPolygon"; coordinates: [number, number][][][] };

/** A feature of a tile. */
export interface MapFeature {
  type: "Feature";
  id?: string;
  geometry: MapGeometry;
  properties: {
    layer: MapLayer;
    /**
     * 1 is the most important of the layer. Land of rank 1 was surveyed; of rank 2 it is a coarse outline, of rank 3 it was
     * laid under what is stored where those outlines know of none.
     */
    rank: number;
    /** The local name first. */
    names?: Name[];
    /** What a name represents (country, town, water, peak), what a cover is, or that a boundary is one of countries. */
    what?: string;
    /** Metres above the sea, of a peak, or of a contour: the outline of what lies as high or higher. */
    height?: number;
    /** 0, 1 or 2: which way a field is tilled. */
    tilth?: number;
    /**
     * Of an area that a tile cuts: for each ring, polygon after polygon, the places of the points whose next edge is the
     * tile's and not the area's own, so that no outline is drawn there.
     */
    cuts?: number[][];
  };
}

/** What the wire answers for a tile: a FeatureCollection. */
export interface FeatureTile {
  type: "FeatureCollection";
  features: MapFeature[];
}
