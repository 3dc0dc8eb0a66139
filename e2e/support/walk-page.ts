import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import type { FormDefinition } from "@bibliotope/core/form";
import type { RenderedForm, RenderOptions } from "../../packages/kit/src/index.ts";
import { ready } from "./house.ts";

/** Something that happens to a form; numbers are shares, 0 to 1, of what there is to choose from. */
export interface WalkEvent {
  did: "type" | "take" | "point" | "marker" | "press" | "offered" | "select" | "reset" | "script";
  /** Which one. */
  which: number;
  /** What with. */
  what: number;
  text: string;
  /** True when nothing is waited for: the next event comes while answers are under way. */
  isHasty: boolean;
}

/** A record as an answer gave it. */
export interface Answered {
  ref: string;
  at: { lat: number; lon: number };
  line: string;
  kind: string;
  parts: Record<string, { name: string; abbr?: string; code?: string }>;
  autofill: Record<string, string>;
}

/** The form after an event. */
export interface Snapshot {
  did: string;
  values: Record<string, string>;
  /** Paths that were asked since the event before. */
  asked: string[];
  /** Response meanwhile. */
  answered: Answered[];
}

/** What the page has of the kit. */
export interface Kit {
  renderForm: (container: HTMLElement, definition: FormDefinition, options: RenderOptions) => RenderedForm;
  client: RenderOptions["client"];
  countries: RenderOptions["countries"];
}

const html = () => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Walks</title><main></main>
<script type="module">
import { Client, renderForm } from "${ready().url}/kit/v1/bibliotope.js";
const client = new Client({ key: "${ready().keys.web}", url: "${ready().url}" });
window.kit = { renderForm, client, countries: (await client.countries()).countries };
document.documentElement.dataset.ready = "true";
</script></html>`;

/** Serves a page of another origin that has the kit at hand. */
export async function serveWalks(): Promise<{ server: Server; url: string }> {
  const server = createServer((_request, response) => response.setHeader("content-type", "text/html").end(html()));
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { server, url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/` };
}

/** Goes through events in the page, a form for all of them. Runs in the browser: it may use nothing from out here. */
export async function walkInPage({
  definition,
  events,
}: {
  definition: FormDefinition;
  events: WalkEvent[];
}): Promise<Snapshot[]> {
  const { renderForm, client, countries } = (window as unknown as { kit: Kit }).kit;
  const asked: string[] = [];
  const answered: Answered[] = [];
  let underWay = 0;
  const plain = window.fetch;
  window.fetch = async (input, init) => {
    const { pathname } = new URL(input instanceof Request ? input.url : String(input));
    const isLookup = /\/v1\/(suggest|forward|reverse|records)/.test(pathname);
    if (!isLookup) return plain(input, init);
    asked.push(pathname);
    underWay++;
    try {
      const response = await plain(input, init);
      const body = await response.clone().json();
      for (const { id, properties } of body.features ?? (body.type === "Feature" ? [body] : []))
        answered.push({ ref: id, ...properties });
      return response;
    } finally {
      underWay--;
    }
  };
  const container = document.querySelector("main")!;
  const made = renderForm(container, definition, { client, countries, isByPerson: () => true });
  const { form, binding, map } = made;
  const named = () =>
    [...form.elements].filter(
      (one): one is HTMLInputElement => "name" in one && one.name !== "" && !(one instanceof HTMLButtonElement),
    );
  const pick = <T>(list: readonly T[], share: number): T | undefined => list[Math.floor(share * list.length)];
  const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
  const isBusy = () => underWay > 0 || form.querySelector("[data-state=loading]") !== null;
  const quiet = async () => {
    for (let calm = 0, waited = 0; calm < 3 && waited < 10_000; waited += 8) {
      await pause(8);
      calm = isBusy() ? 0 : calm + 1;
    }
  };
  const write = (field: HTMLInputElement, text: string) => {
    field.value = text;
    field.dispatchEvent(new InputEvent("input", { bubbles: true, inputType: "insertText", data: text.at(-1) ?? null }));
  };
  const places = [
    { lat: -35.184087, lon: -21.625292 },
    { lat: -35.1862, lon: -21.6281 },
    { lat: -34, lon: -20 },
  ];
  const act = async ({ did, which, what, text }: WalkEvent): Promise<string> => {
    const seen = named().filter((one) => one instanceof HTMLInputElement && one.type !== "hidden");
    if (did === "type") {
      const field = pick(seen, which);
      if (!field) return "nothing to type into";
      write(field, text);
      // left, or still in it
      if (what < 0.7) field.dispatchEvent(new Event("change", { bubbles: true }));
      return `type “${text}” into ${field.name}`;
    }
    if (did === "select") {
      const choice = pick([...form.querySelectorAll("select")], which);
      const option = choice && pick([...choice.options], what);
      if (!choice || !option) return "nothing to select";
      choice.value = option.value;
      for (const type of ["input", "change"]) choice.dispatchEvent(new Event(type, { bubbles: true }));
      return `select ${option.value} in ${choice.name}`;
    }
    if (did === "take") {
      const line = pick(
        [...form.querySelectorAll<HTMLElement>("[data-bibliotope=suggestions]:not([hidden]) > [role=option]")],
        which,
      );
      line?.click();
      return line ? `take ${line.textContent}` : "no line to take";
    }
    if (did === "point") {
      const at = pick(places, which)!;
      form.dispatchEvent(new CustomEvent("bibliotope-point", { detail: { ...at } }));
      return map ? `point at ${at.lat}, ${at.lon}` : "no map";
    }
    if (did === "marker") {
      const list = map?.element.querySelector<HTMLElement>('[role=listbox][aria-label="Markers"]');
      if (!list?.children.length) return "no marker";
      list.focus();
      for (const key of ["ArrowDown", "Enter"])
        list.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
      return "press the marker";
    }
    if (did === "press" || did === "offered") {
      const all = [...form.querySelectorAll<HTMLButtonElement>("button:not([disabled])")];
      const is =
        did === "press"
          ? (one: Element) => one.matches("[name]")
          : (one: Element) => one.closest("[data-bibliotope=form] [data-address]");
      const button = pick(
        all.filter((one) => is(one) && one.type === "button" && one.offsetParent !== null),
        which,
      );
      button?.click();
      return button ? `press “${button.textContent}”` : "no button";
    }
    if (did === "script") {
      const field = pick(seen, which);
      if (field) binding.set(field.name, text);
      return field ? `a script sets ${field.name} to “${text}”` : "nothing to set";
    }
    form.reset();
    return "reset";
  };
  const snapshots: Snapshot[] = [];
  const look = (did: string) => {
    const outputs = [...form.querySelectorAll("output")].map(({ name, value }) => [name, value]);
    snapshots.push({
      did,
      values: Object.fromEntries([...named().map(({ name, value }) => [name, value]), ...outputs]),
      asked: asked.splice(0),
      answered: answered.splice(0),
    });
  };
  try {
    for (const event of events) {
      const did = await act(event);
      if (!event.isHasty) await quiet();
      look(event.isHasty ? `${did}, and at once` : did);
    }
    await quiet();
    look("all was answered");
  } finally {
    made.destroy();
    window.fetch = plain;
  }
  return snapshots;
}
