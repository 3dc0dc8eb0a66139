import { countBits, lettersOf, type Segment } from "../index/index.ts";
import { MAX_TOKEN_LENGTH } from "../text/index.ts";

/**
 * The words of the dictionary that two errors part from a typed word: letters replaced, left out, added, neighbours
 * swapped. Two errors change at most four letters of a set, so the sets are compared first, word by word in one pass,
 * and only the few that pass are measured.
 * @param unfinished true to look for words that begin like this
 * @returns numbers of terms
 */
export function termsWithTwoErrors(segment: Segment, word: string, unfinished: boolean): number[] {
  const { termLetters, termLength } = segment.sections;
  const wanted = lettersOf(word);
  const found: number[] = [];
  for (let term = 0; term < termLetters.length; term++) {
    const longer = termLength[term] - word.length;
    if (longer < -2 || (longer > 2 && !unfinished)) continue;
    // what is typed and not there was added or replaced, what is there and not typed left out or replaced
    if (countBits(wanted & ~termLetters[term]) > 2) continue;
    if (!unfinished && countBits(termLetters[term] & ~wanted) > 2) continue;
    if (isWithinTwo(word, segment.term(term), unfinished)) found.push(term);
  }
  return found;
}

/** Rows of the table of distances, used again for each word. */
const rows = Array.from({ length: 3 }, () => new Uint8Array(MAX_TOKEN_LENGTH + 1));

/** Restricted edit distance of two words, or of a word and any beginning of the other, is at most two. */
function isWithinTwo(typed: string, word: string, unfinished: boolean): boolean {
  const width = typed.length + 1;
  let [before, last, row] = rows;
  for (let i = 0; i < width; i++) last[i] = i;
  for (let j = 1; j <= word.length; j++) {
    row[0] = j;
    let least = j;
    for (let i = 1; i < width; i++) {
      const same = typed.charCodeAt(i - 1) === word.charCodeAt(j - 1);
      let cost = Math.min(row[i - 1] + 1, last[i] + 1, last[i - 1] + (same ? 0 : 1));
      if (i > 1 && j > 1 && typed[i - 1] === word[j - 2] && typed[i - 2] === word[j - 1])
        cost = Math.min(cost, before[i - 2] + 1);
      row[i] = cost;
      if (cost < least) least = cost;
    }
    if (unfinished && row[typed.length] <= 2) return true;
    if (least > 2) return false;
    [before, last, row] = [last, row, before];
  }
  return last[typed.length] <= 2;
}
