import fc from "fast-check";
import { afterEach, describe, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import { StandIn } from "../testing/index.ts";
import { SearchBox } from "./box.ts";

const street = (house: string) => ({
  ref: `qr-${house}`,
  line: `${house} Mill Lane, Nowhere`,
  parts: { house, street: "Mill Lane", town: "Nowhere" },
});
const records = ["1", "2", "3", "4"].map(street);

function boxed() {
  const input = document.createElement("input");
  document.body.append(input);
  const chosen: string[] = [];
  const cleared = vi.fn();
  const standIn = new StandIn({ records });
  const box = new SearchBox(input, { client: standIn.client(), chosen: ({ line }) => chosen.push(line), cleared });
  const list = input.closest("[data-bibliotope=search]")!.querySelector<HTMLElement>("[data-bibliotope=suggestions]")!;
  const options = () => [...list.querySelectorAll<HTMLElement>("[role=option]")];
  return { input, box, list, options, chosen, cleared, stands: standIn };
}
afterEach(() => document.body.replaceChildren());

/** What the ARIA combobox pattern wants of the box in every state. */
function expectCombobox({ input, list, options }: ReturnType<typeof boxed>): void {
  const isOpen = !list.hidden;
  expect(input.getAttribute("aria-expanded")).toBe(String(isOpen));
  expect(input.getAttribute("aria-controls")).toBe(list.id);
  const selected = options().filter((option) => option.getAttribute("aria-selected") === "true");
  expect(selected.length).toBeLessThanOrEqual(1);
  const active = input.getAttribute("aria-activedescendant");
  if (active) {
    expect(isOpen).toBe(true);
    expect(selected.map(({ id }) => id)).toEqual([active]);
  } else expect(selected).toEqual([]);
  expect(new Set(options().map(({ id }) => id)).size).toBe(options().length);
  expect(document.activeElement).toBe(input);
}

describe("a search box", () => {
  it("is a combobox whatever keys are pressed, in whatever order, with answers between", {
    timeout: 60_000,
  }, async () => {
    const keys = ["3", " ", "m", "Backspace", "ArrowDown", "ArrowUp", "Enter", "Escape", "Home", "End", "Tab?"];
    await fc.assert(
      fc.asyncProperty(fc.array(fc.constantFrom(...keys), { maxLength: 14 }), async (pressed) => {
        const made = boxed();
        made.input.focus();
        for (const key of pressed) {
          if (key === "Tab?") await new Promise((resolve) => setTimeout(resolve, 120));
          else await userEvent.keyboard(key.length === 1 ? key : `{${key}}`);
          expectCombobox(made);
        }
        // what was chosen is what the box says
        for (const line of made.chosen) expect(records.map((record) => record.line)).toContain(line);
        made.box.destroy();
        document.body.replaceChildren();
      }),
      { numRuns: 25 },
    );
  });

  it("offers what was found, marks it, and takes the line that Enter is pressed on", async () => {
    const made = boxed();
    await userEvent.type(made.input, "mill");
    await vi.waitFor(() => expect(made.options()[0]?.querySelector("mark")?.textContent).toBe("Mill"), 20_000);
    expect(made.options()).toHaveLength(4);
    await userEvent.keyboard("{ArrowDown}{ArrowDown}{Enter}");
    const [line] = made.chosen;
    expect(line).toBe(made.input.value);
    expect(made.list.hidden).toBe(true);
  });

  it("takes text from outside for text", async () => {
    const input = document.createElement("input");
    document.body.append(input);
    const hostile = { ref: "qr-x", line: '<img src="x" onerror="alert(1)"> Lane', parts: { street: "Lane" } };
    new SearchBox(input, { client: new StandIn({ records: [hostile] }).client(), chosen: () => undefined });
    await userEvent.type(input, "lane");
    await vi.waitFor(
      () => expect(document.querySelector("[role=option]")?.textContent).toContain(hostile.line),
      20_000,
    );
    expect(document.querySelector("img")).toBeNull();
  });

  it("says in words what it cannot do, and leaves the input as it was at its end", async () => {
    const made = boxed();
    made.stands.plays("down");
    await userEvent.type(made.input, "mill");
    const words = document.querySelector<HTMLElement>("[data-bibliotope=search] p:not([role])")!;
    await vi.waitFor(() => expect(words.hidden).toBe(false), 20_000);
    expect(words.textContent).not.toBe("");
    expect(document.getElementById(made.input.getAttribute("aria-describedby")!)).toBe(words);
    made.box.destroy();
    expect(document.body.children).toHaveLength(1);
    expect(made.input.getAttributeNames()).toEqual([]);
    expect(made.input.value).toBe("mill");
  });

  it("keeps what the page says of the input, and gives all of it back", async () => {
    document.body.innerHTML = `<input aria-describedby="help" autocomplete="street-address" spellcheck="true">`;
    const input = document.querySelector("input")!;
    const attributes = () => Object.fromEntries([...input.attributes].map(({ name, value }) => [name, value]));
    const before = attributes();
    const box = new SearchBox(input, { client: new StandIn({ records }).client(), chosen: () => undefined });
    expect(input.getAttribute("aria-describedby")).toMatch(/^help \S+$/);
    await userEvent.type(input, "mill");
    box.destroy();
    expect(attributes()).toEqual(before);
  });

  it("tells that it was emptied once, however it was", async () => {
    const made = boxed();
    await userEvent.type(made.input, "mi");
    await userEvent.clear(made.input);
    expect(made.cleared).toHaveBeenCalledTimes(1);
    expect(made.list.hidden).toBe(true);
  });
});
