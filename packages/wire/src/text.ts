import * as z from "zod";

/** Half of a pair of surrogates, or NUL: neither is text that could be stored or sent on as it is. */
const NO_TEXT = /\p{Surrogate}|\0/u;

/**
 * Text from outside, of at most so many UTF-16 units, brought to Unicode's form NFC: every text of a schema is made by
 * this. Refuses what is no Unicode text (half of a surrogate pair) or holds NUL.
 */
export const text = (most: number) =>
  z
    .string()
    .max(most, { error: `at most ${most} characters are read` })
    .refine((value) => !NO_TEXT.test(value), { error: "contains an invalid character" })
    .normalize("NFC");

/** The number of something stored: what PostgreSQL keeps as an integer. */
export const numberOf = z.int().min(0).max(2_147_483_647);
