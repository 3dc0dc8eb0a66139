/** One of sixteen bits for a term: a thing whose bits lack it does not have the term. */
export function hintOf(term: number): number {
  return 1 << (Math.imul(term, 0x9e3779b1) >>> 28);
}
