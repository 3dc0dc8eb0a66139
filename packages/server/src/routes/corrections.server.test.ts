import { project } from "@bibliotope/core/geo";
import type { MapFeature } from "@bibliotope/core/map";
import type { CorrectionSummary } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { type Answer, ask, json, signedIn } from "../../testing/shared.ts";

let me: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  me = await signedIn();
});

async function send(method: string, path: string, body: unknown): Promise<Answer> {
  const response = await me.send(method, path, body);
  return {
    status: response.status,
    headers: response.headers,
    body: response.status === 204 ? null : await response.json(),
  };
}
const list = async () =>
  ((await (await me.get("/api/corrections")).json()) as { corrections: CorrectionSummary[] }).corrections;
const first = async (q: string) => (await json(`/v1/forward?q=${encodeURIComponent(q)}`)).body.features[0];
const undo = (id: number) => send("PUT", `/api/corrections/${id}`, { state: "undone" });

// addresses that no other test asks for
const STREET = "Octavo Steps, Tidewell";

describe("a correction", () => {
  it("moves a record at once, says who did it, and can be taken back and applied again", async () => {
    const before = await first(`3 ${STREET}`);
    const at = { lat: before.properties.at.lat + 0.0002, lon: before.properties.at.lon };
    const { status, body } = await send("POST", "/api/corrections", {
      ref: before.id,
      change: { at },
      note: "The door",
    });
    expect(status, JSON.stringify(body)).toBe(201);
    const moved = await first(`3 ${STREET}`);
    expect(moved.id).toBe(before.id);
    expect(moved.properties.at.lat).toBeCloseTo(at.lat, 6);
    const [one] = (await list()).filter(({ id }) => id === body.id);
    expect(one).toMatchObject({
      state: "applied",
      line: before.properties.line,
      note: "The door",
      isReport: false,
      isHeld: true,
    });
    expect(one.by).toBeTruthy();
    await undo(body.id);
    expect((await first(`3 ${STREET}`)).properties.at).toEqual(before.properties.at);
    await send("PUT", `/api/corrections/${body.id}`, { state: "applied" });
    expect((await first(`3 ${STREET}`)).properties.at.lat).toBeCloseTo(at.lat, 6);
    await undo(body.id);
    expect((await undo(body.id)).status).toBe(409);
  });

  it("is on the map at once, and off it when it is taken back", async () => {
    const street = await first("Octavo Steps, Tidewell");
    const { x, y } = project(street.properties.at);
    const path = `/v1/tiles/features/15/${Math.floor(x * 2 ** 15)}/${Math.floor(y * 2 ** 15)}`;
    const seen = async () => {
      const { headers, body } = await json(path);
      const named = (body.features as MapFeature[]).filter(({ id }) => id === street.id);
      const words = named.flatMap(({ properties }) => properties.names ?? []).map(({ name }) => name);
      return {
        words,
        tag: headers.get("etag")!,
        points: named.filter(({ properties }) => properties.layer === "point"),
      };
    };
    const before = await seen();
    expect(before.words).toContain("Octavo Steps");
    const again = { headers: { "If-None-Match": before.tag, "Cache-Control": "" } };
    expect((await ask(path, again)).status).toBe(304);
    const renamed = await send("POST", "/api/corrections", { ref: street.id, change: { name: "Quarto Steps" } });
    const house = { adds: true, house: "872", at: street.properties.at };
    const added = await send("POST", "/api/corrections", { ref: street.id, change: house });
    expect((await ask(path, again)).status).toBe(200);
    const after = await seen();
    expect([...new Set(after.words)]).toEqual(["Quarto Steps"]);
    expect(after.points).toHaveLength(before.points.length + 1);
    await undo(renamed.body.id);
    await undo(added.body.id);
    expect(await seen()).toEqual(before);
  });

  it("adds a number to a street, and takes one out", async () => {
    const street = await first(STREET);
    const { at } = street.properties;
    const made = await send("POST", "/api/corrections", { ref: street.id, change: { adds: true, house: "871b", at } });
    expect(made.status, JSON.stringify(made.body)).toBe(201);
    const added = await first(`871b ${STREET}`);
    expect(added.properties).toMatchObject({ kind: "address", exactness: "surveyed" });
    expect((await json(`/v1/records/${added.id}`)).status).toBe(200);
    const link = (await json(`/v1/links?of=${added.id}`)).body.url.replace(/^https?:\/\/[^/]+/, "");
    const follow = () => ask(link, { key: null, headers: { accept: "text/html" } });
    expect((await follow()).status).toBe(200);
    const out = await send("POST", "/api/corrections", { ref: added.id, change: { isRemoved: true } });
    expect((await json(`/v1/records/${added.id}`)).status).toBe(410);
    // a link to what is gone says so, and so does its picture
    const gone = await follow();
    expect([gone.status, (await ask(`${link}/map.png`, { key: null })).status]).toEqual([410, 410]);
    expect(await gone.text()).toContain("This place is no longer in the data. Ask the sender of the link.");
    await undo(out.body.id);
    await undo(made.body.id);
  });

  it.each([
    [{}, "nothing would change"],
    [{ house: "twelve" }, "is not a house number"],
    [{ name: "x" }, "its street has the name"],
    [{ adds: true, house: "3", at: { lat: 1, lon: 1 } }, "only be added to streets and blocks"],
    [{ at: { lat: 91, lon: 0 } }, "change"],
  ])("%j is refused with words", async (change, words) => {
    const { id } = await first(`3 ${STREET}`);
    const { status, body } = await send("POST", "/api/corrections", { ref: id, change });
    expect(status).toBe(400);
    expect(body.detail).toContain(words);
  });

  it("of an area, or of a record that is not there, is refused", async () => {
    const town = (await json("/v1/forward?q=Tidewell&kinds=town")).body.features[0];
    expect((await send("POST", "/api/corrections", { ref: town.id, change: { name: "x" } })).status).toBe(400);
    expect((await send("POST", "/api/corrections", { ref: "qr-000000", change: { name: "x" } })).status).toBe(404);
  });
});

