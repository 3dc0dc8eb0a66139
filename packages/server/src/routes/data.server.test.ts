import { setTimeout as wait } from "node:timers/promises";
import { parseRef, refOf } from "@bibliotope/core/place";
import {
  type CoverageAnswer,
  type DataAnswer,
  type FileStart,
  type JobSummary,
  liveCoverageAnswer,
  type VersionDifference,
} from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { type Answer, answerOf, json, shared, signedIn } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";

/** Data sets of one run of the tests have names of their own: the database may be used again. */
const own = (name: string) => `${name} ${process.pid}-${RUN}`;
const RUN = Date.now().toString(36);

let me: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  me = await signedIn();
});

const handIn = async (content: string | Buffer, name = "own.csv"): Promise<Answer> =>
  answerOf(await me.handIn(content, name));

const send = async (method: string, path: string, body: unknown = {}): Promise<Answer> =>
  answerOf(await me.send(method, path, body));

async function look(content: string | Buffer, request = {}): Promise<FileStart & { file: string }> {
  const { body: file } = await handIn(content);
  const { status, body } = await send("POST", `/api/files/${file.id}/look`, request);
  expect(status, JSON.stringify(body)).toBe(200);
  return { ...body, file: file.id };
}

async function ended(id: number): Promise<JobSummary> {
  for (;;) {
    const { jobs } = (await (await me.get("/api/jobs")).json()) as { jobs: JobSummary[] };
    const job = jobs.find((one) => one.id === id);
    if (job?.endedAt) return job;
    await wait(100);
  }
}

/** Loads a file, as the workbench does, and waits until it is a draft. */
async function importFile(
  content: string,
  dataSet: string,
  more: { country?: string; [name: string]: unknown } = {},
): Promise<JobSummary> {
  const { file, format, heads, reading } = await look(content);
  const { country = reading.country, ...rest } = more;
  const request = {
    file,
    format,
    heads,
    reading: { ...reading, country },
    dataSet: { name: own(dataSet), licence: "CC0-1.0", source: "Tests" },
  };
  const { status, body } = await send("POST", "/api/loads", { ...request, day: "2026-11-20", ...rest });
  expect(status, JSON.stringify(body)).toBe(202);
  return ended(body.job);
}

async function versionsOf(dataSet: string) {
  const { dataSets } = (await (await me.get("/api/data")).json()) as DataAnswer;
  return dataSets.find(({ name }) => name === own(dataSet))!.versions;
}

const HEAD = "street,house,postcode,town,country,lat,lon\n";
const ROWS = Array.from(
  { length: 20 },
  (_, i) => `Net Lane,${i + 1},HT4 29,Tidewell,QR,${-35.18 - i * 0.0002},-21.62\n`,
);

describe("a file that is imported", () => {
  it("is looked at: what its columns are taken for, why, and how its rows would read", async () => {
    const { format, columns, rows, reading } = await look(HEAD.replace("\n", `,note ${RUN}\n`) + ROWS.join(""));
    expect(format).toEqual({ kind: "csv", encoding: "utf-8", delimiter: ",", quote: '"', hasHead: true });
    expect(columns[0]).toEqual({ use: { meaning: "street" }, why: "named “street”" });
    expect(rows[11]).toMatchObject({ number: 13, line: "12 Net Lane, Tidewell, HT4 29", doubts: [] });
    expect(reading.country).toBeUndefined();
  });

  it("is read as the person sets it", async () => {
    const wanted = await look("Net Lane;12\nNet Lane;13\n", {
      format: { delimiter: ";", hasHead: true },
      reading: { columns: [{ meaning: "street" }, { meaning: "house" }], country: "QV" },
    });
    expect(wanted.heads).toEqual(["Net Lane", "12"]);
    expect(wanted.rows).toMatchObject([{ number: 2, refused: "no position" }]);
  });

  it("is refused with a sentence when it is no table, and leaves nothing", async () => {
    expect((await handIn("")).body.detail).toBe("The file is empty.");
    const { body: file } = await handIn(Buffer.from([0x50, 0x4b, 0, 0, 0, 0, 0, 0, 1, 0]));
    expect(await send("POST", `/api/files/${file.id}/look`)).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining("NUL bytes") },
    });
    expect((await send("POST", "/api/files/..%2f..%2fetc%2fpasswd/look")).status).toBe(404);
  });

  it("is for people who may edit", async () => {
    const response = await fetch(`${shared().url}/api/files?name=x`, { method: "POST", body: "a,b\n1,2\n" });
    expect(response.status).toBe(401);
  });
});

