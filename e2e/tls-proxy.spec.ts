import { expect, test } from "@playwright/test";
import { OwnServer, ownDatabase } from "../packages/server/testing/own-server.ts";
import type { Ready } from "../packages/server/testing/shared.ts";
import { long } from "./support/long.ts";
import { Studio } from "./support/studio.ts";
import { TlsProxy } from "./support/tls-proxy.ts";

/** The port of the server, which it is to get, and that of the proxy. */
const [PORT, PROXY_PORT] = [5310, 5311];

for (const path of ["", "/tools/addresses"])
  test.describe(`behind nginx, which speaks TLS${path && `, at ${path}`}`, long(), () => {
    test.setTimeout(120_000);
    test.use({ storageState: { cookies: [], origins: [] }, ignoreHTTPSErrors: true });
    const proxy = new TlsProxy(PROXY_PORT);
    let held: Awaited<ReturnType<typeof ownDatabase>>;
    let server: OwnServer;
    let ready: Ready;

    test.beforeAll(async () => {
      test.setTimeout(200_000);
      held = await ownDatabase(`tls_proxy${path ? "_path" : ""}`, "seeded");
      server = new OwnServer(held.url, "seeded", String(PORT), { PUBLIC_URL: proxy.url + path, TRUST_PROXY: "1" });
      server.start();
      ready = await server.ready();
      await proxy.start(Number(new URL(ready.url).port));
    });
    test.afterAll(async () => {
      await proxy.stop();
      await server.end("SIGTERM");
      await held.drop();
    });

    test("the workbench works: signing in, changes, lookups, the map, news of jobs, a form's own page", async ({
      browser,
    }) => {
      const context = await browser.newContext({ baseURL: proxy.url });
      const page = await context.newPage();
      const failed: string[] = [];
      page.on("response", (response) => {
        if (response.status() >= 400) failed.push(`${response.status()} ${response.url()}`);
      });
      page.on("console", (message) => {
        if (message.type() === "error") failed.push(message.text());
      });
      expect(ready.signIn).toContain(`${proxy.url}${path}/sign-in?token=`);
      await page.goto(ready.signIn);
      const [cookie] = (await context.cookies()).filter(({ name }) => name.includes("bibliotope"));
      expect(cookie).toMatchObject({
        secure: true,
        httpOnly: true,
        sameSite: "Strict",
        path: "/",
        domain: "localhost",
      });
      expect(cookie.name).toMatch(/^__Host-bibliotope_/);

      const studio = new Studio(page);
      await page.goto(`${path}/forms/become-a-reader/compose`);

      await page.getByRole("button", { name: "Show Town" }).click();
      await page.getByLabel("Label").fill("Town or village");
      await expect(page.getByText(/saved/i).first()).toBeVisible();
      await page.getByRole("link", { name: "Rehearse" }).click();
      await studio.search.pressSequentially("12 harb");
      await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
      await expect(page.locator("bibliotope-map, canvas").first()).toBeVisible();

      // what stays open is not known back by what stands between
      await page.goto(`${path}/data`);
      const news = page.waitForResponse((response) => response.url().endsWith("/api/jobs/events"));
      await page.reload();
      expect((await news).status()).toBe(200);
      await page.goto(`${path}/f/become-a-reader`);
      await expect(page.getByRole("heading", { name: "Become a reader" })).toBeVisible();
      expect(failed).toEqual([]);
      await context.close();
    });

    test("tells its clients apart, and browsers to come over TLS alone", async ({ playwright }) => {
      const request = await playwright.request.newContext({ baseURL: proxy.url, ignoreHTTPSErrors: true });
      const page = await request.get(`${path}/`);
      expect(page.headers()["strict-transport-security"]).toContain("max-age=");
      const statuses: number[] = [];
      // a stranger's word for where they come from is written before the proxy's own, which alone counts
      for (let i = 0; i < 6; i++) {
        const tried = await request.post(`${path}/sign-in`, {
          data: { name: "Guessed through nginx", password: "a wrong password" },
          headers: { "x-forwarded-for": `203.0.113.${i}` },
        });
        statuses.push(tried.status());
      }
      expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
      await request.dispose();
    });
  });
