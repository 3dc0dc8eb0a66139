import { execFile } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { promisify } from "node:util";
import PgBoss from "pg-boss";
import { describe, expect, it } from "vitest";
import { connect, migrate } from "../../server/src/database/connect.ts";
import { Random } from "../../server/testing/faults/random.ts";
import { OwnServer, ownDatabase } from "../../server/testing/own-server.ts";
import { shared, sharedHome } from "../../server/testing/shared.ts";
import { readingOf } from "./import.ts";
import { progressLine } from "./progress.ts";

const program = fileURLToPath(new URL("../bin/bibliotope.js", import.meta.url));
const folder = mkdtempSync(join(tmpdir(), "bibliotope-cli-"));
const file = (name: string, content: string) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};

async function run(args: readonly string[], env: Record<string, string> = {}) {
  const ready = join(sharedHome(), "ready.json");
  const ran = promisify(execFile)(process.execPath, [program, ...args], {
    env: { ...process.env, BIBLIOTOPE_READY: ready, ...env },
  });
  return ran.then(
    ({ stdout, stderr }) => ({ code: 0, stdout, stderr }),
    ({ code, stdout, stderr }) => ({ code: code as number, stdout: String(stdout), stderr: String(stderr) }),
  );
}

describe("bibliotope batch", () => {
  it("looks a file up and writes it out with what was found", { tags: ["long"] }, async () => {
    const members = file("members.csv", "name,address\nAda,12 Harbour Row Tidewell\nBob,qqqq zzzz\n");
    const at = ["--url", shared().url, "--key", shared().keys.srv];
    const out = join(folder, "found.csv");
    const ran = await run([...at, "batch", members, "--out", out]);
    expect(ran).toMatchObject({ code: 0 });
    expect(ran.stderr).toContain("1 clear, 0 doubtful, 1 not found.\n");
    expect(readFileSync(out, "utf8")).toContain("Ada,12 Harbour Row Tidewell,clear");
    const request = await run([...at, "batch", members, "--register"]);
    expect(request.stdout).toMatch(
      /register,register number,register address\r?\nAda.*otherwise,\d-\d+,"12, Harbour Rows, Tidewell"/,
    );
    const accepted = await run([...at, "batch", members, "--accepted", "--format", "geojson"]);
    expect(JSON.parse(accepted.stdout).features).toHaveLength(1);
  });

  it("says what is wrong and ends with 1", { tags: ["long"] }, async () => {
    expect(await run(["batch", file("empty.csv", "")])).toMatchObject({
      code: 1,
      stderr: expect.stringContaining("empty"),
    });
    expect(await run(["--key", "bt_srv_wrong", "batch", file("x.csv", "a,b\n1,2\n")])).toMatchObject({
      code: 1,
      stderr: expect.stringContaining("This key is unknown"),
    });
    expect(await run(["batch", "there-is-no-such-file.csv"])).toMatchObject({ code: 2 });
  });
});

describe("bibliotope import", () => {
  it("brings a file as a draft, with columns as they are said", { tags: ["long"] }, async () => {
    const rows = [
      "road_,n,wo,lat,lon",
      "Net Lane,1,Tidewell,-35.18,-21.62",
      "Net Lane,2,Tidewell,-35.18,-21.62",
      "Net Lane,3,Tidewell,,",
    ];
    const set = ["--data-set", `From a terminal ${Date.now()}`, "--licence", "CC0-1.0", "--country", "qr"];
    const columns = ["--column", "n=house", "--column", "wo=town"];
    const ran = await run(["import", file("own.csv", rows.join("\n")), ...set, ...columns]);
    expect(ran.stderr).toContain("2 addresses in a draft.");
    expect(ran.stderr).toContain("1 row: no position");
    expect(ran.code).toBe(0);
    expect(
      await run(["import", file("own2.csv", rows.join("\n")), ...set, "--column", "nothing=street"]),
    ).toMatchObject({
      code: 1,
      stderr: expect.stringContaining("“nothing=street” names no column"),
    });
  });

  it("tries a file out: says what would come of it, and keeps nothing", { tags: ["long"] }, async () => {
    const name = `Tried ${Date.now()}`;
    const rows = [
      "TYPE,NAME,NO,town,lat,lon",
      ...[1, 2, 3].map((n) => `Rua,Nova,${n},Vila,-35.18,-21.6${n}`),
      "Rua,Nova,4,Vila,,",
    ];
    const requests = ["--data-set", name, "--licence", "CC0-1.0", "--join", "TYPE+NAME=street", "--column", "NO=house"];
    const ran = await run(["import", file("tried.csv", rows.join("\n")), ...requests, "--dry-run", "--publish"]);
    expect(ran.stderr).toContain("rows without a country are in QR: positions are in QR");
    expect(ran.stderr).toContain("3 addresses would be imported.");
    expect(ran.stderr).toMatch(/1 row: no position; more than a fifth of all rows/);
    expect(ran.code).toBe(0);
    const database = connect(shared().databaseUrl, 1);
    try {
      const sets = await database("data_sets").where({ name });
      expect(sets).toEqual([]);
    } finally {
      await database.destroy();
    }
  });

  it("says so when no server runs", async () => {
    const ran = await run(["import", "x.csv", "--data-set", "x", "--licence", "x"], { BIBLIOTOPE_READY: "/nowhere" });
    expect(ran).toMatchObject({ code: 3, stderr: expect.stringContaining("No server is running here") });
  });
});