describe("a report", () => {
  const report = (body: object) =>
    json("/v1/reports", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    });

  it("changes nothing until somebody takes it", async () => {
    const before = await first(`5 ${STREET}`);
    const at = { lat: before.properties.at.lat, lon: before.properties.at.lon + 0.0003 };
    const text = `The door is on the other side ${Date.now()} <b>`;
    expect(await report({ ref: before.id, at, text })).toMatchObject({ status: 202, body: { received: true } });
    expect((await first(`5 ${STREET}`)).properties.at).toEqual(before.properties.at);
    const one = (await list()).find(({ note }) => note === text)!;
    expect(one).toMatchObject({ state: "proposed", isReport: true, change: { at }, ref: before.id });
    expect((await send("PUT", `/api/corrections/${one.id}`, { state: "applied" })).status).toBe(204);
    expect((await first(`5 ${STREET}`)).properties.at.lon).toBeCloseTo(at.lon, 6);
    await undo(one.id);
  });

  it("of a missing address can be refused, and cannot be applied by itself", async () => {
    const text = `There is no 99 here ${Date.now()}`;
    await report({ at: { lat: -35.18, lon: -21.62 }, text });
    const one = (await list()).find(({ note }) => note === text)!;
    expect((await send("PUT", `/api/corrections/${one.id}`, { state: "applied" })).status).toBe(409);
    expect((await send("PUT", `/api/corrections/${one.id}`, { state: "refused" })).status).toBe(204);
  });

  it("is refused without words, or for a record that is not there", async () => {
    expect((await report({ text: "" })).status).toBe(400);
    expect((await report({ ref: "qr-000000", text: "x" })).status).toBe(404);
    expect((await json("/v1/reports")).status).toBe(405);
  });
});
