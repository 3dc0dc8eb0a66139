import { rmSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { gzipSync } from "node:zlib";
import type { BatchCandidates, BatchDetail, BatchRow, BatchState } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { type Answer, answerOf, ask, json, shared, sharedHome, signedIn } from "../../testing/shared.ts";
import { sized } from "../../testing/sizes.ts";

let me: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  me = await signedIn();
});

const get = async (path: string) => (await me.get(path)).json();
const send = async (method: string, path: string, body: unknown = {}): Promise<Answer> =>
  answerOf(await me.send(method, path, body));

/** Makes a batch as the workbench does. */
async function begin(content: string, more = {}): Promise<{ batch: number; job: number }> {
  const { body: file } = await answerOf(await me.handIn(content, "members.csv"));
  const { body: start, status } = await send("POST", `/api/files/${file.id}/look`);
  expect(status, JSON.stringify(start)).toBe(200);
  const { format, heads, reading } = start;
  const request = { file: file.id, name: "members.csv", format, heads, reading, ask: "forward", ...more };
  const made = await send("POST", "/api/batches", request);
  expect(made.status, JSON.stringify(made.body)).toBe(202);
  return made.body;
}

/** Makes one, and waits until it has run. */
const run = async (content: string, more = {}): Promise<BatchDetail> => ended((await begin(content, more)).batch);

async function ended(id: number): Promise<BatchDetail> {
  for (;;) {
    const batch: BatchDetail = await get(`/api/batches/${id}`);
    if (!["waiting", "running"].includes(batch.job.state)) return batch;
    await wait(100);
  }
}

const ROWS = [
  "=note,text",
  "first,12 Harbour Row Tidewell",
  '"second, quoted ""x""",harbor row 12 tidewell',
  "third,Harbour",
  "fourth,qqqq zzzz wwww",
  "fifth,",
  "",
].join("\n");

