import { setTimeout as wait } from "node:timers/promises";
import type { BatchDetail, DataAnswer, FileStart, JobSummary } from "@bibliotope/wire";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../testing/own-server.ts";
import type { Ready } from "../testing/shared.ts";
import { sized } from "../testing/sizes.ts";

/** How often the server is killed, in rows of how many, and after how many milliseconds at most. */
const KILLS = sized(2, 20);
const ROWS = sized(3000, 20_000);
const LONGEST = sized(2000, 3500);
/** Who asks at once while something is published. */
const AT_ONCE = sized(1, 8);

const street = (i: number) => `Net Lane ${String.fromCharCode(65 + (i % 26))}${Math.floor(i / 260)}`;
const place = (i: number) => [-35.18 - (i % 500) * 0.0001, -21.62 - Math.floor(i / 500) * 0.0001];
const DATA = [
  "street,house,town,country,lat,lon",
  ...Array.from({ length: ROWS }, (_, i) =>
    [street(i), Math.floor(i / 26) + 1, "Netherwick", "QR", ...place(i)].join(","),
  ),
  "",
].join("\n");
const LINES = `text\n${Array.from({ length: ROWS }, (_, i) => `${(i % 90) + 1} Harbour Row Tidewell`).join("\n")}\n`;

/** One database and one server with data of a developer's own. */
describe("data that is imported", { timeout: 1_800_000 }, () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready;
  let headers: Record<string, string>;

  async function start(): Promise<void> {
    server.start();
    ready = await server.ready();
    const signedIn = await fetch(ready.signIn, { redirect: "manual" });
    const cookie = signedIn.headers.get("set-cookie")!.split(";")[0];
    const session = await (await fetch(`${ready.url}/api/session`, { headers: { cookie } })).json();
    headers = { cookie, "x-csrf-token": (session as { csrf: string }).csrf, "content-type": "application/json" };
  }
  const get = async <T>(path: string): Promise<T> =>
    (await fetch(`${ready.url}/api${path}`, { headers })).json() as Promise<T>;
  const send = async <T>(path: string, body: unknown): Promise<T> =>
    (
      await fetch(`${ready.url}/api${path}`, { method: "POST", headers, body: JSON.stringify(body) })
    ).json() as Promise<T>;
  async function handIn(content: string): Promise<{ file: string } & FileStart> {
    const type = { ...headers, "content-type": "application/octet-stream" };
    const answer = await fetch(`${ready.url}/api/files?name=own.csv`, { method: "POST", headers: type, body: content });
    const { id } = (await answer.json()) as { id: string };
    return { file: id, ...(await send<FileStart>(`/files/${id}/look`, {})) };
  }
  async function ended(id: number): Promise<JobSummary> {
    for (;;) {
      const job = (await get<{ jobs: JobSummary[] }>("/jobs")).jobs.find((one) => one.id === id);
      if (job?.endedAt) return job;
      await wait(100);
    }
  }
  const load = async (name: string) => {
    const { file, format, heads, reading } = await handIn(DATA);
    const dataSet = { name, licence: "CC0-1.0", source: "" };
    return (await send<{ job: number }>("/loads", { file, format, heads, reading, dataSet, day: "2026-11-20" })).job;
  };
  const versionsOf = async (name: string) =>
    (await get<DataAnswer>("/data")).dataSets.find((set) => set.name === name)?.versions ?? [];
  const live = async () => (await get<DataAnswer>("/data")).publications[0].versions;
  const lookUp = (q: string) =>
    fetch(`${ready.url}/v1/forward?q=${encodeURIComponent(q)}`, {
      headers: { authorization: `Bearer ${ready.keys.srv}` },
    });

  beforeAll(async () => {
    ownDb = await ownDatabase("own_data", "seeded");
    server = new OwnServer(ownDb.url, "seeded");
    await start();
  }, 240_000);
  afterAll(async () => {
    await server.end("SIGTERM");
    await ownDb.drop();
  });

  it("is published and gone back from under full load, and no lookup fails", { tags: ["long"] }, async () => {
    await ended(await load("Own"));
    const [version] = await versionsOf("Own");
    const islands = await live();
    const failures: string[] = [];
    let [requestCount, drawn] = [0, 0];
    let isDone = false;
    const lookups = Array.from({ length: AT_ONCE }, async () => {
      while (!isDone) {
        const answer = await lookUp("12 Harbour Row, Tidewell");
        const { features } = (await answer.json()) as { features?: { properties: { line: string } }[] };
        if (!features?.[0]?.properties.line.startsWith("12 Harbour Row, Tidewell")) failures.push(`${answer.status}`);
        requestCount++;
      }
    });
    // pieces of the map that nobody requested before, so that each has to be made
    const drawing = Array.from({ length: AT_ONCE }, async (_, i) => {
      for (let tile = 0; !isDone; tile++) {
        const [x, y] = [14_400 + (tile % 200), 19_700 + AT_ONCE * Math.floor(tile / 200) + i];
        const { ok, status } = await fetch(`${ready.url}/v1/tiles/features/15/${x}/${y}`, {
          headers: { authorization: `Bearer ${ready.keys.srv}` },
        });
        if (!ok) failures.push(`a tile: ${status}`);
        drawn++;
      }
    });
    const publish = async (versions: number[]) =>
      expect((await ended((await send<{ job: number }>("/publications", { versions, why: "" })).job)).state).toBe(
        "done",
      );
    try {
      await publish([version.id, ...islands]);
      const { features } = await (await lookUp("1 Net Lane A0, Netherwick")).json();
      expect(features[0].properties).toMatchObject({ kind: "address", exactness: "surveyed" });
      await publish(islands);
      expect((await (await lookUp("1 Net Lane A0, Netherwick")).json()).outcome).not.toBe("matched");
      await publish([version.id, ...islands]);
    } finally {
      isDone = true;
    }
    await Promise.all([...lookups, ...drawing]);
    expect(failures).toEqual([]);
    expect(requestCount).toBeGreaterThan(sized(100, 500));
    expect(drawn).toBeGreaterThan(50);
    console.info(`  ${requestCount} lookups and ${drawn} pieces of the map while three publications were made`);
  });

  it("names its source in answers, and keeps its refs when it is loaded anew", { tags: ["long"] }, async () => {
    const refOf = async () => {
      const { features, source } = await (await lookUp("1 Net Lane A0, Netherwick")).json();
      expect(source.map(({ name }: { name: string }) => name)).toContain("Own");
      return features[0].id as string;
    };
    const before = await refOf();
    await ended(await load("Own"));
    const [after, , ...none] = await versionsOf("Own");
    expect(none).toEqual([]);
    const islands = (await live()).slice(1);
    await ended((await send<{ job: number }>("/publications", { versions: [after.id, ...islands], why: "" })).job);
    expect(await refOf()).toBe(before);
  });

  it("carries the facts of its places: told by name, and out and in again as they are", {
    tags: ["long"],
  }, async () => {
    const rows = [
      "name,street,house,town,country,lat,lon,phone,opening hours,wheelchair,Rating,Built",
      "Reed Room,Mill Way,3,Netherwick,QR,-35.181,-21.621,+990 1 55,Mo-Fr 9-17; Sa 10-12,yes,4.5,1911-05-04",
      '"<b>Ink & Quill</b>",Mill Way,3,Netherwick,QR,-35.181,-21.621,,ask inside,,3,',
      "",
    ].join("\n");
    const importFile = async (content: string, name: string) => {
      const { file, format, heads, reading } = await handIn(content);
      const dataSet = { name, licence: "CC0-1.0", source: "" };
      const body = { file, format, heads, reading, dataSet, day: "2026-11-20" };
      const begun = await send<{ job: number }>("/loads", body);
      expect(begun).toEqual({ job: expect.any(Number) });
      const job = await ended(begun.job);
      expect(job.state, job.words).toBe("done");
      return (await versionsOf(name))[0].id;
    };
    const version = await importFile(rows, "Rooms");
    const { job } = await send<{ job: number }>("/publications", {
      versions: [version, ...(await live())],
      why: "rooms",
    });
    expect((await ended(job)).state).toBe("done");
    const found = async (q: string) => {
      const { features } = (await (await lookUp(q)).json()) as { features: { id: string; properties: object }[] };
      return features[0];
    };
    const reed = await found("Reed Room, Netherwick");
    expect(reed.properties).toMatchObject({
      kind: "place",
      line: "Reed Room, 3 Mill Way, Netherwick",
      facts: {
        phone: "+990 1 55",
        stepFree: true,
        openingHours: [{ opens: "09:00" }, { dayOfWeek: ["Saturday"], closes: "12:00" }],
        own: {
          rating: { label: "Rating", kind: "number", value: 4.5 },
          built: { label: "Built", kind: "date", value: "1911-05-04" },
        },
      },
    });
    // what is missing is nowhere, and markup is text
    const ink = await found("Ink & Quill, Netherwick");
    expect(ink.properties).toMatchObject({
      line: "<b>Ink & Quill</b>, 3 Mill Way, Netherwick",
      facts: { hoursText: "ask inside", own: { rating: { value: 3 } } },
    });
    expect(JSON.stringify(ink.properties)).not.toMatch(/phone|stepFree|built|null/);

    const out = await fetch(`${ready.url}/api/versions/${version}/out.csv`, { headers });
    const again = await importFile(await out.text(), "Rooms again");
    const facts = async (id: number) =>
      (await ownDb.database("places").where({ version_id: id }).orderBy("names")).map((row) => row.facts);
    expect(await facts(again)).toEqual(await facts(version));
  });

  it("is whole after every kill -9: nothing half there, nothing lost, nothing double", { tags: ["long"] }, async () => {
    const first = Math.floor(Math.random() * 3);
    for (let kill = 0; kill < KILLS; kill++) {
      const kind = ["load", "batch", "publish"][(first + kill) % 3];
      const name = `Killed ${kill}`;
      const at = Math.round(Math.random() * LONGEST);
      const before = await live();
      let job: number;
      let batch = 0;
      if (kind === "load") job = await load(name);
      else if (kind === "batch") {
        const { file, format, heads, reading } = await handIn(LINES);
        const made = await send<{ batch: number; job: number }>("/batches", {
          file,
          name,
          format,
          heads,
          reading,
          ask: "forward",
        });
        [job, batch] = [made.job, made.batch];
      } else {
        await ended(await load(name));
        const [version] = await versionsOf(name);
        job = (await send<{ job: number }>("/publications", { versions: [version.id, ...before], why: name })).job;
      }
      await wait(at);
      await server.end("SIGKILL");
      await start();
      const words = `${kind} killed after ${at} ms`;
      expect((await lookUp("12 Harbour Row, Tidewell")).status, words).toBe(200);
      const done = await ended(job);
      expect(done.state, `${words}: ${done.words}`).toBe("done");
      if (kind === "batch") {
        const { counts, rows } = await get<BatchDetail>(`/batches/${batch}`);
        expect(rows, words).toBe(ROWS);
        expect(counts.clear + counts.seen + counts.doubtful + counts.none, words).toBe(ROWS);
      } else {
        const versions = await versionsOf(name);
        expect(
          versions.map(({ counts }) => counts?.addresses),
          words,
        ).toEqual([ROWS]);
        const [{ count }] = await ownDb
          .database("addresses")
          .where({ version_id: versions[0].id })
          .count({ count: "*" });
        expect(Number(count), words).toBe(ROWS);
        if (kind === "publish") expect(await live(), words).toEqual([versions[0].id, ...before]);
      }
      const { rows } = await ownDb.database.raw(
        "select count(*)::int as count from addresses a where not exists (select from data_set_versions v where v.id = a.version_id)",
      );
      expect(rows[0].count, words).toBe(0);
    }
  });
});
