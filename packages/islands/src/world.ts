import type { HeightGrid, Position, Ring } from "@bibliotope/core/geo";
import type { AreaKind, Facts, Name } from "@bibliotope/core/place";

/** Records of the made-up world. Keys are natural keys: the same place has the same key in every version. */
export interface WorldArea {
  key: string;
  parent: string | null;
  kind: AreaKind;
  country: string;
  code?: string;
  names: Name[];
  at: Position;
  population: number;
  importance: number;
  rings: Ring[];
}

export interface WorldPostcode {
  key: string;
  country: string;
  code: string;
  area: string;
  at: Position;
}

export interface WorldStreet {
  key: string;
  country: string;
  area: string;
  kind: "street" | "block";
  names: Name[];
  at: Position;
  importance: number;
}

export interface WorldAddress {
  key: string;
  country: string;
  street: string;
  /** Null for a house with only a name. */
  number: number | null;
  /** What follows the number: "b", "/3", "-14". */
  suffix: string;
  name?: string;
  unit?: string;
  postcode: string | null;
  at: Position;
}

export interface WorldPlace {
  key: string;
  country: string;
  area: string;
  /** Key of the address it is at, or null. */
  address: string | null;
  kinds: string[];
  names: Name[];
  at: Position;
  importance: number;
  facts: Facts;
}

/** What is on the map. Coordinates are [lon, lat]; a polygon's rings are closed. */
export type Geometry =
  | { type: "Point"; coordinates: [number, number] }
  | { type: "LineString"; coordinates: [number, number][] }
  | { type: "Polygon"; coordinates: [number, number][][] }
  | { type: "MultiPolygon"; coordinates: [number, number][][][] };

export type Layer =
  | "land"
  | "water"
  | "river"
  | "cover"
  | "park"
  | "contour"
  | "boundary"
  | "street"
  | "railway"
  | "building"
  | "ferry"
  | "name";

export interface WorldFeature {
  layer: Layer;
  /** 1 is the most important of the layer. */
  rank: number;
  names: Name[];
  geometry: Geometry;
  /** Natural key of the record it shows, if any. */
  key?: string;
  properties: Record<string, string | number>;
}

/** Everything that one seed and size give. */
export interface World {
  areas: WorldArea[];
  postcodes: WorldPostcode[];
  streets: WorldStreet[];
  addresses: WorldAddress[];
  places: WorldPlace[];
  features: WorldFeature[];
  /** Heights of the ground; the sea is 0. */
  grids: HeightGrid[];
}

export function emptyWorld(): World {
  return { areas: [], postcodes: [], streets: [], addresses: [], places: [], features: [], grids: [] };
}
