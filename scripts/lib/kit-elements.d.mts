export const ELEMENTS: readonly string[];
