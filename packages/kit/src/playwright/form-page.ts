import type { Locator, Page, Request } from "@playwright/test";

/** Requests that a form makes of the service. */
const LOOKUPS = /\/v1\/(suggest|forward|reverse|records|postcodes|distance|height|services)\b/;
/** Those of them that outside services answer. */
const SERVICES = /\/v1\/services\b/;

/**
 * A form of the kit on a page of Playwright, used as a person uses it. It rests on the names of fields, on roles, and on
 * the attribute `data-bibliotope`, which stay as they are within a major version.
 *
 * @example
 * const form = await FormPage.open(page, "https://forms.example/f/become-a-reader");
 * await form.type("find", "12 harb");
 * await form.takeSuggestion("12 Harbour Row, Tidewell");
 * await expect(form.field("town")).toHaveValue("Tidewell");
 */
export class FormPage {
  readonly form: Locator;
  readonly #pending = new Set<Request>();
  #last = Date.now();

  constructor(readonly page: Page) {
    this.form = page.locator('[data-bibliotope="form"]');
    const ended = (request: Request) => {
      if (this.#pending.delete(request)) this.#last = Date.now();
    };
    page.on("request", (request) => LOOKUPS.test(request.url()) && this.#pending.add(request));
    page.on("requestfinished", ended);
    page.on("requestfailed", ended);
  }

  /** Opens a page that has a form, and waits for the form. */
  static async open(page: Page, url: string): Promise<FormPage> {
    const opened = new FormPage(page);
    await page.goto(url);
    await opened.form.waitFor();
    return opened;
  }

  /**
   * Every lookup from now on is made with a try key, in a situation that the service plays.
   * @param servicesOnly the situation is that of outside services
   */
  static async play(page: Page, tryKey: string, situation: string, servicesOnly = false): Promise<void> {
    await page.route(servicesOnly ? SERVICES : LOOKUPS, (route) => {
      const url = new URL(route.request().url());
      url.searchParams.set("access_token", tryKey);
      url.searchParams.set("situation", situation);
      return route.continue({ url: url.href });
    });
  }

  /** No lookup from now on reaches the service. */
  static async goOffline(page: Page): Promise<void> {
    await page.route(LOOKUPS, (route) => route.abort());
  }

  /** Waits until no request has been pending for a moment. */
  async settled(): Promise<void> {
    this.#last = Date.now();
    while (this.#pending.size || Date.now() - this.#last < 300) await this.page.waitForTimeout(40);
  }

  field(name: string): Locator {
    return this.page.locator(`[name="${name}"]`);
  }

  /** Types into a field, letter by letter; what is there stays where the text begins with it. */
  async type(name: string, text: string): Promise<void> {
    const control = this.field(name);
    const before = await control.inputValue();
    await control.focus();
    if (text !== "" && text.startsWith(before)) await control.press("End");
    else await control.press("ControlOrMeta+A");
    if (text)
      await control.pressSequentially(text.startsWith(before) ? text.slice(before.length) : text, { delay: 35 });
    else await control.press("Delete");
  }

  async leave(name: string): Promise<void> {
    await this.settled();
    await this.field(name).press("Tab");
    await this.settled();
  }

  /** By the keyboard: what a script chooses does not count as a person's choice. */
  async select(name: string, value: string): Promise<void> {
    const control = this.field(name);
    const option = control.locator(`option[value="${value}"]`);
    await control.focus();
    await this.page.keyboard.type((await option.textContent()) ?? "");
    const chosen = await control.inputValue();
    if (chosen !== value) throw new Error(`${name} has “${chosen}” selected, not “${value}”`);
    await this.settled();
  }

  async takeSuggestion(line: string): Promise<void> {
    const suggestions = this.page.locator('[data-bibliotope="suggestions"]').getByRole("option");
    await suggestions
      .filter({ has: this.page.getByText(line, { exact: true }) })
      .first()
      .click();
    await this.settled();
  }

  /** Clicks one of several matches of an address. */
  async chooseMatch(address: string, line: string): Promise<void> {
    const matches = this.#outcome(address).locator('[data-bibliotope="match"]');
    await matches
      .filter({ has: this.page.getByText(line, { exact: true }) })
      .first()
      .click();
    await this.settled();
  }

  /** Keeps an address as it was typed, where that is offered. */
  async keepTyped(address: string): Promise<void> {
    await this.#outcome(address).locator('[data-bibliotope="typed"]').click();
    await this.settled();
  }

  /** Clicks a button of the form. */
  async press(name: string): Promise<void> {
    await this.field(name).click();
    await this.settled();
  }

  /** Clicks a position of the map, wherever on the screen it lies. */
  async pointAt(at: { lat: number; lon: number; address?: string }): Promise<void> {
    await this.form.evaluate((form, detail) => form.dispatchEvent(new CustomEvent("bibliotope-point", { detail })), at);
    await this.settled();
  }

  #outcome(address: string): Locator {
    return this.page.locator(`[data-address="${address}"]`);
  }
}
