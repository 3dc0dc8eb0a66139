/** A number with a point or a comma; NaN where there is none. */
export function parseNumber(text: string): number {
  const plain = text.trim();
  return /^[+-]?\d+([.,]\d+)?([eE][+-]?\d+)?$/.test(plain) ? Number(plain.replace(",", ".")) : Number.NaN;
}
