import { execFile } from "node:child_process";
import { fileURLToPath } from "node:url";
import { promisify } from "node:util";
import { describe, expect, it } from "vitest";
import { shared } from "../../server/testing/shared.ts";
import { candidateLines, suggestionLines } from "./lines.ts";
import { readPosition } from "./position.ts";

const program = fileURLToPath(new URL("../bin/bibliotope.js", import.meta.url));
const run = (...args: string[]) =>
  promisify(execFile)(process.execPath, [program, ...args]).catch((error: { stderr: string; code: number }) => error);

describe("readPosition", () => {
  it("reads degrees", () => {
    expect(readPosition("-35.2, -21.4")).toEqual({ lat: -35.2, lon: -21.4 });
  });

  it.each(["", "1", "95,0", "a,b", ",", "1,2,3"])("says what is wrong with %j", (text) => {
    expect(() => readPosition(text)).toThrow("give LAT,LON");
  });
});

describe("the lines", () => {
  it("say so when nothing was found, with the advice", () => {
    expect(suggestionLines({ q: "x", outcome: "none", advice: ["Try again."], source: [], suggestions: [] })).toEqual([
      "Nothing found.",
      "Try again.",
    ]);
    expect(
      candidateLines({ type: "FeatureCollection", outcome: "none", advice: [], source: [], features: [] }),
    ).toEqual(["Nothing found."]);
  });
});

describe("bibliotope", () => {
  const at = () => ["--url", shared().url, "--key", shared().keys.srv];

  it("asks a server by hand", async () => {
    const { stdout } = (await run(...at(), "suggest", "12 harb")) as { stdout: string };
    expect(stdout.split("\n")[0]).toMatch(/^qr-\w{6} {2}address {3}12 Harbour Row, Tidewell {2}Sallow, Lorramere$/);
    const { stdout: forward } = (await run(...at(), "forward", "12 Harbour Row, Tidewell")) as { stdout: string };
    expect(forward).toContain("1.00  12 Harbour Row, Tidewell, Sallow");
    const { stdout: reverse } = (await run(...at(), "reverse", "-35.1841,-21.6253")) as { stdout: string };
    expect(reverse).toContain("12 Harbour Row, Tidewell");
  });

  it("says what went wrong and ends with 1", async () => {
    const wrong = (await run("--url", shared().url, "--key", "bt_srv_wrong", "suggest", "x")) as {
      stderr: string;
      code: number;
    };
    expect(wrong).toMatchObject({ code: 1, stderr: expect.stringContaining("This key is not known") });
    expect(await run(...at(), "reverse", "95,0")).toMatchObject({
      code: 1,
      stderr: expect.stringContaining("give LAT,LON"),
    });
    expect(await run("--url", "http://127.0.0.1:1", "--key", "x", "suggest", "x")).toMatchObject({ code: 1 });
  });
});