describe("a batch", () => {
  it("is refused in words when the content of its file is gone", async () => {
    const { body: file } = await answerOf(await me.handIn(ROWS, "gone.csv"));
    const { format, heads, reading } = (await send("POST", `/api/files/${file.id}/look`)).body;
    rmSync(join(sharedHome(), "files", file.id));
    const request = { file: file.id, name: "gone.csv", format, heads, reading, ask: "forward" };
    const { status, body } = await send("POST", "/api/batches", request);
    expect(status, JSON.stringify(body)).toBe(400);
    expect(body.detail).toMatch(/no longer exists/);
  });

  it("that is cancelled while its file is read keeps none of it, and another runs behind it", {
    tags: ["long"],
  }, async () => {
    const rows = Array.from({ length: 150_000 }, (_, i) => `${i},${i % 90} Harbour Row Tidewell`).join("\n");
    const { batch, job } = await begin(`id,text\n${rows}\n`);
    expect((await send("POST", `/api/jobs/${job}/cancelled`)).status).toBe(204);
    const over = await ended(batch);
    expect(over.job.state).toBe("cancelled");
    // all of the file is known, or nothing of it
    expect([null, undefined, 150_000]).toContain(over.rows);
    const known = await get(`/api/batches/${batch}/rows?show=all`);
    if (!over.rows) expect(known.rows).toEqual([]);
    expect((await run(ROWS)).job.state).toBe("done");
  });

  it("takes rows of nearly a megabyte, at full size more than are stored at once, each whole", {
    tags: ["long"],
  }, async () => {
    const heads = Array.from({ length: 299 }, (_, i) => `note ${i}`);
    const note = "x".repeat(3000);
    const requests = Array.from({ length: sized(4, 20) }, (_, i) => `${2 * i + 2} Harbour Row Tidewell`);
    const lines = requests.map((text) => [text, ...heads.map(() => note)].join());
    const batch = await run([["text", ...heads].join(), ...lines].join("\n"));
    expect(batch).toMatchObject({ rows: requests.length, job: { state: "done" } });
    const { rows } = (await get(`/api/batches/${batch.id}/rows?show=all`)) as { rows: BatchRow[] };
    expect(rows.map((row) => row.query)).toEqual(requests);
  });

  it("looks all rows up, and says the status of each", async () => {
    const batch = await run(ROWS);
    expect(batch).toMatchObject({ name: "members.csv", rows: 5, heads: ["=note", "text"], job: { state: "done" } });
    expect(batch.counts.clear).toBeGreaterThanOrEqual(1);
    expect(batch.counts.none).toBe(2);
    expect(Object.values(batch.counts).reduce((a, b) => a + b)).toBe(5);
    expect(batch.scores.reduce((sum, { count }) => sum + count, 0)).toBe(3);
    const { rows } = (await get(`/api/batches/${batch.id}/rows?show=clear`)) as { rows: BatchRow[] };
    expect(rows[0]).toMatchObject({ number: 2, query: "12 Harbour Row Tidewell", standing: "clear" });
    const { points } = await get(`/api/batches/${batch.id}/points`);
    expect(points).toHaveLength(3 * 4);
  });

  it("keeps every decision, and takes it back", { tags: ["long"] }, async () => {
    const { id } = await run(ROWS);
    const row = async (): Promise<BatchCandidates> => get(`/api/batches/${id}/rows/4`);
    const before = await row();
    expect(before.candidates.length).toBeGreaterThan(1);
    expect(before.candidates[0].gloss?.[0]).toMatchObject({ typed: "Harbour" });
    const [, second] = before.candidates;
    await send("POST", `/api/batches/${id}/rows/4/decision`, { how: "choose", place: 1, ref: second.ref });
    expect(await row()).toMatchObject({ standing: "seen", decision: "choose", answer: { ref: second.ref } });

    const wrong = await send("POST", `/api/batches/${id}/rows/5/decision`, {
      how: "choose",
      place: 1,
      ref: "qr-000000",
    });
    expect(wrong).toMatchObject({ status: 409, body: { detail: expect.stringContaining("Reload them") } });

    const corrected = "88 Harbour Row, Tidewell";
    const { candidates } = await get(`/api/batches/${id}/rows/5?text=${encodeURIComponent(corrected)}`);
    const decided = { how: "correct", place: 0, ref: candidates[0].ref, text: corrected };
    expect((await send("POST", `/api/batches/${id}/rows/5/decision`, decided)).status).toBe(204);
    expect((await get(`/api/batches/${id}`)).counts.seen).toBe(2);
    expect((await get(`/api/batches/${id}`)).lastHour).toBe(2);

    expect((await send("POST", `/api/batches/${id}/back`)).body).toEqual({ number: 5 });
    expect((await send("POST", `/api/batches/${id}/back`)).body).toEqual({ number: 4 });
    expect(await row()).toMatchObject({ standing: before.standing, decision: null, answer: before.answer });
    expect((await send("POST", `/api/batches/${id}/back`)).status).toBe(409);
  });

  it("goes out with its own columns first and unchanged, and nothing of ours that is a formula", {
    tags: ["long"],
  }, async () => {
    const { id } = await run(ROWS);
    await send("POST", `/api/batches/${id}/rows/4/decision`, { how: "leave" });
    const csv = await (await me.get(`/api/batches/${id}/out.csv`)).text();
    const [head, first, second, third] = csv.split("\r\n");
    expect(head).toMatch(
      /^=note,text,standing,decision,outcome,score,differences,distance,ref,kind,exactness,lat,lon,line,house/,
    );
    expect(first).toMatch(
      /^first,12 Harbour Row Tidewell,clear,,matched,[\d.]+,,,qr-\w{6},address,surveyed,-35\.\d+,-21\.\d+,"12 Harbour Row/,
    );
    expect(second).toMatch(/^"second, quoted ""x""",harbor row 12 tidewell,/);
    expect(third).toMatch(/^third,Harbour,seen,leave,ambiguous,[\d.]+,,,,,/);
    const accepted = await (await me.get(`/api/batches/${id}/out.csv?only=accepted`)).text();
    expect(accepted).not.toContain("third");
    const { features } = JSON.parse(await (await me.get(`/api/batches/${id}/out.geojson`)).text());
    expect(features).toHaveLength(5);
    expect(features[0]).toMatchObject({
      id: 2,
      properties: { text: "12 Harbour Row Tidewell", found: { standing: "clear" } },
    });
    expect(features[3].geometry).toBeNull();
    expect(await (await me.get(`/api/batches/${id}/out.gpx`)).text()).toContain("<name>12 Harbour Row");
  });

  it("can be paused, gone on with, and loses and doubles no row", { tags: ["long"] }, async () => {
    const many = `text\n${Array.from({ length: 12_000 }, (_, i) => `${i % 120} Harbour Row Tidewell`).join("\n")}\n`;
    const made = await begin(many);
    while (!Object.values((await get(`/api/batches/${made.batch}`)).counts).some(Boolean)) await wait(30);
    await send("POST", `/api/jobs/${made.job}/paused`);
    const paused = await ended(made.batch);
    expect(paused.job.state).toBe("paused");
    await send("POST", `/api/jobs/${made.job}/resumed`);
    const done = await ended(made.batch);
    expect(done.job.state).toBe("done");
    expect(Object.values(done.counts).reduce((a, b) => a + b)).toBe(12_000);
  });

  it("ends with a sentence when its file is damaged", { tags: ["long"] }, async () => {
    const batch = await run(`text\n${"12 Harbour Row\n".repeat(20_000)}"never closed\n`);
    expect(batch.job).toMatchObject({ state: "failed", words: expect.stringContaining("never closed") });
    expect(batch.rows).toBeNull();
  });
});

