import { type APIResponse, expect, type Locator, type Page } from "@playwright/test";

/** The workbench as a person meets it. */
export class Studio {
  readonly search: Locator;
  readonly list: Locator;
  readonly map: Locator;

  constructor(readonly page: Page) {
    this.search = page.getByRole("combobox", { name: "Find your address" });
    this.list = page.getByRole("listbox", { name: "Suggestions" });
    this.map = page.locator("[data-bibliotope=map]");
  }

  async rehearse(ref = "become-a-reader"): Promise<void> {
    await this.page.goto(`/forms/${ref}/rehearse`);
    await expect(this.search).toBeFocused();
  }

  async compose(ref: string): Promise<void> {
    await this.page.goto(`/forms/${ref}/compose`);
    await expect(this.part("house")).toContainText("12");
  }

  field(label: string): Locator {
    return this.page.getByLabel(label, { exact: true });
  }

  part(name: string): Locator {
    return this.page.locator(`[data-part="${name}"]`);
  }

  wire(part: string, field: string): Locator {
    return this.page.locator(`[data-wire="${part} ${field}"]`);
  }

  /** The map's middle and zoom. */
  async view(): Promise<{ lat: number; lon: number; zoom: number }> {
    const [lat, lon, zoom] = (await this.map.getAttribute("data-view"))!.split(",").map(Number);
    return { lat, lon, zoom };
  }

  /** Waits until every tile in sight is painted. */
  async painted(): Promise<void> {
    await expect(this.map).toHaveAttribute("data-complete", "true");
  }
}

/** A form of its own for a test, so that tests do not disturb each other. @returns its ref */
export async function makeForm(page: Page, title: string): Promise<string> {
  const definition = {
    title,
    fields: [
      { name: "find", kind: "search", label: "Find your address" },
      { name: "street", kind: "text", label: "Street and number", autofill: "address-line1" },
      { name: "note", kind: "text", label: "Note" },
      { name: "town", kind: "text", label: "Town", binding: "{town}" },
      { name: "country", kind: "country", label: "Country", binding: "{country.code}" },
      { name: "place", kind: "map", label: "On the map" },
    ],
  };
  return saveForm(page, definition);
}

/** Stores a form. @returns its ref */
export async function saveForm(page: Page, definition: object): Promise<string> {
  return (await (await send(page, "post", "/api/forms", { definition })).json()).ref;
}

async function send(page: Page, method: "post" | "put", path: string, data: object): Promise<APIResponse> {
  const { csrf } = await (await page.request.get("/api/session")).json();
  const answer = await page.request[method](path, { headers: { "x-csrf-token": csrf }, data });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer;
}

export async function publish(page: Page, ref: string): Promise<void> {
  const { revision } = await (await page.request.get(`/api/forms/${ref}`)).json();
  await send(page, "post", `/api/forms/${ref}/publish`, { revision });
}

/** Changes a form's draft behind the workbench. */
// biome-ignore lint/suspicious/noExplicitAny: a definition as JSON, changed at any depth
export async function changeForm(page: Page, ref: string, change: (definition: any) => void): Promise<void> {
  const { revision, definition } = await (await page.request.get(`/api/forms/${ref}`)).json();
  change(definition);
  await send(page, "put", `/api/forms/${ref}/draft`, { revision, definition });
}
