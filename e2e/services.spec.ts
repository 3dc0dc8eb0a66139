import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";
import { makeForm, Studio } from "./support/studio.ts";

const play = (page: Page, situation: string) => page.getByLabel("Situation").selectOption({ label: situation });
const value = (page: Page, name: string) => page.locator(`[data-bibliotope=form] [name="${name}"]`);
const said = (page: Page, service: string) => page.locator(`.bt-service[data-service="${service}"]`);

async function offer(page: Page, house: string, street: string): Promise<void> {
  for (const [name, text] of Object.entries({ street, house, town: "tidewell" })) {
    await value(page, name).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Tab");
  }
}

async function branch(page: Page, label: string, text: string, line: string): Promise<void> {
  await page.getByRole("combobox", { name: label, exact: true }).click();
  await page.keyboard.type(text);
  await page
    .getByRole("listbox", { name: "Suggestions" })
    .getByRole("option")
    .filter({ hasText: line })
    .first()
    .click();
}

test("the courier's days are chosen from, its way is told, and all of it falls with the branch", async ({ page }) => {
  await page.goto("/f/lend-to-a-branch");
  await branch(page, "From", "mill reading room tidewell", "Mill Reading Room, Tidewell");
  const day = page.getByLabel("Collected on");
  await expect(day.locator("option")).toHaveText(["Choose", "Monday", "Tuesday", "Thursday", "Saturday"]);
  await expect(page.getByLabel("Ready before")).toHaveText("10:00");
  await day.focus();
  await page.keyboard.type("Thu");
  await expect(day).toHaveValue("Thursday");
  await branch(page, "To", "thrift reading room tidewell", "Thrift Reading Room, Tidewell");
  await expect(page.getByLabel("The courier's way")).toHaveText(/^\d+ m, \d+ min$/);
  // what was chosen stays, and what the courier drives is longer than the straight line
  await expect(day).toHaveValue("Thursday");
  await page.getByRole("combobox", { name: "From", exact: true }).fill("");
  await expect(day.locator("option")).toHaveText(["Choose"]);
  await expect(page.getByLabel("The courier's way")).toBeHidden();
  expect(await axeFindings(page)).toEqual([]);
});

test("the tides are requested by a button, as repeated lines, and waited for as long as a field says", async ({
  page,
}) => {
  await page.goto("/f/lend-to-a-branch");
  await branch(page, "To", "thrift reading room tidewell", "Thrift Reading Room, Tidewell");
  await page.getByRole("button", { name: "Get the tides" }).click();
  await expect(page.getByLabel("High water at the destination")).toHaveText(/^\d\d:\d\d\n\d\d:\d\d$/);
});

test(
  "a register's own form is shown beside what was written, and taken; then the address is the register's",
  long(),
  async ({ page }) => {
    await page.goto("/f/offer-a-house");
    await offer(page, "12", "harbour row");
    const place = said(page, "register");
    await expect(place).toContainText("The land register spells this address differently.");
    await expect(place.locator("dd")).toHaveText([/^12 Harbour Row, Tidewell/, /^12 Harbour Rows, Tidewell/]);
    await expect(place.locator("mark")).toHaveText(["Harbour Row", "Harbour Rows"]);
    await expect(value(page, "plot")).toHaveValue(/^\d-\d+$/);
    expect(await axeFindings(page)).toEqual([]);
    await place.getByRole("button", { name: "Use the register's" }).click();
    await expect(value(page, "street")).toHaveValue("Harbour Rows");
    await expect(value(page, "confirmed")).toHaveValue("yes");
    await expect(place).toContainText("Spelled as in the land register.");
    await expect(value(page, "registered")).toHaveValue(/^20\d\d-/);
    // another house: what the register said of the one before is gone
    await value(page, "house").fill("14");
    await value(page, "house").blur();
    await expect(value(page, "plot")).toHaveValue("");
    await expect(value(page, "registered")).toHaveValue("");
  },
);

test("mine is kept, a known address is told so, and one abroad is not requested", long(), async ({ page }) => {
  await page.goto("/f/offer-a-house");
  await offer(page, "12", "harbour row");
  await said(page, "register").getByRole("button", { name: "Keep mine" }).click();
  await expect(value(page, "street")).toHaveValue("Harbour Row");
  await expect(value(page, "plot")).toHaveValue(/^\d-\d+$/);
  await page.goto("/f/offer-a-house");
  await offer(page, "12", "mill lane");
  await expect(said(page, "register")).toContainText("The land register knows this address.");
  const asked: string[] = [];
  page.on("request", (request) => request.url().includes("/v1/services/") && asked.push(request.postData() ?? ""));
  await page.goto("/f/offer-a-house");
  for (const [name, text] of Object.entries({ street: "storgränd", house: "3", town: "vårhamn" })) {
    await value(page, name).fill(text);
    await page.keyboard.press("Tab");
  }
});

