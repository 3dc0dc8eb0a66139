import type { SuggestAnswer, Suggestion } from "@bibliotope/wire";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { LookupError } from "../client/errors.ts";
import { SearchMachine, type SearchState } from "./machine.ts";

const suggestion = (line: string): Suggestion => ({
  ref: `qr-${line}`,
  kind: "address",
  line,
  within: "",
  marks: [],
  at: { lat: 0, lon: 0 },
  more: 0,
});
const answer = (...lines: string[]): SuggestAnswer => ({
  q: "",
  outcome: lines.length ? "matched" : "none",
  advice: [],
  source: [],
  suggestions: lines.map(suggestion),
});

/** A machine whose questions are answered by hand. */
function machine(least?: number) {
  const requests: {
    text: string;
    inside: string | undefined;
    signal: AbortSignal;
    resolve: (answer: SuggestAnswer) => void;
    reject: (error: unknown) => void;
  }[] = [];
  const states: SearchState[] = [];
  const made = new SearchMachine({
    least,
    ask: (text, signal, inside) =>
      new Promise((resolve, reject) => requests.push({ text, inside, signal, resolve, reject })),
    change: (state) => states.push(state),
  });
  const settle = () => vi.advanceTimersByTimeAsync(300);
  return { made, requests, states, settle };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("typing", () => {
  it("asks after a pause, and shows what comes back", async () => {
    const { made, requests, settle } = machine();
    made.input("12 harb");
    expect(made.state.status).toBe("loading");
    expect(requests).toHaveLength(0);
    await settle();
    expect(requests.map(({ text }) => text)).toEqual(["12 harb"]);
    requests[0].resolve(answer("12 Harbour Row"));
    await settle();
    expect(made.state).toMatchObject({ status: "open", active: -1 });
    expect(made.state.suggestions[0].line).toBe("12 Harbour Row");
  });

  it("keeps the list while a line is pressed, and shows the next one then", async () => {
    const { made, requests, settle } = machine();
    made.input("tide");
    await settle();
    requests[0].resolve(answer("Tidewell", "Tidewick"));
    await settle();
    made.hold();
    made.input("tidewi");
    await settle();
    requests[1].resolve(answer("Tidewick"));
    await settle();
    expect(made.state.suggestions.map(({ line }) => line)).toEqual(["Tidewell", "Tidewick"]);
    made.release();
    await settle();
    expect(made.state).toMatchObject({ status: "open", suggestions: [{ line: "Tidewick" }] });
    // a choice that was made meanwhile stands
    made.hold();
    made.input("tidewic");
    await settle();
    requests[2].resolve(answer("Somewhere else"));
    await settle();
    expect(made.choose(0)?.suggestion.line).toBe("Tidewick");
    made.release();
    await settle();
    expect(made.state).toMatchObject({ status: "idle", text: "Tidewick", suggestions: [] });
  });

  it("asks once for letters that follow each other quickly", async () => {
    const { made, requests, settle } = machine();
    for (const text of ["1", "12", "12 h"]) made.input(text);
    await settle();
    expect(requests.map(({ text }) => text)).toEqual(["12 h"]);
  });

  it("lets a question that is under way be answered while letters follow, then asks the newest", async () => {
    const { made, requests } = machine();
    made.input("1");
    await vi.advanceTimersByTimeAsync(20);
    for (const text of ["12", "12 ", "12 h"]) {
      made.input(text);
      await vi.advanceTimersByTimeAsync(80);
    }
    expect(requests.map(({ text }) => text)).toEqual(["1"]);
    expect(requests[0].signal.aborted).toBe(false);
    requests[0].resolve(answer("1 Mill Lane"));
    await vi.advanceTimersByTimeAsync(0);
    expect(made.state).toMatchObject({ status: "open", text: "12 h" });
    await vi.advanceTimersByTimeAsync(100);
    expect(requests.map(({ text }) => text)).toEqual(["1", "12 h"]);
    expect(made.state.status).toBe("loading");
  });

  it("gives a question up that takes too long while letters follow, and drops its answer", async () => {
    const { made, requests, settle } = machine();
    made.input("1");
    await settle();
    requests[0].resolve(answer("one"));
    await settle();
    made.input("12");
    await settle();
    made.input("12 h");
    await settle();
    expect(requests[1].signal.aborted).toBe(true);
    requests[2].resolve(answer("new"));
    await settle();
    requests[1].resolve(answer("old"));
    await settle();
    expect(made.state.suggestions.map(({ line }) => line)).toEqual(["new"]);
  });

  it("drops the answer to what no longer is there", async () => {
    const { made, requests, settle } = machine();
    made.input("12 harb");
    await settle();
    made.input("12 mill");
    expect(requests[0].signal.aborted).toBe(true);
  });

  it("keeps the list before while the next answer is under way", async () => {
    const { made, requests, settle } = machine();
    made.input("1");
    await settle();
    requests[0].resolve(answer("one"));
    await settle();
    made.input("12");
    expect(made.state).toMatchObject({ status: "loading" });
    expect(made.state.suggestions).toHaveLength(1);
  });

  it("waits for the shortest text that is worth a request", async () => {
    const { made, requests, settle } = machine(3);
    made.input("ab");
    await settle();
    expect(requests).toHaveLength(0);
    made.input("  a ");
    await settle();
    expect(requests).toHaveLength(0);
  });

  it("does not ask while a character is being composed", async () => {
    const { made, requests, settle } = machine();
    made.compose(true, "");
    made.input("ｈ");
    made.input("は");
    await settle();
    expect(requests).toHaveLength(0);
    made.compose(false, "は");
    await settle();
    expect(requests.map(({ text }) => text)).toEqual(["は"]);
  });

  it("waits longer when answers take longer, but never long", async () => {
    const { made, requests } = machine();
    made.input("a");
    await vi.advanceTimersByTimeAsync(20);
    expect(requests).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(2000);
    requests[0].resolve(answer("x"));
    await vi.advanceTimersByTimeAsync(0);
    made.input("ab");
    await vi.advanceTimersByTimeAsync(100);
    expect(requests).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(160);
    expect(requests).toHaveLength(2);
  });
});

describe("typing forty letters at twelve a second, with answers after 20 to 400 ms", () => {
  const TEXT = "12 harbour row tidewell sallow lorramere";

  it.each(Array.from({ length: 25 }, (_, seed) => seed + 1))(
    "shows a list soon, asks for a third of the letters at most, and the last answer wins (%i)",
    async (seed) => {
      let state = seed;
      const random = () => {
        state = (state * 16807) % 2147483647;
        return state / 2147483647;
      };
      random();
      const requests: string[] = [];
      let firstList: number | undefined;
      const made = new SearchMachine({
        ask: (text, signal) =>
          new Promise((resolve, reject) => {
            requests.push(text);
            signal.addEventListener("abort", () => reject(signal.reason));
            setTimeout(() => resolve(answer(text)), 20 + 380 * random());
          }),
        change: ({ status }) => {
          if (status === "open") firstList ??= performance.now();
        },
      });
      let third = 0;
      for (let i = 1; i <= TEXT.length; i++) {
        made.input(TEXT.slice(0, i));
        if (i === 3) third = performance.now();
        await vi.advanceTimersByTimeAsync(1000 / 12);
      }
      await vi.advanceTimersByTimeAsync(1500);
      expect(firstList! - third).toBeLessThan(250);
      expect(requests.length).toBeLessThanOrEqual(TEXT.length / 3);
      expect(made.state).toMatchObject({ status: "open", suggestions: [{ line: TEXT }] });
      made.choose(0);
      const before = requests.length;
      await vi.advanceTimersByTimeAsync(1500);
      expect(requests).toHaveLength(before);
    },
  );
});

describe("when there is nothing to choose from", () => {
  it("says that nothing was found, with the service's advice", async () => {
    const { made, requests, settle } = machine();
    made.input("zz");
    await settle();
    requests[0].resolve({ ...answer(), advice: ["No data is held for QM."] });
    await settle();
    expect(made.state.status).toBe("empty");
    expect(made.state.words).toContain("No data is held for QM.");
  });

  it("says what went wrong; an error never looks like an empty list", async () => {
    const { made, requests, settle } = machine();
    made.input("zz");
    await settle();
    requests[0].reject(new LookupError("limit", "Too many searches just now."));
    await settle();
    expect(made.state).toMatchObject({ status: "error", words: "Too many searches just now." });
  });

  it("hides the details of an error that is not about lookups", async () => {
    const { made, requests, settle } = machine();
    made.input("zz");
    await settle();
    requests[0].reject(new TypeError("x is not a function"));
    await settle();
    expect(made.state.words).toBe("The address search does not work at the moment.");
  });

  it("forgets it all when the text is emptied", async () => {
    const { made, requests, settle } = machine();
    made.input("zz");
    await settle();
    requests[0].resolve(answer());
    await settle();
    made.input("");
    expect(made.state).toEqual({ status: "idle", text: "", suggestions: [], active: -1, words: undefined });
  });
});

describe("moving and choosing", () => {
  async function open(...lines: string[]) {
    const all = machine();
    all.made.input("x");
    await all.settle();
    all.requests[0].resolve(answer(...lines));
    await all.settle();
    return all;
  }

  it("goes round the list, with the text itself as one place", async () => {
    const { made } = await open("a", "b");
    const seen = [1, 1, 1, 1].map((by) => {
      made.move(by);
      return made.state.active;
    });
    expect(seen).toEqual([0, 1, -1, 0]);
    made.move(-1);
    made.move(-1);
    expect(made.state.active).toBe(1);
  });

  it("takes a line without another request", async () => {
    const { made, requests, settle } = await open("a", "b");
    expect(made.choose(1)).toMatchObject({ suggestion: { line: "b" }, typed: 1 });
    expect(made.state).toMatchObject({ status: "idle", text: "b", suggestions: [] });
    await settle();
    expect(requests).toHaveLength(1);
  });

  it("takes nothing where there is no line", async () => {
    const { made } = await open("a");
    expect(made.choose(5)).toBeUndefined();
    expect(made.choose(-1)).toBeUndefined();
    expect(made.state.status).toBe("open");
  });

  it("does not move while nothing is open", () => {
    const { made } = machine();
    made.move(1);
    made.point(3);
    expect(made.state.active).toBe(-1);
  });

  it("closes without losing the text, and drops what was under way", async () => {
    const { made, requests, settle } = machine();
    made.input("12");
    await settle();
    made.close();
    requests[0].resolve(answer("late"));
    await settle();
    expect(made.state).toMatchObject({ status: "idle", text: "12", suggestions: [] });
  });

  it("asks nothing for a text that the page sets", async () => {
    const { made, requests, settle } = machine();
    made.set("12 Harbour Row");
    await settle();
    expect(requests).toHaveLength(0);
    expect(made.state.text).toBe("12 Harbour Row");
  });
});

describe("numbers of a street", () => {
  const street = (more: number) => ({ ...answer(), suggestions: [{ ...suggestion("Harbour Row"), more }] });
  async function entered() {
    const all = machine();
    all.made.input("harb");
    await all.settle();
    all.requests[0].resolve(street(87));
    await all.settle();
    expect(all.made.enter(0)).toBe(true);
    return all;
  }

  it("are requested at once, with room for a number before the street's name", async () => {
    const { made, requests, settle } = await entered();
    expect(made.state).toMatchObject({ status: "loading", text: " Harbour Row", suggestions: [] });
    expect(requests[1]).toMatchObject({ text: " Harbour Row", inside: "qr-Harbour Row" });
    requests[1].resolve(answer("1 Harbour Row", "2 Harbour Row"));
    await settle();
    expect(made.state.suggestions).toHaveLength(2);
  });

  it("are narrowed by what is typed, until the street's name is no longer there", async () => {
    const { made, requests, settle } = await entered();
    requests[1].resolve(answer("1 Harbour Row"));
    await settle();
    made.input("12 Harbour Row");
    await settle();
    expect(requests[2].inside).toBe("qr-Harbour Row");
    requests[2].resolve(answer("12 Harbour Row"));
    await settle();
    made.input("12 Harbour");
    await settle();
    expect(requests[3].inside).toBeUndefined();
  });

  it("end with a choice, which says how much was typed", async () => {
    const { made, requests, settle } = await entered();
    made.input("1 Harbour Row");
    await settle();
    requests.at(-1)!.resolve(answer("1 Harbour Row"));
    await settle();
    expect(made.choose(0)).toMatchObject({ typed: 2 });
    expect(made.state.inside).toBeUndefined();
    made.input("x");
    await settle();
    expect(requests.at(-1)!.inside).toBeUndefined();
  });

  it("are not there for a line that has none", async () => {
    const { made, requests, settle } = machine();
    made.input("harb");
    await settle();
    requests[0].resolve(street(0));
    await settle();
    expect(made.enter(0)).toBe(false);
    expect(made.enter(7)).toBe(false);
    expect(made.state.status).toBe("open");
  });
});

describe("a search whose client comes later, or is off-line", () => {
  it("keeps the letters, and asks for them once it can", async () => {
    const requests: string[] = [];
    const made = new SearchMachine({ change: () => undefined });
    made.input("12 harb");
    await vi.advanceTimersByTimeAsync(300);
    expect(made.state.status).toBe("waiting");
    made.answerBy(async (text) => {
      requests.push(text);
      return answer("12 Harbour Row");
    });
    await vi.advanceTimersByTimeAsync(300);
    expect(requests).toEqual(["12 harb"]);
    expect(made.state.status).toBe("open");
  });

  it("says that it is off-line, which is no empty list", async () => {
    const { made, requests, settle } = machine();
    made.input("12");
    await settle();
    requests[0].reject(new LookupError("offline", "The address search cannot be reached."));
    await settle();
    expect(made.state).toMatchObject({ status: "offline", words: "The address search cannot be reached." });
  });
});
