import { expect, test } from "@playwright/test";
import { codeAt } from "../packages/server/testing/authenticator.ts";
import { axeFindings } from "./support/axe.ts";
import { baseUrl } from "./support/house.ts";
import { long } from "./support/long.ts";

test("somebody is let in, signs in by password, may only look, and is taken out", long(), async ({ page, browser }) => {
  const name = `Guest ${Date.now()}`;
  await page.goto("/forms");
  await page.getByRole("button", { name: "Account: The reading network" }).click();
  const dialog = page.getByRole("dialog", { name: "The reading network" });
  const form = dialog.getByRole("form", { name: "Add a person" });
  await form.getByLabel("Name").fill(name);
  await form.getByLabel("Initial password").fill("a first password");
  await form.getByLabel("Role").selectOption("look");
  await form.getByRole("button", { name: "Add person" }).click();
  await expect(dialog.getByLabel(`Role of ${name}`)).toBeVisible();
  await expect(dialog.getByLabel(`Role of ${name}`)).toHaveValue("look");
  expect(await axeFindings(page)).toEqual([]);

  const other = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const guest = await other.newPage();
  await guest.goto("/forms");
  await expect(guest.getByRole("heading", { name: "You are not signed in" })).toBeVisible();
  expect(await axeFindings(guest)).toEqual([]);
  await guest.getByLabel("Name").fill(name);
  await guest.getByLabel("Password").fill("a wrong password");
  await guest.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(guest.getByRole("alert")).toHaveText("The name or password is wrong.");
  await guest.getByLabel("Password").fill("a first password");
  await guest.getByLabel("Password").press("Enter");
  await expect(guest.getByRole("heading", { name: "Forms" })).toBeVisible();
  await guest.goto("/keys");
  await expect(guest.getByText("Only managers of this workbench can create and change keys.")).toBeVisible();
  await expect(guest.getByRole("button", { name: /New key|Withdraw/ })).toHaveCount(0);
  await guest.goto("/forms/become-a-reader/compose");
  await expect(guest.getByText("read-only: your changes are not saved")).toBeVisible();

  // signed in a second time elsewhere, which is seen and ended here
  const elsewhere = await fetch(`${baseUrl()}/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name, password: "a first password" }),
  });
  expect(elsewhere.status).toBe(204);
  await guest.getByRole("button", { name: `Account: ${name}` }).click();
  const where = guest.getByRole("region", { name: "Sessions" });
  await expect(where.getByRole("listitem")).toHaveCount(2);
  await expect(where.getByText("this session")).toBeVisible();
  expect(await axeFindings(guest)).toEqual([]);
  await where.getByRole("button", { name: "End the other session" }).click();
  await expect(where.getByRole("listitem")).toHaveCount(1);
  await expect(guest.getByRole("region", { name: "People" })).toHaveCount(0);
  await guest.getByLabel("Current password").fill("a first password");
  await guest.getByLabel("New password").fill("a second password");
  await guest.getByRole("button", { name: "Change password" }).click();
  await expect(guest.getByText("Password changed. Other sessions have ended.")).toBeVisible();
  await guest.getByRole("button", { name: "Sign out" }).click();
  await expect(guest.getByRole("heading", { name: "You are not signed in" })).toBeVisible();

  await dialog.getByRole("button", { name: `Remove … ${name}` }).click();
  await dialog.getByRole("button", { name: `Remove ${name}` }).click();
  await expect(dialog.getByLabel(`Role of ${name}`)).toHaveCount(0);
  await guest.getByLabel("Name").fill(name);
  await guest.getByLabel("Password").fill("a second password");
  await guest.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(guest.getByRole("alert")).toContainText("is wrong");
  await other.close();
});

test(
  "one-time codes and a passkey are set up, requested at the door, and turned off",
  long(),
  async ({ page, browser }) => {
    test.setTimeout(60_000);
    const name = `Careful ${Date.now()}`;
    const password = "lantern mosaic thirty plums";
    await page.goto("/forms");
    await page.getByRole("button", { name: "Account: The reading network" }).click();
    const form = page.getByRole("form", { name: "Add a person" });
    await form.getByLabel("Name").fill(name);
    await form.getByLabel("Initial password").fill("football2024");
    await form.getByRole("button", { name: "Add person" }).click();
    await expect(page.getByText("is one of the most common passwords")).toBeVisible();
    await form.getByLabel("Initial password").fill(password);
    await form.getByRole("button", { name: "Add person" }).click();
    await expect(page.getByLabel(`Role of ${name}`)).toBeVisible();

    const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
    const own = await context.newPage();
    const devtools = await context.newCDPSession(own);
    await devtools.send("WebAuthn.enable");
    await devtools.send("WebAuthn.addVirtualAuthenticator", {
      options: {
        protocol: "ctap2",
        transport: "internal",
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
        automaticPresenceSimulation: true,
      },
    });
    const signIn = async () => {
      await own.getByLabel("Name").fill(name);
      await own.getByLabel("Password").fill(password);
      await own.getByRole("button", { name: "Sign in", exact: true }).click();
    };
    const openAccount = () => own.getByRole("button", { name: `Account: ${name}` }).click();
    const leave = () => own.getByRole("button", { name: "Sign out" }).click();
    await own.goto(`${baseUrl().replace("127.0.0.1", "localhost")}/forms`);
    await signIn();
    await openAccount();
    const factor = own.getByRole("region", { name: "Second factor" });
    await factor.getByRole("button", { name: "Set up …" }).click();
    await factor.getByLabel("Confirm your password").fill(password);
    await factor.getByRole("button", { name: "Set up one-time codes" }).click();
    const secret = ((await factor.locator("code").textContent()) ?? "").replaceAll(" ", "");
    await expect(factor.getByAltText("The secret as a QR code")).toBeVisible();
    expect(await axeFindings(own)).toEqual([]);
    const now = Date.now();
    await factor.getByLabel("Code shown in the app").fill(codeAt(secret, now));
    await factor.getByRole("button", { name: "Turn on one-time codes" }).click();
    await expect(factor.getByText("required with the password since")).toBeVisible();
    await factor.getByRole("button", { name: "Add a passkey …" }).click();
    await factor.getByLabel("Name of the passkey").fill("A laptop");
    await factor.getByLabel("Confirm your password").fill(password);
    await factor.getByRole("button", { name: "Add a passkey", exact: true }).click();
    await expect(factor.getByText("Passkey “A laptop”")).toBeVisible();
    expect(await axeFindings(own)).toEqual([]);

    await leave();
    await signIn();
    await expect(own.getByRole("alert")).toHaveText("Enter the code shown in your authenticator app.");
    expect(await axeFindings(own)).toEqual([]);
    await own.getByLabel("One-time code").fill(codeAt(secret, now + 30_000));
    await own.getByLabel("One-time code").press("Enter");
    await openAccount();
    await leave();
    await own.getByRole("button", { name: "Sign in with a passkey" }).click();
    await openAccount();
    await expect(factor.getByText(/^used /)).toBeVisible();
    await factor.getByRole("button", { name: "Remove … A laptop" }).click();
    await factor.getByLabel("Confirm your password").fill("a wrong password");
    await factor.getByRole("button", { name: "Remove the passkey" }).click();
    await expect(factor.getByRole("alert")).toContainText("The current password is wrong");
    await factor.getByLabel("Confirm your password").fill(password);
    await factor.getByRole("button", { name: "Remove the passkey" }).click();
    await expect(factor.getByText("Passkey “A laptop”")).toHaveCount(0);

    // who lost their app is helped by somebody who manages
    await page.reload();
    await page.getByRole("button", { name: "Account: The reading network" }).click();
    await page.getByRole("button", { name: `turn off the second factor of ${name}` }).click();
    await expect(page.getByRole("button", { name: `turn off the second factor of ${name}` })).toHaveCount(0);
    await own.goto("/forms");
    await signIn();
    await expect(own.getByRole("heading", { name: "Forms" })).toBeVisible();
    await context.close();
  },
);
