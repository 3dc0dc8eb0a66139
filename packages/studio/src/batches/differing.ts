import type { BatchCandidates } from "@bibliotope/wire";

type Candidate = Pick<BatchCandidates["candidates"][number], "line" | "gloss">;

/** A stretch of a candidate's line, and whether it sets the candidate apart. */
export interface Stretch {
  text: string;
  differs: boolean;
}

/** Words, with the spaces and commas between them in pieces of their own. */
const PIECES = /([\s,]+)/u;

/**
 * The line of each candidate, cut where it differs from the others: in what typed words were taken for, where that
 * differs, else in any word that not all of them have.
 */
export function differing(candidates: readonly Candidate[]): Stretch[][] {
  if (candidates.length < 2) return candidates.map(({ line }) => [{ text: line, differs: false }]);
  const takenFor = apart(candidates.map(({ gloss }) => (gloss ?? []).flatMap(({ as }) => as?.split(PIECES) ?? [])));
  const byGloss = candidates.map(({ line }, i) => stretches(line, takenFor[i]));
  if (byGloss.some((line) => line.some(({ differs }) => differs))) return byGloss;
  const inLine = apart(candidates.map(({ line }) => line.split(PIECES)));
  return candidates.map(({ line }, i) => stretches(line, inLine[i]));
}

/** Of each list of words those that not all the lists have. */
function apart(lists: readonly (readonly string[])[]): Set<string>[] {
  const words = lists.map((list) => new Set(list.map((word) => word.toLowerCase())));
  return words.map(
    (own) => new Set([...own].filter((word) => /[^\s,]/u.test(word) && !words.every((s) => s.has(word)))),
  );
}

function stretches(line: string, words: ReadonlySet<string>): Stretch[] {
  const found: Stretch[] = [];
  const pieces = line.split(PIECES);
  const isApart = (piece: string | undefined) => piece !== undefined && words.has(piece.toLowerCase());
  for (const [i, text] of pieces.entries()) {
    if (!text) continue;
    // the space between two words that differ is marked with them
    const differs = isApart(text) || (text.trim() === "" && isApart(pieces[i - 1]) && isApart(pieces[i + 1]));
    const last = found.at(-1);
    if (last && last.differs === differs) last.text += text;
    else found.push({ text, differs });
  }
  return found;
}
