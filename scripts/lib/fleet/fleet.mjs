import { copyFileSync, createWriteStream, existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { postgresPrograms, takenOut, withLibraries } from "../debian.mjs";
import { buildFormer } from "../former.mjs";
import { home, makeFolder, root } from "../places.mjs";
import { hear, must } from "../run.mjs";
import { say } from "../say.mjs";
import { ADDRESSES, DATABASE_URL, Databases, deployed } from "./databases.mjs";
import { Network } from "./network.mjs";

const URL_OF_FLEET = `https://${ADDRESSES.balancer}`;
/** Lookups a minute of the key that is asked far more. */
const LIMIT = 100;
/** Milliseconds before and after a fault in which the load goes on; after which counts of uses are written. */
const [AROUND, COUNTED_AFTER] = [3000, 7000];

/**
 * Two servers, HAProxy, PostgreSQL with a synchronous standby by the files of deploy/, and a load outside, each on a host of its
 * own. While lookups come at a steady rate, one thing after the other goes wrong.
 */
export class Fleet {
  servers = new Map();
  rows = [];
  #calls = new Map();

  /** @param from an earlier commit whose servers are there at first @param only faults whose name has this */
  constructor({ from, only }) {
    Object.assign(this, { from, only });
  }

  #count = 0;
  #isIn = false;
  /** Lookups beside the load. */
  #asked = 0;

  async start() {
    this.folder = makeFolder(join(home, "fleet"));
    rmSync(this.folder, { recursive: true, force: true });
    makeFolder(this.folder);
    const debian = makeFolder(join(home, "debian"));
    const [programs, haproxy, openssl] = [
      await postgresPrograms(),
      await takenOut("haproxy", debian),
      await takenOut("openssl", debian),
    ];
    this.former = this.from ? await buildFormer(this.from) : undefined;
    this.network = await Network.make();
    for (const [host, address] of Object.entries(ADDRESSES)) await this.network.add(host, address);
    say("Starting a primary and a standby");
    this.databases = new Databases(this.network, programs, `/var/lib/bibliotope/fleet-${process.pid}`);
    await this.databases.make();
    say("Starting HAProxy and two servers");
    this.balancer = this.#start("balancer", haproxy, await this.#balancing(openssl), withLibraries(debian));
    await wait(500);
    if (this.balancer.child.exitCode !== null) throw new Error(`HAProxy ended: see ${this.folder}/balancer.log`);
    await this.#startServer("one", this.former);
    for (const name of ["keys.json", "secrets.key", "links.key"]) {
      makeFolder(join(this.folder, "two"));
      copyFileSync(join(this.folder, "one", name), join(this.folder, "two", name));
    }
    await this.#startServer("two", this.former);
    const { keys } = this.#readyOf("one");
    this.load = this.network.start(
      "load",
      process.execPath,
      [join(root, "scripts/lib/fleet/load.mjs"), URL_OF_FLEET, keys.srv],
      {
        stdio: ["ignore", "inherit", "inherit", "ipc"],
      },
    );
    this.load.on("message", ({ id, result, failed }) => {
      const { resolve, reject } = this.#calls.get(id);
      this.#calls.delete(id);
      if (failed === undefined) resolve(result);
      else reject(new Error(failed));
    });
    await this.#balanced(["one", "two"]);
  }

  async goThrough() {
    const faults = [
      ["nothing at all", async () => wait(2000)],
      [`a rolling upgrade${this.from ? ` from ${this.from}` : ", the same version"}`, () => this.#upgrade()],
      ["a server killed", () => this.#killServer()],
      ["a host cut off", () => this.#cutHost()],
      ["a publication", () => this.#publish()],
      ["the standby stands still", () => this.#holdStandby()],
      ["the primary killed, the standby promoted", () => this.#promote()],
    ];
    for (const [name, fault] of faults) if (!this.only || name.includes(this.only)) await this.#during(name, fault);
    this.#print();
    // without the database each server grants its share, beside what was granted before
    const most = LIMIT * this.servers.size;
    const isLost = this.rows.some((row) => row.lookups.lost > 0 || row.savedLost > 0 || row.granted > most);
    return isLost ? 1 : 0;
  }

  /** Lets something happen while the load goes on, and notes what became of it. */
  async #during(name, fault) {
    say(`While lookups are asked for: ${name}`);
    const limited = await this.#limitedKey(name);
    const before = await this.#uses();
    this.#asked = 0;
    await this.call("begin", { name, limited: limited?.key });
    await wait(AROUND);
    const began = Date.now();
    const told = await fault();
    const took = Date.now() - began;
    await wait(AROUND);
    const { lookups, saves, acknowledged, granted, refused } = await this.call("end");
    await wait(COUNTED_AFTER);
    const counted = (await this.#uses()) - before;
    const list = acknowledged.map((text) => `('${text.replaceAll("'", "''")}')`).join(",") || "('')";
    const missing = await this.databases.sql(
      this.databases.primary,
      "bibliotope",
      `select count(*) from (values ${list}) as told (text) where text <> '' and not exists (select 1 from corrections c where c.note = told.text)`,
    );
    this.rows.push({
      name,
      took,
      told,
      lookups,
      saves,
      savedLost: Number(missing),
      granted: limited ? granted : undefined,
      refused,
      // what was to be saved is counted too, whatever became of it; the key with a limit is another one
      counted: counted - (lookups.sent + saves.sent + this.#asked),
    });
    const row = this.rows.at(-1);
    say(
      `  ${lookups.sent} lookups, ${lookups.lost} lost, longest gap ${Math.round(lookups.longestGap)} ms; ${acknowledged.length} saved, ${row.savedLost} of them lost${lookups.why.length ? `; ${lookups.why}` : ""}`,
    );
  }

  /** SIGTERM, and the next version: one server after the other. */
  async #upgrade() {
    for (const host of ["one", "two"]) {
      const { child, ended } = this.servers.get(host);
      child.kill("SIGTERM");
      const code = await ended;
      if (code !== 0) throw new Error(`server ${host} ended with code ${code}`);
      await this.#startServer(host);
      await this.#balanced([host]);
    }
    this.former = undefined;
  }

  async #killServer() {
    const { child, ended } = this.servers.get("one");
    child.kill("SIGKILL");
    await ended;
    await wait(3000);
    await this.#startServer("one");
    await this.#balanced(["one"]);
  }

  async #cutHost() {
    await this.network.cut("two");
    await wait(6000);
    await this.network.mend("two");
    await this.#balanced(["two"]);
  }

  async #publish() {
    await this.#enter();
    const rows = Array.from({ length: 50 }, (_, i) => `Fleet Lane,${i + 1},HT4 30,Tidewell,QR,-35.19${i},-21.63`);
    const content = `street,house,postcode,town,country,lat,lon\n${rows.join("\n")}\n`;
    const { id } = await this.own("POST", "/files?name=lane.csv", content);
    const start = await this.own("POST", `/files/${id}/look`, {});
    const { job } = await this.own("POST", "/loads", {
      ...{ file: id, format: start.format, heads: start.heads, reading: start.reading, day: "2026-11-20" },
      dataSet: { name: "Lane", licence: "CC0-1.0", source: "Fleet" },
    });
    await this.#done(job);
    const { dataSets } = await this.own("GET", "/data");
    const versions = dataSets.map((set) => set.versions[0].id);
    const { job: publication } = await this.own("POST", "/publications", { versions, why: "Fleet" });
    await this.#done(publication);
    const isThere = async () => {
      this.#asked++;
      const { text } = await this.call("ask", { path: "/v1/forward?q=7+Fleet+Lane+Tidewell" });
      return text.includes("Fleet Lane");
    };
    for (let i = 0, seen = 0; seen < 20 && i < 400; i++) {
      seen = (await isThere()) ? seen + 1 : 0;
      await wait(25);
    }
  }

  async #holdStandby() {
    await this.databases.receiving("SIGSTOP");
    const pid = await this.databases.sql("standby", "postgres", "select pid from pg_stat_wal_receiver");
    await wait(5000);
    process.kill(Number(pid.trim()), "SIGCONT");
    await this.databases.confirmed();
  }

  async #promote() {
    await this.databases.kill("primary");
    await wait(1000);
    await this.databases.promote();
    await wait(8000);
  }

  async #done(job) {
    for (let i = 0; i < 600; i++) {
      const state = await this.databases.sql(
        this.databases.primary,
        "bibliotope",
        `select state from jobs where id = ${job}`,
      );
      if (state.trim() === "done") return;
      if (/failed|cancelled/.test(state)) throw new Error(`job ${job}: ${state}`);
      await wait(100);
    }
    throw new Error(`job ${job} did not end`);
  }

  /** A key for this fault alone; none while servers of an earlier version run, whose sessions are others. */
  async #limitedKey(name) {
    if (this.former) return undefined;
    await this.#enter();
    const rules = { origins: [], calls: [], countries: [], endsAt: null, perMinute: LIMIT, perDay: null };
    const made = await this.own("POST", "/keys", { kind: "srv", name: `Fleet, ${name}`.slice(0, 60), ...rules });
    // both hear of it
    await wait(1000);
    return made;
  }

  /** Signs in, once: a link works once, and a session on all servers. */
  async #enter() {
    if (this.#isIn) return;
    await this.call("enter", { signIn: this.#readyOf("one").signIn });
    this.#isIn = true;
  }

  async #uses() {
    const sum = `select coalesce(sum(count), 0) from uses u join keys k on k.id = u.key_id where k.kind = 'srv' and k.name not like 'Fleet%'`;
    return Number(await this.databases.sql(this.databases.primary, "bibliotope", sum));
  }

  own(method, path, body) {
    return this.call("own", { method, path, body });
  }

  call(call, options) {
    const id = ++this.#count;
    return new Promise((resolve, reject) => {
      this.#calls.set(id, { resolve, reject });
      this.load.send({ id, call, options });
    });
  }

  /** Waits until servers say that they are ready, and the balancer has seen it. */
  async #balanced(hosts) {
    for (const host of hosts) {
      const args = [
        "-s",
        "-o",
        "/dev/null",
        "-w",
        "%{http_code}",
        "--max-time",
        "1",
        `http://${ADDRESSES[host]}:4870/readyz`,
      ];
      for (let i = 0; ; i++) {
        const { output } = await hear("ip", ["netns", "exec", "bt-balancer", "curl", ...args]);
        if (output.trim() === "200") break;
        if (i > 600) throw new Error(`server ${host} is not ready: ${output}`);
        await wait(100);
      }
    }
    await wait(1500);
  }

  async #startServer(host, former) {
    const own = makeFolder(join(this.folder, host));
    const readyFile = join(own, "ready.json");
    rmSync(readyFile, { force: true });
    const settings = {
      NODE_ENV: "production",
      DATABASE_URL,
      BIBLIOTOPE_HOME: own,
      BIBLIOTOPE_KEYS: join(own, "keys.json"),
      HOST: "0.0.0.0",
      PORT: "4870",
      PUBLIC_URL: URL_OF_FLEET,
      TRUST_PROXY: ADDRESSES.balancer,
      ...(former ? {} : { BIBLIOTOPE_DEMO: "on" }),
    };
    const [program, ...args] = former
      ? [join(former, "packages/server/dist/main.js")]
      : [join(root, "packages/cli/bin/bibliotope.js"), "serve"];
    this.servers.set(host, this.#start(host, process.execPath, [program, ...args], { ...process.env, ...settings }));
    const { child } = this.servers.get(host);
    for (let i = 0; !existsSync(readyFile); i++) {
      if (child.exitCode !== null)
        throw new Error(`server ${host} ended with code ${child.exitCode}: see ${this.folder}/${host}.log`);
      if (i > 1800) throw new Error(`server ${host} was not ready in three minutes: see ${this.folder}/${host}.log`);
      await wait(100);
    }
  }

  #readyOf(host) {
    return JSON.parse(readFileSync(join(this.folder, host, "ready.json"), "utf8"));
  }

  #start(host, file, args, env) {
    const log = createWriteStream(join(this.folder, `${host}.log`), { flags: "a" });
    const child = this.network.start(host, file, args, { stdio: ["ignore", "pipe", "pipe"], env });
    child.stdout.pipe(log);
    child.stderr.pipe(log);
    const ended = new Promise((resolve) => child.once("exit", (code, signal) => resolve(code ?? signal)));
    return { child, ended };
  }

  /** HAProxy's configuration of deploy/, with the addresses of the fleet. @returns its arguments */
  async #balancing(openssl) {
    const folder = makeFolder(join(this.folder, "haproxy"));
    const subject = ["-subj", `/CN=${ADDRESSES.balancer}`, "-days", "2", "-nodes"];
    await must(
      "Making a certificate",
      openssl,
      ["req", "-x509", "-newkey", "rsa:2048", ...subject, "-keyout", "key", "-out", "certificate"],
      {
        cwd: folder,
      },
    );
    const parts = ["certificate", "key"].map((name) => readFileSync(join(folder, name), "utf8"));
    writeFileSync(join(folder, "addresses.pem"), parts.join(""));
    const both = (line) =>
      ["one", "two"].map((host) => line.replaceAll("first", host).replace("127.0.0.1", ADDRESSES[host])).join("\n");
    const files = [
      deployed("haproxy.cfg")
        .replaceAll("/etc/haproxy/", `${folder}/`)
        // as many as any machine lets a process have open
        .replace("maxconn 20000", "maxconn 4000")
        .replace(/^ *server first .*$/gm, both),
      deployed("haproxy-database.cfg").replace("bind 127.0.0.1", `bind ${ADDRESSES.balancer}`),
    ];
    return files.flatMap((text, i) => {
      const file = join(folder, `${i}.cfg`);
      writeFileSync(file, text);
      return ["-f", file];
    });
  }

  #print() {
    const head = [
      "what happened",
      "lookups",
      "lost",
      "longest gap",
      "slowest",
      "saved",
      "lost",
      "not saved",
      "until saved again",
      "limit",
      "uses off by",
    ];
    const lines = this.rows.map(({ name, lookups, saves, savedLost, granted, refused, counted }) => [
      name,
      lookups.sent,
      lookups.lost,
      `${Math.round(lookups.longestGap)} ms`,
      `${Math.round(lookups.slowest)} ms`,
      saves.answered,
      savedLost,
      saves.lost,
      `${Math.round(saves.longestGap)} ms`,
      granted === undefined ? "" : `${granted} of ${LIMIT}, ${refused} refused`,
      counted,
    ]);
    const rows = [head, head.map(() => "---"), ...lines];
    const table = rows.map((row) => `| ${row.join(" | ")} |`).join("\n");
    console.log(`\n${table}\n`);
    makeFolder(join(root, "bench-results"));
    writeFileSync(join(root, "bench-results/fleet.md"), `${table}\n`);
  }

  async stop() {
    this.load?.kill();
    for (const { child } of [...this.servers.values(), ...(this.balancer ? [this.balancer] : [])])
      child.kill("SIGKILL");
    await this.databases?.stop();
    await this.network?.remove();
    if (this.databases) rmSync(this.databases.folder, { recursive: true, force: true });
  }
}