describe("a load", () => {
  it("takes a plain list of towns as towns, and refuses one that lies in another country", {
    tags: ["long"],
  }, async () => {
    const list = (lat: string) =>
      `name,population,lat,lon\n${Array.from({ length: 30 }, (_, i) => `Oak${"abcdefghij"[i % 10]}haven,${1000 * (i + 1)},${lat}.${10 + i},9.${10 + i}\n`).join("")}`;
    const towns = await importFile(list("50"), "Towns", { country: "DE" });
    expect(towns).toMatchObject({ state: "done", words: "31 areas in a draft" });
    const [{ counts }] = await versionsOf("Towns");
    expect(counts).toMatchObject({ addresses: 0, areas: 31 });
    const elsewhere = await importFile(list("20"), "Towns elsewhere", { country: "DE" });
    expect(elsewhere).toMatchObject({
      state: "failed",
      words: expect.stringContaining("30 of 30 rows are outside their country, so nothing was imported"),
    });
  });

  it("makes a draft, counts and lists what is refused or odd, and changes nothing that is live", async () => {
    const job = await importFile(
      [
        HEAD,
        ...ROWS,
        "Net Lane,3,HT4 29,Tidewell,QR,-35.19,-21.62\n",
        "Net Lane,30,HT4 29,Tidewell,QR,0,0\n",
        "Net Lane,31,HT4 29,Tidewell,QR,,\n",
        "NET LANE,32,9999,Tidewell,QR,-35.18,-21.62\n",
        "Net Lane,33,HT4 29,Tidewell,QR,48.1,11.5\n",
        "too,few\n",
        HEAD,
        '<script>alert(1)</script>,1,HT4 29,Tidewell,QR,-35.18,-21.62\n"=1+1",1,HT4 29,Tidewell,QR,-35.18,-21.62\n',
      ].join(""),
      "Checked rows",
    );
    expect(job).toMatchObject({ state: "done", words: "24 addresses in a draft" });
    const [version] = await versionsOf("Checked rows");
    expect(version).toMatchObject({ number: 1, isLive: false, fileName: "own.csv", counts: { rows: 29, streets: 3 } });
    expect(version.checks).toEqual({
      double: 1,
      "at-zero": 1,
      "no-position": 1,
      "postcode-shape": 1,
      "two-spellings": 1,
      "outside-country": 1,
      "far-from-street": 1,
      width: 1,
      "head-again": 1,
    });
    const { rows } = await (await me.get(`/api/versions/${version.id}/rows?kind=double`)).json();
    expect(rows).toMatchObject([{ number: 22, words: "the same as row 4" }]);
    const refused = await (await me.get(`/api/versions/${version.id}/refused.csv`)).text();
    expect(refused.split("\r\n")).toContain(
      '23,at-zero,"at 0°, 0°: a position that was never set",Net Lane,30,HT4 29,Tidewell,QR,0,0',
    );
    expect(refused.trim().split("\r\n")).toHaveLength(6);
  });

  it("ends with a sentence when nothing can be taken, and leaves no version", { tags: ["long"] }, async () => {
    const job = await importFile("street,house\nNet Lane,1\nNet Lane,2\n", "Nothing in it");
    expect(job).toMatchObject({
      state: "failed",
      words: "None of 2 rows can be imported; 2 of them: no position. Check what the columns are read as.",
    });
    const { dataSets } = (await (await me.get("/api/data")).json()) as DataAnswer;
    expect(dataSets.map(({ name }) => name)).not.toContain(own("Nothing in it"));
  });

  it("of a damaged file changes nothing", { tags: ["long"] }, async () => {
    const job = await importFile(`${HEAD}${ROWS.join("").repeat(2000)}"never closed,1\n`, "Damaged");
    expect(job.state).toBe("failed");
    expect(job.words).toContain("A quote opened in row 40,002 is never closed");
  });

  it("keeps refs over versions, and tells what is new, gone, moved and renamed", { tags: ["long"] }, async () => {
    await importFile(HEAD + ROWS.join(""), "Versions");
    const second = ROWS.slice(2).concat("Net Lane,40,HT4 29,Tidewell,QR,-35.185,-21.62\n");
    second[0] = "Net Lane,3,HT4 29,Tidewell,QR,-35.1809,-21.6205\n";
    await importFile(HEAD + second.join(""), "Versions");
    const [after, before] = await versionsOf("Versions");
    const answer = await me.get(`/api/versions/${after.id}/difference?from=${before.id}`);
    const { counts, spots } = (await answer.json()) as VersionDifference;
    expect(counts.addresses).toEqual({ new: 1, gone: 2, moved: 1, renamed: 0, same: 17 });
    expect(counts.streets).toMatchObject({ new: 0, gone: 0 });
    expect(spots).toContainEqual({
      change: "moved",
      label: "3 Net Lane",
      at: { lat: -35.1809, lon: -21.6205 },
      from: { lat: -35.1804, lon: -21.62 },
    });
    expect((await send("DELETE", `/api/versions/${after.id}`)).status).toBe(204);
    expect(await versionsOf("Versions")).toHaveLength(1);
  });

  it("tells how much it covers, by area and on a grid, beside another version", { tags: ["long"] }, async () => {
    await importFile(HEAD + ROWS.slice(0, 6).join(""), "Coverage");
    await importFile(`${HEAD}${ROWS.join("")}Bare Lane,,HT4 29,Tidewell,QR,-35.18,-21.62\n`, "Coverage");
    const [after, before] = await versionsOf("Coverage");
    const { areas, grid } = await (await me.get(`/api/versions/${after.id}/coverage?beside=${before.id}`)).json();
    const town = { kind: "town", name: "Tidewell", within: "Lorramere", addresses: 21, streets: 2, bare: 0, before: 6 };
    expect(areas).toContainEqual({ ...town, places: 0, ref: expect.stringMatching(/^qr-/) });
    expect(areas[0]).toMatchObject({ kind: "country", addresses: 21, before: 6 });
    expect(grid.cells.filter((_: number, i: number) => i % 4 === 2).reduce((a: number, b: number) => a + b)).toBe(21);
    expect(grid.cells.filter((_: number, i: number) => i % 4 === 3).reduce((a: number, b: number) => a + b)).toBe(6);
  });

  it("tells how much is live, by country and on a grid, with an address to try", async () => {
    const { publications, dataSets } = (await (await me.get("/api/data")).json()) as DataAnswer;
    const { countries, grid, sample } = liveCoverageAnswer.parse(await (await me.get("/api/coverage")).json());
    const live = dataSets.flatMap(({ versions }) => versions).filter(({ id }) => publications[0].versions.includes(id));
    const all = live.reduce((sum, { counts }) => sum + (counts?.addresses ?? 0), 0);
    expect(all).toBeGreaterThan(50_000);
    expect(countries.reduce((sum, { addresses }) => sum + addresses, 0)).toBe(all);
    expect(grid.cells.filter((_, i) => i % 4 === 2).reduce((sum, here) => sum + here, 0)).toBe(all);
    expect(grid.cells.filter((_, i) => i % 4 === 3).every((before) => before === 0)).toBe(true);
    expect(countries.map(({ addresses }) => addresses)).toEqual(
      countries.map(({ addresses }) => addresses).toSorted((a, b) => b - a),
    );
    const record = await json(`/v1/records/${sample}`);
    expect(record.body.properties).toMatchObject({ kind: "address" });
  });

  it("goes out by area, and with what was corrected by hand where that is wanted", { tags: ["long"] }, async () => {
    const other = ROWS.slice(0, 3).map((row) => row.replace("Net Lane", "Buoy Lane").replace("Tidewell", "Cockleford"));
    await importFile(HEAD + [...ROWS, ...other].join(""), "Out by area");
    const [{ id }] = await versionsOf("Out by area");
    const { areas } = (await (await me.get(`/api/versions/${id}/coverage`)).json()) as CoverageAnswer;
    const { ref } = areas.find(({ name }) => name === "Cockleford")!;
    const lines = async (query: string) =>
      (await (await me.get(`/api/versions/${id}/out.csv?${query}`)).text()).trim().split("\r\n").slice(1);
    const inside = await lines(`inside=${ref}`);
    expect(inside).toHaveLength(3);
    expect(inside.every((line) => line.includes("Buoy Lane"))).toBe(true);
    expect((await me.get(`/api/versions/${id}/out.csv?inside=qr-zzzzzz`)).status).toBe(404);
    expect((await me.get(`/api/versions/${id}/out.csv?inside=nonsense`)).status).toBe(404);

    // a record that is not live can only be corrected as reports are: by its identity
    const [first, second] = inside.map((line) => parseRef(line.split(",")[0])!.identity);
    const corrected = [
      { identity: first, change: { at: { lat: -35.5, lon: -21.5 } } },
      { identity: second, change: { isRemoved: true } },
    ];
    const database = connect(shared().databaseUrl, 1);
    try {
      const rows = corrected.map(({ identity, change }) => ({
        ...{ identity, ref: refOf("QR", identity), country: "QR", line: "Buoy Lane", note: "", state: "applied" },
        ...{ change: JSON.stringify(change), decided_at: database.fn.now() },
      }));
      const made = await database("corrections").insert(rows).returning("id");
      try {
        const after = await lines(`inside=${ref}`);
        expect(after).toHaveLength(2);
        expect(after.filter((line) => line.includes("-35.5,-21.5"))).toHaveLength(1);
        expect(await lines(`inside=${ref}&corrected=no`)).toEqual(inside);
      } finally {
        await database("corrections")
          .whereIn(
            "id",
            made.map(({ id }) => id),
          )
          .delete();
      }
    } finally {
      await database.destroy();
    }
  });

  it("keeps names that stand in capitals as they are written, and goes out with both", { tags: ["long"] }, async () => {
    await importFile(
      (HEAD + ROWS.join("")).replaceAll("Net Lane", "NET LANE").replaceAll("Tidewell", "TIDEWELL"),
      "Loud",
    );
    const outOf = async (dataSet: string) => {
      const [{ id }] = await versionsOf(dataSet);
      return (await me.get(`/api/versions/${id}/out.csv`)).text();
    };
    const csv = await outOf("Loud");
    const [head, row] = csv.split("\r\n").map((line) => line.split(","));
    const said = (column: string) => row[head.indexOf(column)];
    expect(["street", "street:written", "town", "town:written"].map(said)).toEqual([
      "Net Lane",
      "NET LANE",
      "Tidewell",
      "TIDEWELL",
    ]);
    // the same names, with nothing kept beside them, are no other names
    await importFile(HEAD + ROWS.join(""), "Loud");
    const [after, before] = await versionsOf("Loud");
    const { counts } = await (await me.get(`/api/versions/${after.id}/difference?from=${before.id}`)).json();
    expect(counts.streets).toEqual({ new: 0, gone: 0, moved: 0, renamed: 0, same: 1 });
    await importFile(csv, "Loud again");
    expect((await outOf("Loud again")).split("\r\n")[0]).toContain("street,street:written,");
  });

  it("goes out as it came in, in open formats", { tags: ["long"] }, async () => {
    await importFile(HEAD + ROWS.join(""), "Out");
    const [version] = await versionsOf("Out");
    const out = async (format: string) => (await me.get(`/api/versions/${version.id}/out.${format}`)).text();
    const csv = await out("csv");
    await importFile(csv, "Out again");
    const [again] = await versionsOf("Out again");
    expect(again.counts).toEqual(version.counts);
    const places = (text: string) =>
      text
        .trim()
        .split("\r\n")
        // refs, of records and of areas, are each data set's own
        .map((line) => line.replace(/^[^,]*,/, "").replace(/,qr-[0-9a-z]+,/g, ",,"));
    const second = await (await me.get(`/api/versions/${again.id}/out.csv`)).text();
    expect(places(second)).toEqual(places(csv));
    const { features } = JSON.parse(await out("geojson"));
    expect(features[0]).toMatchObject({
      type: "Feature",
      geometry: { type: "Point", coordinates: [-21.62, -35.18] },
      properties: { street: "Net Lane", house: "1", town: "Tidewell", country: "QR" },
    });
    expect(await out("gpx")).toContain('<wpt lat="-35.18" lon="-21.62">\n    <name>1 Net Lane</name>');
  });

  it("keeps names that are markup, formulas or SQL as they are", { tags: ["long"] }, async () => {
    const name = "=cmd|' /C calc'!A0 <b>'; drop table addresses;--";
    await importFile(`street,house,country,lat,lon\n"${name}",1,QR,-35.18,-21.62\n`, "Hostile");
    const [version] = await versionsOf("Hostile");
    const { features } = await (await me.get(`/api/versions/${version.id}/out.geojson`)).json();
    expect(features[0].properties.street).toBe(name);
  });

  it("can be cancelled", { tags: ["long"] }, async () => {
    const many = HEAD + ROWS.join("").repeat(20_000);
    const { file, format, heads, reading } = await look(many);
    const dataSet = { name: own("Cancelled"), licence: "CC0-1.0", source: "" };
    const { body } = await send("POST", "/api/loads", { file, format, heads, reading, dataSet, day: "2026-11-20" });
    await wait(800);
    expect((await send("POST", `/api/jobs/${body.job}/cancelled`)).status).toBe(204);
    expect((await ended(body.job)).state).toBe("cancelled");
    const { dataSets } = (await (await me.get("/api/data")).json()) as DataAnswer;
    expect(dataSets.map(({ name }) => name)).not.toContain(own("Cancelled"));
  });
});

describe("the news of jobs", () => {
  it("come as Server-Sent Events", async () => {
    const stop = new AbortController();
    const response = await fetch(`${shared().url}/api/jobs/events`, {
      headers: { cookie: me.cookie },
      signal: stop.signal,
    });
    expect(response.headers.get("content-type")).toBe("text/event-stream");
    const { value } = await response.body!.getReader().read();
    expect(new TextDecoder().decode(value)).toMatch(/^data: \{"jobs":\[/);
    stop.abort();
  });

  it("end when the person signs out", { timeout: 20_000 }, async () => {
    const other = await signedIn();
    const response = await other.get("/api/jobs/events");
    const reader = response.body!.getReader();
    await reader.read();
    expect((await other.send("DELETE", "/api/session", {})).status).toBe(204);
    const began = Date.now();
    while (!(await reader.read()).done) expect(Date.now() - began).toBeLessThan(10_000);
    expect(Date.now() - began).toBeLessThan(10_000);
  });
});
