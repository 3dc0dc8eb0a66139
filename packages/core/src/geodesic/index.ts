export { type Geodesic, geodesic } from "./geodesic.ts";
