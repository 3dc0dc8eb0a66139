import type { Gloss } from "@bibliotope/wire";
import { partColour } from "../ui/part-colour.ts";

/** A word with how it was taken; a text that nothing answers to has a word of its own for that. */
type Piece = Omit<Gloss, "how"> & { how: string };

/** What the words of the wire are called here. */
const HOW: Readonly<Record<string, string>> = {
  script: "other script",
  absent: "no such number",
};

/** What was typed, and under each word how it was taken and what for. */
export function GlossLine({ gloss }: { gloss: readonly Piece[] }) {
  return (
    <ol aria-label="Word by word" className="flex flex-wrap gap-x-6 gap-y-3">
      {joined(gloss).map(({ typed, span, how, part, as }) => {
        const lost = how === "ignored" && !as;
        const colour = lost
          ? "var(--quiet)"
          : how === "differs" || how === "absent"
            ? "var(--ochre)"
            : partColour(part ?? "");
        return (
          <li key={span[0]} className="min-w-8">
            <span className="block font-mono text-[12.5px] text-quiet">{typed}</span>
            <span
              className="mt-1 block border-l-2 pl-1.5 text-[12px] leading-[18px]"
              style={{ borderColor: colour, color: colour }}
            >
              {HOW[how] ?? how}
            </span>
            <span className="mt-0.5 block font-serif text-[19px] leading-[26px]">{as ?? "·"}</span>
            <span className="block text-[12px] font-semibold" style={{ color: colour }}>
              {part ?? "\u00a0"}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

/** Neighbours that were taken for the same thing in the same way stand together: "HT9 29" is one postcode. */
function joined(gloss: readonly Piece[]): Piece[] {
  const pieces: Piece[] = [];
  for (const piece of gloss) {
    const last = pieces.at(-1);
    const isOne = last?.part === "postcode" && piece.part === "postcode" && last.how === piece.how;
    if (!last || !isOne) pieces.push(piece);
    else {
      const as = last.as === piece.as ? last.as : [last.as, piece.as].filter(Boolean).join(" ");
      pieces[pieces.length - 1] = {
        ...last,
        typed: `${last.typed} ${piece.typed}`,
        span: [last.span[0], piece.span[1]],
        as,
      };
    }
  }
  return pieces;
}
