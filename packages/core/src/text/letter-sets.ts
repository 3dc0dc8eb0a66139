/** The letters of a word as bits: a to z, digits by pairs, everything else the last bit. */
export function lettersOf(word: string): number {
  let bits = 0;
  for (let i = 0; i < word.length; i++) bits |= 1 << bitOf(word.charCodeAt(i));
  return bits >>> 0;
}

function bitOf(unit: number): number {
  if (unit >= 97 && unit <= 122) return unit - 97;
  if (unit >= 48 && unit <= 57) return 26 + ((unit - 48) >> 1);
  return 31;
}

/** How many bits of a 32-bit number are set. */
export function countBits(bits: number): number {
  let n = bits - ((bits >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return Math.imul((n + (n >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}
