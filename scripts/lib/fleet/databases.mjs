import { cpSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { root } from "../places.mjs";
import { hear, show } from "../run.mjs";

const NETWORK = "10.77.0";
const PASSWORD = "of-the-fleet-alone";
export const ADDRESSES = {
  balancer: `${NETWORK}.10`,
  one: `${NETWORK}.11`,
  two: `${NETWORK}.12`,
  primary: `${NETWORK}.21`,
  standby: `${NETWORK}.22`,
  load: `${NETWORK}.30`,
};
/** As processes see the database: whichever of the two is the primary. */
export const DATABASE_URL = `postgres://bibliotope:${PASSWORD}@${ADDRESSES.balancer}:5433/bibliotope`;

/** A file of deploy/ with addresses of the fleet in place of those that it has as examples. */
export const deployed = (name) => readFileSync(join(root, "deploy", name), "utf8").replaceAll("10.0.0.", `${NETWORK}.`);

/** PostgreSQL on two hosts, by the files of deploy/: a primary, and a standby that confirms what is saved. */
export class Databases {
  /** The host that is the primary now. */
  primary = "primary";

  /** @param folder that the user postgres may enter */
  constructor(network, programs, folder) {
    Object.assign(this, { network, programs, folder });
  }

  async make() {
    mkdirSync(this.folder, { recursive: true, mode: 0o755 });
    await hear("chown", ["postgres:", this.folder]);
    await this.#as("primary", "Making the primary", join(this.programs, "initdb"), [
      ...["-D", this.#data("primary"), "-U", "postgres", "--auth-local=trust", "--auth-host=reject"],
      ...["--encoding=UTF8", "--locale=C.UTF-8"],
    ]);
    await this.#configure("primary");
    // the standby is not there yet: nobody could confirm anything
    await this.#start("primary", ["-c", "synchronous_standby_names="]);
    for (const statement of [
      `create role bibliotope login password '${PASSWORD}'`,
      `create role replicator login replication password '${PASSWORD}'`,
      "create role haproxy login",
      "create database bibliotope owner bibliotope encoding 'UTF8' template template0",
    ])
      await this.sql("primary", "postgres", statement);
    for (const script of ["make-standby.sh", "promote.sh"]) {
      cpSync(join(root, "deploy", script), join(this.folder, script));
      await hear("chmod", ["755", join(this.folder, script)]);
    }
    await this.#as("standby", "Making the standby", join(this.folder, "make-standby.sh"), [
      ADDRESSES.primary,
      this.#data("standby"),
    ]);
    await this.#start("standby");
    await this.#as("primary", "Starting the primary anew", join(this.programs, "pg_ctl"), [
      ...["-D", this.#data("primary"), "-m", "fast", "-w", "stop"],
    ]);
    await this.#start("primary");
    await this.confirmed();
  }

  /** Waits until the standby confirms what the primary saves. */
  async confirmed() {
    for (let i = 0; i < 300; i++) {
      const state = await this.sql("primary", "postgres", "select sync_state from pg_stat_replication").catch(() => "");
      if (state.includes("sync")) return;
      await wait(100);
    }
    throw new Error("the standby does not confirm anything");
  }

  /** Ends a primary as a power cut does. */
  async kill(host) {
    const pid = readFileSync(join(this.#data(host), "postmaster.pid"), "utf8").split("\n", 1)[0];
    const { output } = await hear("ps", ["-o", "pid=", "--ppid", pid]);
    for (const each of [pid, ...output.split(/\s+/).filter(Boolean)]) {
      try {
        process.kill(Number(each), "SIGKILL");
      } catch {
        // it went with the first
      }
    }
  }

  /** Stops what the standby receives, or lets it go on. @param signal SIGSTOP or SIGCONT */
  async receiving(signal) {
    const pid = await this.sql("standby", "postgres", "select pid from pg_stat_wal_receiver");
    process.kill(Number(pid.trim()), signal);
    return Number(pid.trim());
  }

  async promote() {
    await this.#as("standby", "Promoting the standby", join(this.folder, "promote.sh"), [this.#data("standby")]);
    this.primary = "standby";
  }

  /** @returns what psql prints, without heads */
  sql(host, database, statement) {
    return this.#as(host, statement, join(this.programs, "psql"), ["-XAtq", "-d", database, "-c", statement]);
  }

  async stop() {
    for (const host of ["standby", "primary"])
      await hear(
        ...this.#command(host, join(this.programs, "pg_ctl"), ["-D", this.#data(host), "-m", "immediate", "stop"]),
        {
          cwd: "/",
        },
      );
  }

  async #start(host, more = []) {
    const sockets = join(this.folder, `socket-${host}`);
    mkdirSync(sockets, { recursive: true });
    await hear("chown", ["postgres:", sockets]);
    const options = ["-c", `unix_socket_directories=${sockets}`, ...more].join(" ");
    const log = join(this.folder, `${host}.log`);
    await this.#as(
      host,
      `Starting the ${host}`,
      join(this.programs, "pg_ctl"),
      [...["-D", this.#data(host), "-w", "-t", "60", "-l", log, "-o", options, "start"]],
      "ignore",
    );
  }

  async #configure(host) {
    const data = this.#data(host);
    mkdirSync(join(data, "conf.d"));
    writeFileSync(join(data, "conf.d", "bibliotope.conf"), deployed("postgresql.conf"));
    writeFileSync(join(data, "postgresql.conf"), "include_dir 'conf.d'\nfsync = on\n", { flag: "a" });
    writeFileSync(join(data, "pg_hba.conf"), `local all all trust\n${deployed("pg_hba.conf")}`);
    await hear("chown", ["-R", "postgres:", data]);
  }

  #data(host) {
    return join(this.folder, host);
  }

  #command(host, file, args) {
    const env = [
      `PATH=${this.programs}:/usr/bin:/bin`,
      `PGPASSWORD=${PASSWORD}`,
      `PGHOST=${join(this.folder, `socket-${host}`)}`,
    ];
    return ["ip", ["netns", "exec", `bt-${host}`, "runuser", "-u", "postgres", "--", "env", ...env, file, ...args]];
  }

  async #as(host, what, file, args, stdio) {
    const [program, rest] = this.#command(host, file, args);
    if (stdio === "ignore") {
      // it leaves a server behind, which would hold the pipe open
      const code = await show(program, rest, { cwd: "/", stdio });
      if (code !== 0) throw new Error(`${what}: code ${code}; see ${this.folder}/${host}.log`);
      return "";
    }
    const { code, output } = await hear(program, rest, { cwd: "/" });
    if (code !== 0) throw new Error(`${what.slice(0, 200)}: ${output.trim().split("\n").slice(-20).join("\n")}`);
    return output;
  }
}
