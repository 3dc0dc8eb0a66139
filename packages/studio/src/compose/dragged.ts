/** Name under which a dragged part travels. */
export const DRAGGED = "application/x-bibliotope-part";
