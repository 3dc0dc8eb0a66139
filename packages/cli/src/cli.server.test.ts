import { execFile } from "node:child_process";
import { readFileSync } from "node:fs";
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
    expect(() => readPosition(text)).toThrow("Use LAT,LON");
  });
});

describe("the lines", () => {
  it("say so when nothing was found, with the advice", () => {
    expect(suggestionLines({ q: "x", outcome: "none", advice: ["Try again."], source: [], suggestions: [] })).toEqual([
      "Nothing found.",
      "Try again.",
    ]);
    expect(candidateLines({ advice: [], features: [] })).toEqual(["Nothing found."]);
  });
});

describe("bibliotope", () => {
  const at = () => ["--url", shared().url, "--key", shared().keys.srv];

  it("asks a server by hand", { tags: ["long"] }, async () => {
    const { stdout } = (await run(...at(), "suggest", "12 harb")) as { stdout: string };
    expect(stdout.split("\n")[0]).toMatch(/^qr-\w{6} {2}address {3}12 Harbour Row, Tidewell {2}Sallow, Lorramere$/);
    const { stdout: forward } = (await run(...at(), "forward", "12 Harbour Row, Tidewell")) as { stdout: string };
    expect(forward).toContain("1.00  12 Harbour Row, Tidewell, Sallow");
    const { stdout: reverse } = (await run(...at(), "reverse", "-35.1841,-21.6253")) as { stdout: string };
    expect(reverse).toContain("12 Harbour Row, Tidewell");
  });

  it("asks every lookup of the wire, with its words as options, and says the whole answer as JSON", {
    tags: ["long"],
  }, async () => {
    const said = async (...args: string[]) => ((await run(...at(), ...args)) as { stdout: string }).stdout;
    expect((await said("suggest", "12 harb", "--limit", "2")).trim().split("\n")).toHaveLength(2);
    expect(JSON.parse(await said("suggest", "12 harb", "--limit", "1", "--json")).suggestions).toHaveLength(1);
    const byParts = await said(
      "forward",
      "--street",
      "Harbour Row",
      "--house",
      "12",
      "--town",
      "Tidewell",
      "--limit",
      "1",
    );
    expect(byParts).toContain("12 Harbour Row, Tidewell");
    const ref = byParts.split(" ")[0];
    expect(await said("record", ref)).toContain(`${ref}  address`);
    expect(await said("postcodes", "QR", "HT4")).toMatch(/postcode/);
    expect(await said("distance", "-35.2,-21.4", "-35.3,-21.5")).toMatch(/^\d+\.\d+ m, at \d+\.\d+°\n$/);
    expect(await said("height", "-35.1841,-21.6253")).toMatch(/^-?\d+(\.\d+)? m\n$/);
    expect(await said("reverse", "-35.1841,-21.6253", "--kinds", "town", "--json")).toContain('"Tidewell');
    const { version } = JSON.parse(readFileSync(new URL("../package.json", import.meta.url), "utf8"));
    expect(await said("--version")).toBe(`${version}\n`);
  });

  it("has an example in the help of each command, that works where it is a lookup", {
    tags: ["long"],
    timeout: 60_000,
  }, async () => {
    const help = async (...args: string[]) => ((await run(...args, "--help")) as { stdout: string }).stdout;
    const commands = [...(await help()).matchAll(/^ {2}(\w+) (?:\[options\] )?[<[]/gm)]
      .map(([, name]) => name)
      .filter((name) => name !== "help");
    expect(commands).toEqual(expect.arrayContaining(["suggest", "height", "batch", "import", "restore"]));
    for (const name of commands) {
      const example = /\$ bibliotope (.+)/.exec(await help(name))?.[1];
      expect(example, name).toMatch(new RegExp(`^${name} `));
      if (["serve", "batch", "import", "backup", "restore"].includes(name)) continue;
      const args = [...example!.matchAll(/"([^"]*)"|(\S+)/g)].map(([, quoted, plain]) => quoted ?? plain);
      expect(await run(...at(), ...args), example).toMatchObject({ stdout: expect.stringMatching(/\S/), stderr: "" });
    }
  });

  it("ends with what came of it", { tags: ["long"], timeout: 60_000 }, async () => {
    const end = async (...args: string[]) => ((await run(...args)) as { code?: number }).code ?? 0;
    for (const [expected, ...args] of [
      [0, ...at(), "suggest", "12 harb"],
      [1, "--url", shared().url, "--key", "bt_srv_wrong", "suggest", "x"],
      [2, "suggest"],
      [2, "nonsense"],
      [2, ...at(), "suggest", "x", "--nonsense"],
      [2, ...at(), "suggest", "x", "--limit", "1000"],
      [2, ...at(), "reverse", "95,0"],
      [2, ...at(), "batch", "/no/such/file.csv"],
      [3, "--url", "http://127.0.0.1:1", "--key", "x", "suggest", "x"],
      [4, ...at(), "suggest", "qqqqzzzz"],
      [4, ...at(), "forward", "qqqqzzzz"],
      [4, ...at(), "record", "qr-000000"],
    ] as const)
      expect(await end(...(args as string[])), args.slice(-3).join(" ")).toBe(expected);
    expect(await run(...at(), "batch", "/no/such/file.csv")).toMatchObject({
      stderr: "error: There is no file /no/such/file.csv.\n",
    });
  });

  it("says what went wrong", async () => {
    const wrong = (await run("--url", shared().url, "--key", "bt_srv_wrong", "suggest", "x")) as {
      stderr: string;
      code: number;
    };
    expect(wrong).toMatchObject({ code: 1, stderr: expect.stringContaining("This key is unknown") });
    expect(await run(...at(), "reverse", "95,0")).toMatchObject({
      code: 2,
      stderr: expect.stringContaining("Use LAT,LON"),
    });
    expect(await run("--url", "http://127.0.0.1:1", "--key", "x", "suggest", "x")).toMatchObject({ code: 3 });
  });
});
