/** A number as people read it. */
export const count = (value: number) => value.toLocaleString("en");
