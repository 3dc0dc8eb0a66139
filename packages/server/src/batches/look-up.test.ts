import { describe, expect, it } from "vitest";
import { smallWorld } from "../../../core/testing/small-world.ts";
import { RowLookup } from "./look-up.ts";

const engine = smallWorld();
const columns = (...meanings: string[]) => ({ columns: meanings.map((meaning) => ({ meaning })) }) as never;
const look = (meanings: string[], cells: string[], ask: "forward" | "reverse" | "both" = "forward") =>
  new RowLookup(engine, columns(...meanings), ask).lookUp(cells);

describe("a row of a batch", () => {
  it("is clear when one address explains it", () => {
    expect(look(["text"], ["12 Harbour Row, Tidewell"])).toMatchObject({
      query: "12 Harbour Row, Tidewell",
      standing: "clear",
      answer: { kind: "address", line: expect.stringContaining("12 Harbour Row") },
    });
  });

  it("asks by parts where the columns are parts", () => {
    const found = look(["house", "suffix", "street", "town"], ["12", "", "Harbour Row", "Tidewell"]);
    expect(found).toMatchObject({ query: "12, Harbour Row, Tidewell", standing: "clear" });
  });

  it("is doubtful when several fit", () => {
    expect(look(["text"], ["Harbour"]).standing).toBe("doubtful");
  });

  it("is clear for a town by its name", () => {
    expect(look(["text"], ["Tidewell"])).toMatchObject({ standing: "clear", answer: { kind: "town" } });
  });

  it("is doubtful when something that was written is not so, and says what", () => {
    const differences = [{ part: "house", written: "12c", held: "12", how: "nearby" }];
    const answer = { outcome: "differs", line: expect.stringContaining("12 Harbour Row"), differences };
    expect(look(["street", "house", "town"], ["Harbour Row", "12c", "Tidewell"])).toMatchObject({
      standing: "doubtful",
      answer,
    });
  });

  it("is none when nothing is found, or nothing is requested", () => {
    expect(look(["text"], ["qqqq zzzz"])).toMatchObject({ standing: "none", answer: null });
    expect(look(["text"], [""])).toMatchObject({ standing: "none", query: "" });
    expect(look(["text"], [])).toMatchObject({ standing: "none" });
  });

  it("is a reverse lookup by its position, or when its text is one", () => {
    const { at } = look(["text"], ["12 Harbour Row, Tidewell"]).answer!;
    const near = look(["position"], [`${at.lat}, ${at.lon}`], "reverse");
    expect(near).toMatchObject({ standing: "clear", distance: 0, answer: { kind: "address" } });
    expect(look(["lat", "lon"], ["10", "10"], "reverse").standing).toBe("none");
  });

  it("goes by its position where its text says nothing", () => {
    const { at } = look(["text"], ["12 Harbour Row, Tidewell"]).answer!;
    const both = look(["text", "lat", "lon"], ["qqqq zzzz", String(at.lat), String(at.lon)], "both");
    expect(both).toMatchObject({ standing: "clear", distance: 0 });
    expect(look(["text", "lat", "lon"], ["12 Harbour Row, Tidewell", "10", "10"], "both")).toMatchObject({
      standing: "clear",
      distance: null,
    });
  });

  it("has candidates to choose from, and those of a text put in its place", () => {
    const lookup = new RowLookup(engine, columns("text"), "forward");
    expect(lookup.candidates(["Harbour"]).length).toBeGreaterThan(1);
    expect(lookup.candidates(["qqqq"], "12 Harbour Row, Tidewell")[0].line).toContain("12 Harbour Row");
  });
});
