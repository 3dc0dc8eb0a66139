import { once } from "node:events";
import { createServer } from "node:http";
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

/**
 * Types what newcomers type into the search of the docs, as the product serves them. The server has to be built.
 * @param folder of the built docs
 * @param executablePath of Chromium
 * @returns what came first where it should not have, and errors of the pages
 */
export async function searchDocs(folder, executablePath) {
  const { docsRoutes } = await import("../../packages/server/dist/routes/docs.route.js");
  const routes = docsRoutes(folder);
  const server = createServer((request, response) => routes(request, response, () => response.writeHead(404).end()));
  server.listen(0, "127.0.0.1");
  await once(server, "listening");
  const browser = await chromium.launch({ executablePath });
  const wrong = [];
  try {
    const page = await browser.newPage();
    // the product's own policy holds here too: a script that it refuses leaves a page dead that looks right
    page.on("pageerror", (error) => wrong.push(error.message.split("\n")[0]));
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
