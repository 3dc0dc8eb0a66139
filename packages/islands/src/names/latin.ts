import { fold } from "@bibliotope/core/text";

/** A name of Thalmyra in Latin letters, each word with a capital. */
export function latin(name: string): string {
  return fold(name).text.replace(
    /(^|[\s-])(\p{L})/gu,
    (_, before: string, letter: string) => before + letter.toUpperCase(),
  );
}
