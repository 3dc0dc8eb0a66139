import { expect, test } from "@playwright/test";
import { Door, OwnServer, ownDatabase } from "../packages/server/testing/own-server.ts";
import type { Ready } from "../packages/server/testing/shared.ts";
import { long } from "./support/long.ts";
import { Studio } from "./support/studio.ts";

test.describe("while the database is away", () => {
  test.setTimeout(300_000);
  test.use({ storageState: { cookies: [], origins: [] } });
  let held: Awaited<ReturnType<typeof ownDatabase>>;
  let door: Door;
  let port: number;
  let server: OwnServer;
  let ready: Ready;

  test.beforeAll(async () => {
    test.setTimeout(300_000);
    held = await ownDatabase("database_away", "seeded");
    const url = new URL(held.url);
    door = new Door({ host: "127.0.0.1", port: Number(url.port) });
    port = await door.open();
    url.port = String(port);
    server = new OwnServer(url.href, "seeded");
    server.start();
    ready = await server.ready();
  });

  test.afterAll(async () => {
    await server.end("SIGTERM");
    await door.shut();
    await held.drop();
  });

  test(
    "lookups go on; saving says that it cannot, keeps what was typed over a reload, and saves when it is back",
    long(),
    async ({ browser }) => {
      const context = await browser.newContext({ baseURL: ready.url });
      const page = await context.newPage();
      await page.goto(ready.signIn);
      const studio = new Studio(page);
      await studio.compose("become-a-reader");
      await door.shut();

      await page.getByRole("button", { name: "Show Town" }).click();
      await page.getByLabel("Label").fill("Town or village");
      await expect(
        page.getByText(/Not saved: The database does not respond.*Your changes are still here\./),
      ).toBeVisible();
      await page.getByRole("link", { name: "Rehearse" }).click();
      await studio.search.pressSequentially("12 harb");
      await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");

      await door.open(port);
      await expect(page.getByText(/draft 2 · saved/)).toBeVisible({ timeout: 60_000 });
      await page.reload();
      await expect(page.getByLabel("Town or village")).toBeVisible();

      await page.getByRole("link", { name: "Compose" }).click();
      await page.getByRole("button", { name: "Show Postcode" }).click();
      await door.shut();
      await page.getByLabel("Label").fill("Code");
      await expect(page.getByText(/Not saved/)).toBeVisible();
      await door.open(port);
      await page.reload();
      await expect(page.getByText(/draft 3 · saved/)).toBeVisible({ timeout: 60_000 });
      await expect(page.getByRole("button", { name: "Show Code" })).toBeVisible();
      await context.close();
    },
  );
});
