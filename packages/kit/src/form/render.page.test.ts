import type { FormDefinition } from "@bibliotope/core/form";
import { afterEach, expect, it } from "vitest";
import { FormDriver, StandIn } from "../testing/index.ts";
import { type RenderedForm, renderForm } from "./index.ts";

const FIELDS: FormDefinition["fields"] = [
  { name: "find", kind: "search", label: "Find your address" },
  { name: "town", kind: "text", label: "Town", binding: "{town}" },
  { name: "place", kind: "map", label: "On the map" },
];
const COUNTRIES = [
  { code: "QR", name: "Lorramere", bbox: [-22, -36, -21, -35] as [number, number, number, number] },
  { code: "QV", name: "Ovarde", bbox: [30, 10, 30.5, 10.5] as [number, number, number, number] },
];

let rendered: RenderedForm | undefined;
afterEach(() => {
  rendered?.destroy();
  document.body.replaceChildren();
});

it.each([
  { what: "the largest country", only: undefined, lat: -35.5, lon: -21.5 },
  { what: "the country that the address may be in", only: ["QV"], lat: 10.25, lon: 30.25 },
])("a form's map starts in $what, without asking the service", async ({ only, lat, lon }) => {
  const stands = new StandIn({ records: [] });
  const definition = {
    title: "A form",
    fields: FIELDS,
    ...(only ? { addresses: [{ name: "", countries: only }] } : {}),
  };
  rendered = renderForm(document.body, definition, { client: stands.client(), countries: COUNTRIES });
  await expect.poll(() => Math.round(4 * rendered!.map!.view.at.lat) / 4, { timeout: 20_000 }).toBe(lat);
  expect(rendered.map!.view.at.lon).toBeCloseTo(lon, 1);
  expect(rendered.map!.view.zoom).toBeGreaterThan(6);
  expect(stands.requests.filter(({ call }) => call === "countries")).toEqual([]);
});

it("the picture of a place is by day or by night as its page is, also when that changes", async () => {
  const night = new EventTarget() as MediaQueryList & { matches: boolean };
  night.matches = true;
  const matches = window.matchMedia;
  window.matchMedia = (query) => (query.includes("dark") ? night : matches(query));
  try {
    const stands = new StandIn({
      records: [{ ref: "qr-1", line: "12 Harbour Row, Tidewell", at: { lat: -35.2, lon: -21.6 }, parts: {} }],
    });
    const definition: FormDefinition = {
      title: "A form",
      fields: [...FIELDS, { name: "picture", kind: "still", label: "Picture" }],
    };
    // a picture that comes: one that does not is replaced by words
    const client = stands.client();
    client.stillUrl = ({ at, night }) =>
      `data:image/svg+xml,${encodeURIComponent('<svg xmlns="http://www.w3.org/2000/svg"/>')}#at=${at}&night=${night}`;
    const driver = new FormDriver({ patience: 60_000 });
    const { isByPerson, trace } = driver;
    rendered = renderForm(document.body, definition, {
      client,
      countries: COUNTRIES,
      isByPerson,
      trace,
    });
    driver.attach(rendered.form);
    await driver.type("find", "12 harb");
    await driver.takeSuggestion("find", "12 Harbour Row, Tidewell");
    const src = () => document.querySelector<HTMLImageElement>(".bt-still img")?.src ?? "";
    await expect.poll(src, { timeout: 20_000 }).toContain("#at=-35.2,-21.6&night=1");
    night.matches = false;
    night.dispatchEvent(new Event("change"));
    expect(src()).toContain("#at=-35.2,-21.6&night=undefined");
  } finally {
    window.matchMedia = matches;
  }
}, 90_000);
