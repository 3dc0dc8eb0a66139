/** Refs: opaque, URL-safe, one for each identity, the same over all versions of the data. */

const ALPHABET = "0123456789abcdefghjkmnpqrstvwxyz";
/** Identities run from 0 to this, 2^30: six letters of five bits. */
export const MAX_IDENTITY = 2 ** 30;
const MASK = MAX_IDENTITY - 1;
/** An odd number and its inverse modulo 2^30: multiplying by it scatters neighbours. */
const SCATTER = 0x2545f491;
const GATHER = inverse(SCATTER);

/** The ref of an identity: country in lower case, a dash, six letters (Crockford's base 32). */
export function refOf(country: string, identity: number): string {
  let n = Math.imul(identity, SCATTER) & MASK;
  let digits = "";
  for (let i = 0; i < 6; i++) {
    digits = ALPHABET[n & 31] + digits;
    n >>>= 5;
  }
  return `${country.toLowerCase()}-${digits}`;
}

/** The country and identity of a ref, or undefined when the text is no ref. */
export function parseRef(ref: string): { country: string; identity: number } | undefined {
  const match = /^([a-z]{2})-([0-9a-hjkmnp-tv-z]{6})$/.exec(ref);
  if (!match) return undefined;
  let n = 0;
  for (const letter of match[2]) n = (n << 5) | ALPHABET.indexOf(letter);
  return { country: match[1].toUpperCase(), identity: Math.imul(n, GATHER) & MASK };
}

/** Inverse of an odd number modulo 2^32, by Newton's iteration. */
function inverse(odd: number): number {
  let x = odd;
  for (let i = 0; i < 5; i++) x = Math.imul(x, 2 - Math.imul(odd, x));
  return x;
}
