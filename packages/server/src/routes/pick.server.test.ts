import type { MadeKey } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { ask, shared, signedIn } from "../../testing/shared.ts";

const ORIGIN = "https://members.example";
let browser: Awaited<ReturnType<typeof signedIn>>;
let web: string;
let view: string;

async function make(rules: object): Promise<string> {
  const response = await browser.send("POST", "/api/keys", { name: "Of a picker", ...rules });
  expect(response.status).toBe(201);
  return ((await response.json()) as MadeKey).key;
}
const open = (request: Record<string, string>) =>
  ask(`/pick?${new URLSearchParams(request)}`, { key: null, headers: { accept: "text/html" } });
const wordsOf = async (request: Record<string, string>) => {
  const response = await open(request);
  return `${response.status} ${/<p>(.*)<\/p>/.exec(await response.text())?.[1] ?? ""}`;
};

beforeAll(async () => {
  browser = await signedIn();
  web = await make({ kind: "web", origins: [ORIGIN] });
  view = await make({ kind: "view", origins: ["app://localhost"] });
});

describe("the hosted picker", () => {
  it("comes for an origin that its key names, which alone may show it in a frame", async () => {
    const response = await open({ key: web, origin: ORIGIN, lang: "ar", label: '"><script>alert(1)</script>' });
    expect(response.status).toBe(200);
    const html = await response.text();
    expect(html).toContain('<html lang="ar" dir="rtl"');
    expect(html).not.toContain("<script>alert");
    const policy = response.headers.get("content-security-policy");
    expect(policy).toContain(`frame-ancestors ${ORIGIN}`);
    expect(policy).toContain("script-src 'self'");
    expect(response.headers.get("cross-origin-opener-policy")).toBe("unsafe-none");
    expect(response.headers.get("x-frame-options")).toBe(null);
    expect(response.headers.get("referrer-policy")).toBe("no-referrer");
  });

  it("may be shown in no frame when it goes on to an address, or hands over a bridge", async () => {
    const ways: Record<string, string>[] = [
      { key: web, redirect: `${ORIGIN}/done?order=7` },
      { key: view, redirect: "app://localhost/done" },
      { key: view, bridge: "places" },
    ];
    for (const request of ways) {
      const response = await open(request);
      expect(response.status).toBe(200);
      expect(response.headers.get("content-security-policy")).toContain("frame-ancestors 'none'");
    }
  });

  it("is refused, in words, for all else", async () => {
    const { keys } = shared();
    const ended = await make({ kind: "web", origins: [ORIGIN], endsAt: "2026-01-01T00:00:00Z" });
    for (const [request, words] of [
      [{ origin: ORIGIN }, /^400 .*key/],
      [{ key: "bt_web_nobody", origin: ORIGIN }, /^401 /],
      [{ key: ended, origin: ORIGIN }, /^401 .*expired/],
      [{ key: keys.srv, origin: ORIGIN }, /^403 .*Revoke/],
      [{ key: keys.app, origin: ORIGIN }, /^403 .*Revoke/],
      [{ key: web }, /^400 .*exactly one of origin/],
      [{ key: web, origin: ORIGIN, redirect: ORIGIN }, /^400 .*exactly one of origin/],
      [{ key: web, origin: "https://elsewhere.example" }, /^403 .*does not allow https:\/\/elsewhere\.example/],
      [{ key: web, origin: "https://members.example.evil.example" }, /^403 /],
      [{ key: web, origin: "https://members.example/path" }, /^400 /],
      [{ key: web, origin: "*" }, /^400 /],
      [{ key: web, origin: "null" }, /^400 /],
      [{ key: web, origin: "https://a.example;script-src *" }, /^400 /],
      [{ key: web, redirect: "https://elsewhere.example/" }, /^403 /],
      [{ key: web, redirect: "//members.example" }, /^400 .*not a URL it can go to/],
      [{ key: web, redirect: "https://members.example@evil.example/" }, /^400 |^403 /],
      [{ key: web, redirect: "javascript:alert(1)" }, /^400 .*not a URL it can go to/],
      [{ key: web, redirect: " javascript:alert(1)" }, /^400 /],
      [{ key: view, redirect: "data:text/html,x" }, /^400 /],
      [{ key: keys.try, redirect: "https://anywhere.example/" }, /^403 /],
      [{ key: view, bridge: "a.b" }, /^400 .*bridge/],
      [{ key: web, origin: ORIGIN, kinds: "castle" }, /^400 .*kinds/],
      [{ key: web, origin: ORIGIN, at: "somewhere" }, /^400 .*LAT,LON/],
      [{ key: web, origin: ORIGIN, accent: "red;}" }, /^400 .*hexadecimal|^400 /],
      [{ key: web, origin: ORIGIN, colour: "red" }, /^400 .*not a parameter/],
    ] as [Record<string, string>, RegExp][])
      expect(await wordsOf(request), JSON.stringify(request)).toMatch(words);
  });
});
