import { expect, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { baseUrl } from "./support/house.ts";

test("somebody is let in, signs in by password, may only look, and is taken out", async ({ page, browser }) => {
  const name = `Guest ${Date.now()}`;
  await page.goto("/forms");
  await page.getByRole("button", { name: "Account: The reading network" }).click();
  const sheet = page.getByRole("dialog", { name: "The reading network" });
  const form = sheet.getByRole("form", { name: "Let somebody in" });
  await form.getByLabel("Name").fill(name);
  await form.getByLabel("First password").fill("a first password");
  await form.getByLabel("May").selectOption("look");
  await form.getByRole("button", { name: "Let them in" }).click();
  await expect(sheet.getByLabel(`What ${name} may do`)).toBeVisible();
  await expect(sheet.getByLabel(`What ${name} may do`)).toHaveValue("look");
  expect(await axeFindings(page)).toEqual([]);

  const other = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const guest = await other.newPage();
  await guest.goto("/forms");
  await expect(guest.getByRole("heading", { name: "Nobody is signed in here" })).toBeVisible();
  expect(await axeFindings(guest)).toEqual([]);
  await guest.getByLabel("Name").fill(name);
  await guest.getByLabel("Password").fill("a wrong password");
  await guest.getByRole("button", { name: "Sign in" }).click();
  await expect(guest.getByRole("alert")).toHaveText("Name and password do not fit. Look at both, and try again.");
  await guest.getByLabel("Password").fill("a first password");
  await guest.getByLabel("Password").press("Enter");
  await expect(guest.getByRole("heading", { name: "Forms" })).toBeVisible();
  await guest.goto("/keys");
  await expect(guest.getByText("Only people who manage this workbench make and change them.")).toBeVisible();
  await expect(guest.getByRole("button", { name: /New key|Withdraw/ })).toHaveCount(0);
  await guest.goto("/forms/become-a-reader/compose");
  await expect(guest.getByText("you may look; what you change is not saved")).toBeVisible();

  // signed in a second time elsewhere, which is seen and ended here
  const elsewhere = await fetch(`${baseUrl()}/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name, password: "a first password" }),
  });
  expect(elsewhere.status).toBe(204);
  await guest.getByRole("button", { name: `Account: ${name}` }).click();
  const where = guest.getByRole("region", { name: "Where you are signed in" });
  await expect(where.getByRole("listitem")).toHaveCount(2);
  await expect(where.getByText("this one")).toBeVisible();
  expect(await axeFindings(guest)).toEqual([]);
  await where.getByRole("button", { name: "End the other session" }).click();
  await expect(where.getByRole("listitem")).toHaveCount(1);
  await expect(guest.getByRole("region", { name: "People" })).toHaveCount(0);
  await guest.getByLabel("Password now").fill("a first password");
  await guest.getByLabel("New password").fill("a second password");
  await guest.getByRole("button", { name: "Change it" }).click();
  await expect(guest.getByText("Changed. Other sessions have ended.")).toBeVisible();
  await guest.getByRole("button", { name: "Sign out" }).click();
  await expect(guest.getByRole("heading", { name: "Nobody is signed in here" })).toBeVisible();

  await sheet.getByRole("button", { name: `Take out … ${name}` }).click();
  await sheet.getByRole("button", { name: `Take out ${name}` }).click();
  await expect(sheet.getByLabel(`What ${name} may do`)).toHaveCount(0);
  await guest.getByLabel("Name").fill(name);
  await guest.getByLabel("Password").fill("a second password");
  await guest.getByRole("button", { name: "Sign in" }).click();
  await expect(guest.getByRole("alert")).toContainText("do not fit");
  await other.close();
});
