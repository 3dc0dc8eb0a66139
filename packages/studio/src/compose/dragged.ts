/** Names under which a dragged part and a dragged field travel. */
export const DRAGGED = "application/x-bibliotope-part";
export const DRAGGED_FIELD = "application/x-bibliotope-field";
