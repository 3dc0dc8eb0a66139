import { Router } from "express";

/**
 * A router for which `/Suggest` is another path than `/suggest`. Keys, limits and counts go by the path as it is
 * written: a path that a route took in another case would pass them all.
 */
export function exactRouter(): Router {
  return Router({ caseSensitive: true });
}