for (const [situation, words] of [
  ["outside services find nothing", "The courier has nothing for this. You can continue without it."],
  ["outside services are slow", "The courier did not respond in time. You can continue without it."],
  ["outside services are down", "The courier is not responding at the moment. You can continue without it."],
  ["outside services refuse", "The courier is not responding at the moment. You can continue without it."],
  [
    "outside services return unreadable data",
    "The courier is not responding at the moment. You can continue without it.",
  ],
] as const)
  test(`a rehearsal in which ${situation} has words, and the form goes on`, long(), async ({ page }) => {
    await page.goto("/forms/lend-to-a-branch/rehearse");
    await play(page, situation);
    await branch(page, "From", "mill reading room tidewell", "Mill Reading Room, Tidewell");
    await expect(said(page, "courier")).toContainText(words);
    await expect(page.getByLabel("Collected on").locator("option")).toHaveCount(1);
    await expect(value(page, "from-ref")).toHaveValue(/^qr-/);
    await page.getByLabel("What is lent").fill("Atlas");
    await expect(page.getByLabel("What is lent")).toHaveValue("Atlas");
    await expect(page.getByRole("region", { name: "Timeline" })).toContainText("services");
  });

test(
  "a service is described from nothing: tried, its values named by a press, saved, asked; its host and secret set",
  long(),
  async ({ page }) => {
    const { createServer } = await import("node:http");
    const heard: string[] = [];
    const server = createServer((request, response) => {
      heard.push(`${request.url} ${request.headers["x-token"]}`);
      response.setHeader("content-type", "application/json");
      response.end(
        JSON.stringify({ weather: { words: "Fair", wind: 4 }, days: [{ day: "Monday" }, { day: "Friday" }] }),
      );
    }).listen(0, "127.0.0.1");
    await new Promise((resolve) => server.once("listening", resolve));
    const { port } = server.address() as { port: number };
    try {
      await page.goto("/services");
      await page.getByRole("button", { name: "Allowed hosts" }).click();
      const hosts = page.getByRole("dialog", { name: "Allowed hosts" });
      await hosts.getByLabel("Scheme, host and port").fill(`http://127.0.0.1:${port}`);
      await hosts.getByLabel("internal network").check();
      await hosts.getByRole("button", { name: "Allow" }).click();
      await expect(hosts).toContainText(`http://127.0.0.1:${port}`);
      expect(await axeFindings(page)).toEqual([]);
      await page.keyboard.press("Escape");
      await page.getByRole("button", { name: "Secrets" }).click();
      const secrets = page.getByRole("dialog", { name: "Secrets" });
      await secrets.getByLabel("Name").fill("weather-token");
      await secrets.getByLabel("Value").fill("rain and shine");
      await secrets.getByRole("button", { name: "Set", exact: true }).click();
      await expect(secrets).toContainText("weather-token");
      await page.keyboard.press("Escape");

      await page.getByRole("link", { name: "New service" }).click();
      await page.getByLabel("Title").fill("Weather of the islands");
      await page.getByLabel("Name for forms").fill("weather");
      await page.getByLabel("Address", { exact: true }).fill(`http://127.0.0.1:${port}/now{?town}`);
      await page.getByRole("button", { name: "+ a header" }).click();
      await page.getByLabel("Name of a header").fill("X-Token");
      await page.getByLabel("Value of X-Token").fill("{secret.weather-token}");
      await page.getByRole("button", { name: "Try it with these values" }).click();
      const tree = page.getByRole("tree");
      await expect(tree).toContainText("Fair");
      expect(heard).toEqual(["/now?town=Tidewell rain and shine"]);
      const name = async (row: string | RegExp) => {
        await tree.getByRole("treeitem").filter({ hasText: row }).click();
        await page.getByRole("button", { name: "Use in forms" }).click();
      };
      await name("words");
      await name("wind");
      await name(/Friday/);
      await expect(page.getByLabel("Path to words")).toHaveValue("/weather/words");
      await expect(page.getByLabel("Type of wind")).toHaveValue("number");
      await expect(page.getByLabel("Path to day")).toHaveValue("/days");
      await expect(page.getByLabel("Path within each item of day")).toHaveValue("/day");
      await page.getByRole("button", { name: "Try it with these values" }).click();
      await expect(page.getByText("Monday · Friday")).toBeVisible();
      expect(await axeFindings(page)).toEqual([]);
      await page.getByRole("button", { name: "Save", exact: true }).click();
      await expect(page).toHaveURL(/\/services\/weather$/);
      await page.goto("/services");
      await expect(page.getByRole("listitem").filter({ hasText: "Weather of the islands" })).toContainText(
        "not used by any form",
      );
      expect(await axeFindings(page)).toEqual([]);
      const answer = await page.evaluate(async () => {
        const { studioKey } = await (await fetch("/api/session")).json();
        const asked = { method: "POST", headers: { "content-type": "application/json" }, body: '{"town":"Sandmouth"}' };
        return (await fetch(`/v1/services/weather?access_token=${studioKey}`, asked)).json();
      });
      expect(answer.values).toEqual({ words: "Fair", wind: "4", day: ["Monday", "Friday"] });
      await page.getByRole("link", { name: "Weather of the islands" }).click();
      await page.getByRole("button", { name: "Delete this service" }).click();
      await expect(page).toHaveURL(/\/services$/);
    } finally {
      server.close();
      server.closeAllConnections();
    }
  },
);