describe("a batch by the wire", () => {
  const hand = (body: string | Buffer, query = "", init: Parameters<typeof json>[1] = {}) =>
    json(`/v1/batches${query}`, {
      method: "POST",
      headers: { "content-type": "text/csv" },
      body: typeof body === "string" ? body : new Uint8Array(body),
      ...init,
    });
  async function done(id: string): Promise<BatchState> {
    for (;;) {
      const { body } = await json(`/v1/batches/${id}`);
      if (body.state === "done" || body.state === "failed") return body;
      await wait(100);
    }
  }

  it("comes in as a file, and goes out with what was found", { tags: ["long"] }, async () => {
    const { status, headers, body } = await hand(gzipSync(ROWS), "?name=x.csv");
    expect(status).toBe(202);
    expect(headers.get("location")).toBe(`/v1/batches/${body.id}`);
    expect(await done(body.id)).toMatchObject({ name: "x.csv", state: "done", rows: 5, done: 5 });
    const csv = await (await ask(`/v1/batches/${body.id}/rows`)).text();
    expect(csv).toContain("first,12 Harbour Row Tidewell,clear");
    const { features } = await (await ask(`/v1/batches/${body.id}/rows?format=geojson&only=accepted`)).json();
    expect(features.length).toBeGreaterThan(0);
  });

  it("comes in as JSON of any objects", { tags: ["long"] }, async () => {
    const asked = { address: { street: "Harbour Row", house: 12, town: "Tidewell" } };
    for (const [type, text] of [
      ["application/json", JSON.stringify([asked])],
      ["application/x-ndjson", `${JSON.stringify(asked)}\n${JSON.stringify(asked)}\n`],
    ]) {
      const { status, body } = await hand(text, "", { headers: { "content-type": type } });
      expect(status, type).toBe(202);
      const { counts, rows } = await done(body.id);
      expect(counts, type).toMatchObject({ clear: rows });
      expect(await (await ask(`/v1/batches/${body.id}/rows`)).text()).toContain("Harbour Row,12,Tidewell,clear");
    }
  });

  it("asks what is at positions where rows hold nothing else", { tags: ["long"] }, async () => {
    const { body } = await hand("lat,lon\n-35.1841,-21.6253\n10,10\n");
    expect(await done(body.id)).toMatchObject({ counts: { none: 1 } });
    expect(await (await ask(`/v1/batches/${body.id}/rows`)).text()).toContain("12 Harbour Row");
  });

  it("reads no prices as house numbers, and takes from the address what each column is", {
    tags: ["long"],
  }, async () => {
    const prices = "city,price\nTidewell,12\nTidewell,14\n";
    const towns = await hand(prices);
    expect(await done(towns.body.id)).toMatchObject({ counts: { clear: 2 } });
    expect(await (await ask(`/v1/batches/${towns.body.id}/rows`)).text()).not.toContain("address,surveyed");
    // the same file, if somebody means them as numbers: a town has none
    const numbers = await hand(prices, "?columns=town,house");
    expect((await done(numbers.body.id)).counts.clear).toBe(0);
    const parts = await hand("a,b,c\nTidewell,Harbour Row,12\n", "?columns=town,street,house");
    expect(await done(parts.body.id)).toMatchObject({ counts: { clear: 1 } });
    expect(await (await ask(`/v1/batches/${parts.body.id}/rows`)).text()).toContain("12 Harbour Row");
    for (const wrong of ["town,price", "town,,,"])
      expect(await hand(prices, `?columns=${wrong}`), wrong).toMatchObject({ status: 400 });
  });

  it("is refused in a sentence where nobody can want it read, and lookups go on meanwhile", async () => {
    const names = Array.from({ length: 30_000 }, (_, i) => `"property ${i}":"x"`).join();
    const feature = `{"type":"Feature","geometry":null,"properties":{${names}}}`;
    const file = gzipSync(`{"type":"FeatureCollection","features":[${new Array(12).fill(feature).join()}]}`);
    const refused = hand(file, "?name=wide.geojson");
    const lookups = await Promise.all(Array.from({ length: 20 }, () => ask("/v1/suggest?q=12+harb")));
    expect(lookups.map(({ status }) => status)).toEqual(lookups.map(() => 200));
    expect(await refused).toMatchObject({
      status: 400,
      body: { detail: "Feature 1 has 30,002 columns. The limit is 500: leave out those you do not need." },
    });
    const long = await hand(`text,notes\n12 Harbour Row,fine\n14 Harbour Row,${"x".repeat(70_000)}\n`);
    expect(long).toMatchObject({ status: 400, body: { detail: expect.stringContaining("Row 3, column 2 (“notes”)") } });
  });

  it("is for server keys, and only for the key by which it came", { tags: ["long"] }, async () => {
    const { keys } = shared();
    expect((await hand(ROWS, "", { key: keys.try })).status).toBe(403);
    const { body } = await hand(ROWS);
    await done(body.id);
    expect((await json(`/v1/batches/${body.id}`, { key: keys.try })).status).toBe(403);
    const { key } = (await send("POST", "/api/keys", { kind: "srv", name: "Another" })).body;
    expect((await json(`/v1/batches/${body.id}`, { key })).status).toBe(404);
    expect((await json("/v1/batches/999999999")).status).toBe(404);
  });

  it("says what is wrong with a file, a type or a word", async () => {
    expect((await hand("")).body.detail).toBe("The file is empty.");
    const pdf = await hand("x", "", { headers: { "content-type": "application/pdf" } });
    expect([pdf.status, pdf.body.title]).toEqual([415, "Wrong content type"]);
    expect((await hand(ROWS, "?ask=nonsense")).status).toBe(400);
    expect((await hand('{"type":"Point","coordinates":[1,2]}')).body.detail).toContain("FeatureCollection");
  });
});
