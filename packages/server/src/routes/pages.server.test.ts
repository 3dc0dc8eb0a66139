import { describe, expect, it } from "vitest";
import { ask } from "../../testing/shared.ts";

const page = async () => (await ask("/", { key: null })).text();
const scriptOf = (html: string) => /assets\/[\w.-]+\.js/.exec(html)![0];

describe("the files of the workbench", () => {
  it("are sent as the build compressed them, and never change", async () => {
    const path = `/${scriptOf(await page())}`;
    const plain = await ask(path, { key: null, headers: { "accept-encoding": "identity" } });
    const small = await ask(path, { key: null, headers: { "accept-encoding": "gzip, br" } });
    const text = await plain.text();
    expect(await small.text()).toBe(text);
    expect([plain, small].map(({ headers }) => headers.get("content-encoding"))).toEqual([null, "br"]);
    // what is compressed on the way has no length
    expect(Number(small.headers.get("content-length"))).toBeGreaterThan(0);
    expect(Number(small.headers.get("content-length"))).toBeLessThan(text.length / 3);
    for (const { headers } of [plain, small]) {
      expect(headers.get("cache-control")).toBe("public, max-age=31536000, immutable");
      expect(headers.get("vary")).toMatch(/accept-encoding/i);
      expect(headers.get("content-type")).toMatch(/javascript/);
      expect(headers.get("x-content-type-options")).toBe("nosniff");
    }
  });

  it("have a small file of each font for what most pages show, and whole ones for the rest", async () => {
    const style = /assets\/[\w.-]+\.css/.exec(await page())![0];
    const css = await (await ask(`/${style}`, { key: null })).text();
    const faces = [...css.matchAll(/@font-face\s*\{[^}]*\}/g)].map(([face]) => face);
    const small = faces.filter((face) => face.includes("-common-"));
    expect(small.length).toBe(6);
    for (const face of small) {
      const [, file] = /url\(\.?\/?([\w.-]+\.woff2)\)/.exec(face)!;
      const whole = file.replace(/-common-.*/, "");
      const at = (one: string) => faces.findIndex((other) => other.includes(one));
      // a browser takes the last face that has a letter
      expect(at(file), file).toBeGreaterThan(at(`${whole}-`));
      const response = await ask(`/assets/${file}`, { key: null });
      expect(Number(response.headers.get("content-length")), file).toBeLessThan(24_000);
    }
  });
});