describe("bibliotope backup and restore", { timeout: 240_000 }, () => {
  /** All that a database holds, as a script: what changes with every restore is left out. */
  async function contentOf(url: string): Promise<string> {
    const { stdout } = await promisify(execFile)("pg_dump", ["--no-owner", "--exclude-table=installation", url], {
      maxBuffer: 1 << 30,
    });
    return stdout.replace(/^\\(un)?restrict .*$/gm, "");
  }

  it("keep all that the database holds, and put it back as a whole, whatever is there: nothing, junk, an older one", {
    tags: ["long"],
  }, async () => {
    const { url, database, drop } = await ownDatabase("cli_backup");
    try {
      // all tables of the product and of its queue of jobs
      const product = connect(url, 2);
      await migrate(product);
      await product.destroy();
      const boss = new PgBoss(url);
      await boss.start();
      await boss.createQueue("work");
      await boss.stop({ graceful: false, wait: true, close: true });
      await database.raw("create table kept (id int primary key, words text)");
      await database("kept").insert({ id: 1, words: "ø Θ 'x'" });
      const to = join(folder, "all.backup");
      expect(await run(["backup", to], { DATABASE_URL: url })).toMatchObject({ code: 0 });
      expect(statSync(to).mode & 0o077).toBe(0);
      expect(existsSync(`${to}.part`)).toBe(false);
      const before = await contentOf(url);
      const historyOf = async () => (await database("installation").first("history"))?.history;
      const histories = new Set([await historyOf()]);

      for (const change of [
        "update kept set words = 'lost'",
        "drop schema public cascade; drop schema pgboss cascade",
        "drop schema public cascade; create schema public; create schema other; create table other.t (id int)",
        "drop table installation; delete from migrations where id > 5; drop table batch_results, batch_rows, batches, jobs cascade",
        "create view of_kept as select * from kept; create type colour as enum ('red'); alter table kept add colour colour",
      ]) {
        await database.raw(change);
        expect(await run(["restore", to], { DATABASE_URL: url }), change).toMatchObject({ code: 0, stderr: "" });
        expect(await contentOf(url), change).toBe(before);
        histories.add(await historyOf());
      }
      // each time another one: what was derived before says nothing now
      expect(histories.size).toBe(6);

      await database("kept").update({ words: "stays" });
      const whole = readFileSync(to);
      for (const damaged of [Buffer.from("no backup"), whole.subarray(0, whole.length * 0.7)]) {
        writeFileSync(join(folder, "broken"), damaged);
        expect(await run(["restore", join(folder, "broken")], { DATABASE_URL: url })).toMatchObject({ code: 1 });
        expect(await database("kept").first("words")).toEqual({ words: "stays" });
      }
    } finally {
      await drop();
    }
  });

  it("take no backup that was cut or whose bytes were changed, wherever, and one of an earlier version with a word", {
    tags: ["long"],
  }, async () => {
    const { url, database, drop } = await ownDatabase("cli_damaged");
    try {
      await database.raw("create table kept (id int primary key, words text)");
      const lines = Array.from({ length: 3000 }, (_, id) => ({ id, words: `line ${id} ${Math.sin(id)}` }));
      for (let at = 0; at < lines.length; at += 1000) await database("kept").insert(lines.slice(at, at + 1000));
      const to = join(folder, "sealed.backup");
      expect(await run(["backup", to], { DATABASE_URL: url })).toMatchObject({ code: 0 });
      const whole = readFileSync(to);
      const broken = join(folder, "damaged.backup");
      const tried = async (bytes: Buffer) => {
        writeFileSync(broken, bytes);
        return run(["restore", broken], { DATABASE_URL: url });
      };
      await database("kept").where({ id: 7 }).update({ words: "stays" });
      const bodyBytes = whole.length - 93;
      const random = new Random(20261130);
      for (let i = 0; i < 6; i++) {
        const flipped = Buffer.from(whole);
        const at = Math.floor(random.between(0, bodyBytes));
        flipped[at] ^= 1 << Math.floor(random.between(0, 8));
        const { code, stderr } = await tried(flipped);
        expect([code, /is damaged: its digest does not match/.test(stderr)], `bit of byte ${at}`).toEqual([1, true]);
        const cut = Math.floor(random.between(0, bodyBytes - 1));
        expect((await tried(whole.subarray(0, cut))).code, `cut at ${cut}`).toBe(1);
      }
      expect(await database("kept").where({ id: 7 }).first("words")).toEqual({ words: "stays" });
      const old = await tried(whole.subarray(0, bodyBytes));
      expect(old.code).toBe(0);
      expect(old.stderr).toContain("has no digest");
      expect((await database("kept").where({ id: 7 }).first("words")).words).toMatch(/^line 7/);
    } finally {
      await drop();
    }
  });

  it("work over the database of a running product, which then begins anew by itself", { tags: ["long"] }, async () => {
    const { url, database, drop } = await ownDatabase("cli_live", "seeded");
    const server = new OwnServer(url, "seeded");
    try {
      server.start();
      let ready = await server.ready();
      const to = join(folder, "live.backup");
      expect(await run(["backup", to], { DATABASE_URL: url })).toMatchObject({ code: 0 });
      await database("form_versions").delete();
      // it is in use: lookups, and sessions that read and write
      let isDone = false;
      const statuses: number[] = [];
      const using = Array.from({ length: 4 }, async () => {
        while (!isDone) {
          const { status } = await fetch(`${ready.url}/v1/forms/become-a-reader?access_token=${ready.keys.srv}`).catch(
            () => ({ status: 0 }),
          );
          statuses.push(status);
          await fetch(ready.signIn, { redirect: "manual" }).catch(() => undefined);
        }
      });
      const restored = await run(["restore", to], { DATABASE_URL: url });
      expect(restored).toMatchObject({ code: 0, stderr: "" });
      // what npm start takes for the word to begin anew at once
      expect(await server.gone()).toBe(75);
      isDone = true;
      await Promise.all(using);
      expect(statuses).not.toContain(500);
      server.start();
      ready = await server.ready();
      expect(Number((await database("form_versions").count({ count: "*" }))[0].count)).toBeGreaterThan(0);
      const key = { headers: { authorization: `Bearer ${ready.keys.srv}` } };
      expect((await fetch(`${ready.url}/v1/suggest?q=12+harb`, key)).status).toBe(200);
      const batch = {
        method: "POST",
        body: "text\n12 Harbour Row\n",
        headers: { ...key.headers, "content-type": "text/csv" },
      };
      expect((await fetch(`${ready.url}/v1/batches`, batch)).status).toBe(202);
    } finally {
      await server.end("SIGKILL");
      await drop();
    }
  });
});

describe("the lines", () => {
  it("draw how far something is", () => {
    expect(progressLine({ state: "running", words: "Read 5 rows", share: 0.5 }, 4)).toBe("[##..]  50 %  Read 5 rows");
  });

  it("read columns that are said by hand", () => {
    const start = { heads: ["a=b", "c"], reading: { columns: [null, { meaning: "town" }] } } as never;
    const read = (...column: string[]) => readingOf(start, { column, join: [] } as never).columns;
    expect(read("a=b=street:qth-Grek:abbr", "c=")).toEqual([
      { meaning: "street", form: "abbr", lang: "qth-Grek" },
      null,
    ]);
    expect(() => read("c")).toThrow("names no column");
  });
});
