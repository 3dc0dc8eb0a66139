import { expect, type Page, test } from "@playwright/test";

test.setTimeout(60_000);

/** Bytes that a page's first view takes over the network, as they are sent; map tiles and lookups aside. */
async function bytesOf(page: Page, path: string): Promise<number> {
  const sizes: Promise<number>[] = [];
  page.on("requestfinished", (request) => {
    if (!/^\/(?:v1|api)\//.test(new URL(request.url()).pathname))
      sizes.push(request.sizes().then(({ responseBodySize }) => responseBodySize));
  });
  await page.goto(path, { waitUntil: "networkidle" });
  return (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
}

// what they take today and a little more: whoever adds to them sees it here
for (const [name, path, most] of [
  ["the workbench", "/", 490_000],
  ["a form's own page", "/f/become-a-reader", 200_000],
] as const)
  test(`the first view of ${name} takes at most ${most / 1000} kB, compressed`, async ({ page }) => {
    const bytes = await bytesOf(page, path);
    expect(bytes).toBeGreaterThan(50_000);
    expect(bytes).toBeLessThanOrEqual(most);
  });

test("a form's own page says in its HTML what it is, before any script", async ({ page }) => {
  const html = await (await page.request.get("/f/become-a-reader")).text();
  expect(html).toMatch(/<meta name="description" content="[^"]{10,}"/);
  expect(html).toMatch(/<h1[^>]*>Become a reader<\/h1>/);
});
