import { readFile } from "node:fs/promises";
import { createServer } from "node:http";
import { extname, join } from "node:path";
import { chromium } from "@playwright/test";

/** What newcomers type, and the page that is to come first. */
const ASKED = [
  ["install the kit", "kit"],
  ["suggest", "api"],
  ["picker", "picker"],
  ["backup", "operations"],
  ["systemd", "operations"],
  ["integrity", "kit"],
  ["threat model", "security"],
  ["land register", "services"],
  ["pattern", "patterns"],
  ["fleet of machines", "scale"],
];
const TYPES = { ".html": "text/html", ".js": "text/javascript", ".css": "text/css", ".woff2": "font/woff2" };

/**
 * Types what newcomers type into the search of the docs.
 * @param folder of the built docs
 * @param executablePath of Chromium
 * @returns what came first where it should not have
 */
export async function searchDocs(folder, executablePath) {
  const server = createServer(async (request, response) => {
    const path = new URL(request.url, "http://localhost").pathname.replace(/^\/docs\//, "");
    const body = await readFile(join(folder, path === "" ? "index.html" : path)).catch(() => undefined);
    response.writeHead(body ? 200 : 404, { "content-type": TYPES[extname(path || ".html")] ?? "text/html" }).end(body);
  });
  await new Promise((resolve) => server.listen(0, "127.0.0.1", resolve));
  const browser = await chromium.launch({ executablePath });
  const wrong = [];
  try {
    const page = await browser.newPage();
    for (const [words, wanted] of ASKED) {
      await page.goto(`http://127.0.0.1:${server.address().port}/docs/`, { waitUntil: "networkidle" });
      await page.keyboard.press("Control+k");
      const input = page.locator("#localsearch-input");
      await input.fill(words);
      const first = page.locator(".results li a").first();
      await first.waitFor();
      await page.waitForTimeout(300);
      const href = (await first.getAttribute("href")) ?? "";
      if (!new RegExp(`/docs/${wanted}(\\.html)?(#|$)`).test(href)) wrong.push(`${words}: ${href}, not ${wanted}`);
    }
  } finally {
    await browser.close();
    server.close();
  }
  return wrong;
}
