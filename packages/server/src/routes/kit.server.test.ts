import { createHash } from "node:crypto";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { ask } from "../../testing/shared.ts";
import { keepKit, keptKitsIn } from "./kept-kits.ts";

const home = mkdtempSync(join(tmpdir(), "bibliotope-kits-"));
afterAll(() => rmSync(home, { recursive: true, force: true }));

interface About {
  version: string;
  files: Record<string, string>;
}
const fileOf = (path: string) => ask(`/kit/${path}`, { key: null, headers: { origin: "https://members.example" } });

describe("the kit from a running server", () => {
  it("is under its version as well, where it never changes, with the integrity value that it says", async () => {
    const { version, files } = (await (await fileOf("v1/integrity.json")).json()) as About;
    expect(Object.keys(files)).toEqual(expect.arrayContaining(["bibliotope.js", "search.js", "map.js"]));
    for (const [file, integrity] of Object.entries(files)) {
      const response = await fileOf(`${version}/${file}`);
      expect(response.status, file).toBe(200);
      expect(response.headers.get("cache-control")).toMatch(/max-age=31536000.*immutable/);
      expect(response.headers.get("access-control-allow-origin")).toBe("https://members.example");
      const bytes = Buffer.from(await response.arrayBuffer());
      expect(`sha384-${createHash("sha384").update(bytes).digest("base64")}`, file).toBe(integrity);
    }
    const newest = await fileOf("v1/bibliotope.js");
    expect(newest.headers.get("cache-control")).not.toContain("immutable");
  });

  it("compresses even the short files of a page", async () => {
    const { headers } = await ask("/kit/v1/page.css", { key: null, headers: { "accept-encoding": "gzip" } });
    expect(headers.get("content-encoding")).toBe("gzip");
  });

  it.each([
    "0.0.9/bibliotope.js",
    "v2/bibliotope.js",
    "0.1.0",
    "0.1.0/",
    "..%2f..%2fready.json",
    "0.1.0/..%2f..%2fready.json",
  ])("has nothing at /kit/%s, and says where it starts", async (path) => {
    const response = await fileOf(path);
    expect(response.status).toBe(404);
    expect(await response.text()).toContain("/kit/v1/bibliotope.js");
  });
});

describe("versions of the kit", () => {
  const built = (version: string, text: string) => {
    const folder = join(home, "built");
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, "bibliotope.js"), text);
    writeFileSync(join(folder, "integrity.json"), JSON.stringify({ version, files: { "bibliotope.js": text } }));
    return folder;
  };
  const kept = (version: string) => readFileSync(join(keptKitsIn(home), version, "bibliotope.js"), "utf8");

  it("are kept beside each other, each as it was run last", async () => {
    await keepKit(home, built("1.0.0", "one"));
    await keepKit(home, built("1.1.0", "two"));
    expect([kept("1.0.0"), kept("1.1.0")]).toEqual(["one", "two"]);
    await keepKit(home, built("1.1.0", "three"));
    expect([kept("1.0.0"), kept("1.1.0")]).toEqual(["one", "three"]);
  });

  it("are never a way out of their folder", async () => {
    await expect(keepKit(home, built("../../x", "no"))).rejects.toThrow();
  });
});
