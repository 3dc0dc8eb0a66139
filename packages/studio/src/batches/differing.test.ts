import { describe, expect, it } from "vitest";
import { differing } from "./differing.ts";

const candidate = (line: string, ...as: string[]) => ({
  line,
  gloss: as.map((word) => ({ typed: word, span: [0, 1] as [number, number], how: "same" as const, as: word })),
});
const marked = (candidates: Parameters<typeof differing>[0]) =>
  differing(candidates).map((line) => line.filter(({ differs }) => differs).map(({ text }) => text));

describe("what sets candidates apart", () => {
  it("is what the typed words were taken for, not the rest of their lines", () => {
    const both = [
      candidate("88 Harbour Street, Tidewell, HT4 31", "Harbour", "Street", "Tidewell"),
      candidate("2 Harbour Street, Tidewick, HT9 29", "Harbour", "Street", "Tidewick"),
    ];
    expect(marked(both)).toEqual([["Tidewell"], ["Tidewick"]]);
    expect(differing(both)[0].map(({ text }) => text)).toEqual(["88 Harbour Street, ", "Tidewell", ", HT4 31"]);
  });

  it("is any word that not all have, where the typed ones were taken for the same", () => {
    const one = (line: string) => candidate(line, "Harbour", "Street");
    expect(marked([one("Harbour Street, Tidewell"), one("Harbour Street, Sandmouth")])).toEqual([
      ["Tidewell"],
      ["Sandmouth"],
    ]);
  });

  it("is nothing where there is one, and nothing that is known against nothing", () => {
    expect(differing([candidate("1 Mill Lane", "Mill")])).toEqual([[{ text: "1 Mill Lane", differs: false }]]);
    expect(differing([])).toEqual([]);
    expect(marked([{ line: "1 Mill Lane" }, { line: "1 Mill Lane" }])).toEqual([[], []]);
  });

  it("is one mark over two words side by side, but not over a comma", () => {
    const lines = [candidate("1 Old Mill Lane, Upper Tidewell, HT4"), candidate("1 Fish Gate Lane, Sandmouth, HT4")];
    expect(marked(lines)).toEqual([
      ["Old Mill", "Upper Tidewell"],
      ["Fish Gate", "Sandmouth"],
    ]);
  });

  it("marks every word in which a longer one is longer", () => {
    expect(marked([candidate("1 Old Mill Lane, Tidewell"), candidate("1 Mill Lane, Tidewell")])).toEqual([["Old"], []]);
  });
});
