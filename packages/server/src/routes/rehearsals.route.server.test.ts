import { formDraft, keptRehearsals, keptTrace, keptTraceList } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { json, signedIn } from "../../testing/shared.ts";

const FORM = { title: "Rehearsed", fields: [{ name: "town", kind: "text", label: "Town", binding: "{town}" }] };
const KEPT = {
  name: "A reader in Tidewell",
  situation: "normal",
  steps: [
    { do: "type", field: "town", text: "Tide" },
    { do: "point", at: { lat: -35.2, lon: -21.6 } },
  ],
  expected: { town: "Tidewell" },
};

let browser: Awaited<ReturnType<typeof signedIn>>;
let base: string;

beforeAll(async () => {
  browser = await signedIn();
  const { ref } = formDraft.parse(await (await browser.send("POST", "/api/forms", { definition: FORM })).json());
  base = `/api/forms/${ref}`;
});

describe("rehearsals", () => {
  const list = async () => keptRehearsals.parse(await (await browser.get(`${base}/rehearsals`)).json()).rehearsals;

  it("are kept with their form, by name, and go when they are dropped", async () => {
    expect(await list()).toEqual([]);
    expect((await browser.send("POST", `${base}/rehearsals`, KEPT)).status).toBe(201);
    expect(await list()).toMatchObject([KEPT]);
    const again = { ...KEPT, situation: "slow", expected: { town: "Samphwick" } };
    await browser.send("POST", `${base}/rehearsals`, again);
    const [{ id, ...known }, ...others] = await list();
    expect(known).toMatchObject(again);
    expect(others).toEqual([]);
    expect((await browser.send("DELETE", `/api/forms/become-a-reader/rehearsals/${id}`, {})).status).toBe(404);
    expect((await browser.send("DELETE", `${base}/rehearsals/${id}`, {})).status).toBe(204);
    expect((await browser.send("DELETE", `${base}/rehearsals/${id}`, {})).status).toBe(404);
    expect(await list()).toEqual([]);
  });

  it.each([
    ["without a name", { ...KEPT, name: " " }],
    ["with no steps", { ...KEPT, steps: [] }],
    ["with a step that nobody knows", { ...KEPT, steps: [{ do: "jump", field: "town" }] }],
    ["in a situation that nobody knows", { ...KEPT, situation: "rain" }],
    ["with something to spare", { ...KEPT, script: "alert(1)" }],
  ])("are refused %s, and nothing is lost", async (_, wrong) => {
    expect((await browser.send("POST", `${base}/rehearsals`, wrong)).status).toBe(400);
    expect(await list()).toEqual([]);
  });

  it("need a form and a session", async () => {
    expect((await browser.send("POST", "/api/forms/none/rehearsals", KEPT)).status).toBe(404);
    expect((await browser.send("DELETE", `${base}/rehearsals/x`, {})).status).toBe(404);
    expect((await json(`${base}/rehearsals`, { key: null })).status).toBe(401);
  });
});

describe("what happened in the last runs of a form", () => {
  const list = async () => keptTraceList.parse(await (await browser.get(`${base}/traces`)).json()).traces;
  const keep = (about: string) =>
    browser.send("POST", `${base}/traces`, { about, events: [{ row: "keys", at: 1.5, text: about, key: "x" }] });

  it("is kept, the latest first, twenty at most", async () => {
    for (let run = 1; run <= 22; run++) expect((await keep(`run ${run}`)).status).toBe(201);
    const kept = await list();
    expect(kept).toHaveLength(20);
    expect(kept[0]).toMatchObject({ about: "run 22", count: 1 });
    const read = keptTrace.parse(await (await browser.get(`${base}/traces/${kept[0].id}`)).json());
    expect(read.events).toEqual([{ row: "keys", at: 1.5, text: "run 22", key: "x" }]);
    expect((await browser.get(`/api/forms/become-a-reader/traces/${kept[0].id}`)).status).toBe(404);
  });

  it("is refused when it is empty or of no form", async () => {
    expect((await browser.send("POST", `${base}/traces`, { about: "", events: [] })).status).toBe(400);
    const events = [{ row: "keys", at: 1 }];
    expect((await browser.send("POST", "/api/forms/none/traces", { about: "", events })).status).toBe(404);
    expect((await browser.get(`${base}/traces/0`)).status).toBe(404);
  });
});