test("an operation is taken from a WSDL that is pasted", long(), async ({ page }) => {
  await page.goto("/services/register");
  const address = await page.getByLabel("Address", { exact: true }).inputValue();
  const wsdl = await (await fetch(`${address}?wsdl`)).text();
  await page.goto("/services/new");
  await page.getByLabel("Protocol").selectOption("soap");
  await page.getByRole("button", { name: "Read a WSDL" }).click();
  const dialog = page.getByRole("dialog", { name: "Operations of a WSDL" });
  await dialog.getByRole("textbox").fill("<nonsense/>");
  await dialog.getByRole("button", { name: "Read it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("WSDL 1.1");
  await dialog.getByRole("textbox").fill(wsdl);
  await dialog.getByRole("button", { name: "Read it" }).click();
  await dialog.getByRole("button", { name: /Use it/ }).click();
  await expect(page.getByLabel("Operation")).toHaveValue("Confirm");
  await expect(page.getByLabel("Namespace", { exact: true })).toHaveValue("urn:land-register:lorramere:1");
  await page.getByLabel("Value of street").fill("Harbour Row");
  await page.getByLabel("Value of town").fill("Tidewell");
  await page.getByLabel("Value of house").fill("12");
  await page.getByRole("button", { name: "Try it with these values" }).click();
  await expect(page.getByRole("tree")).toContainText("otherwise");
});

test("who may only edit tries a service, and changes nothing of it", async ({ page }) => {
  await page.route("**/api/session", async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, json: { ...(await response.json()), role: "edit" } });
  });
  await page.goto("/services/courier");
  await expect(page.getByLabel("Title")).toBeDisabled();
  await expect(page.getByRole("button", { name: "Save" })).toHaveCount(0);
  await page.getByLabel("Value of town").fill("Sandmouth");
  await page.getByRole("button", { name: "Try it with these values" }).click();
  await expect(page.getByRole("tree")).toContainText("Sandmouth");
});

test("a form's services are ruled and bound in Compose, and checked there", long(), async ({ page }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Bound to services");
  await studio.compose(ref);
  const panel = page.getByRole("region", { name: "Outside services" });
  await panel.getByLabel("Add a service").selectOption("courier");
  await expect(panel.getByLabel("town", { exact: true })).toHaveValue("{town}");
  await panel.getByLabel("Display name").fill("the van");
  await panel.getByRole("button", { name: "a field loses focus" }).click();
  await panel.getByRole("button", { name: "an address is found" }).click();
  await page.getByRole("button", { name: "Pick courier.days" }).click();
  await page.getByRole("button", { name: "Bind courier.days to Note" }).click();
  await expect(studio.wire("courier.days", "note")).toHaveCount(1);
  await expect(page.getByText("“courier.days” is selected")).toHaveCount(0);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole("link", { name: "Rehearse" }).click();
  await studio.search.fill("12 harb");
  await studio.list.getByRole("option").first().click();
  await expect(studio.field("Note")).toHaveValue("Monday, Tuesday, Thursday, Saturday");
  await page.getByRole("button", { name: "Submitted values" }).click();
  await expect(page.getByRole("complementary", { name: "Submitted values" })).toContainText("from a service");
});

test("a stored record keeps what a service's list was chosen from, and asks nothing", async ({ page }) => {
  const asked: string[] = [];
  page.on("request", (request) => request.url().includes("/v1/services/") && asked.push(request.url()));
  await page.goto("/f/lend-to-a-branch");
  await page.evaluate(async () => {
    const kit = "/kit/v1/bibliotope.js";
    const { Client, renderForm } = await import(kit);
    const { studioKey } = await (await fetch("/api/session")).json();
    const client = new Client({ key: studioKey });
    const { definition } = await client.form("lend-to-a-branch");
    const { countries } = await client.countries();
    const record = { day: "Thursday", book: "Atlas", before: "10:00" };
    document.body.replaceChildren();
    renderForm(document.body, definition, { client, countries, record, withoutMap: true });
  });
  await expect(page.getByLabel("Collected on")).toHaveValue("Thursday");
  await expect(page.getByLabel("Ready before")).toHaveText("10:00");
  expect(asked).toEqual([]);
});
