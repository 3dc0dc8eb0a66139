/**
 * What scripts and tests find the parts of a form by: the attribute `data-bibliotope`. These names stay as they are within
 * a major version, which classes do not.
 */
export type FormPart = "form" | "search" | "suggestions" | "line" | "match" | "typed" | "map";

export function markPart<E extends HTMLElement>(element: E, part: FormPart): E {
  element.dataset.bibliotope = part;
  return element;
}

/** CSS selector of a part. */
export const partSelector = (part: FormPart) => `[data-bibliotope="${part}"]`;

/**
 * A custom event on a form, its detail a `PointedAt`: the same as a click on the form's map there, which scripts cannot
 * do since they do not know where on the screen a position lies.
 */
export const POINT_EVENT = "bibliotope-point";

/** A position on the map, WGS 84 degrees, and the address whose marker is put there; without it that of the map. */
export interface PointedAt {
  lat: number;
  lon: number;
  address?: string;
}
