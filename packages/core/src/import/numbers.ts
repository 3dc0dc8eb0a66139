/** Thousands apart by points, commas, spaces or apostrophes: several times, or once with decimals behind another sign. */
const GROUPED = /^[+-]?\d{1,3}(?:([.,'’ \u00A0\u2009\u202F])\d{3})(?:(?:\1\d{3})+(?:(?!\1)[.,]\d+)?|(?!\1)[.,]\d+)$/;

/** A number with a point or a comma, and thousands apart where that cannot be taken for decimals; NaN where there is none. */
export function parseNumber(text: string): number {
  const plain = text.trim();
  if (/^[+-]?\d+([.,]\d+)?([eE][+-]?\d+)?$/.test(plain)) return Number(plain.replace(",", "."));
  const apart = GROUPED.exec(plain)?.[1];
  return apart ? Number(plain.replaceAll(apart, "").replace(",", ".")) : Number.NaN;
}
