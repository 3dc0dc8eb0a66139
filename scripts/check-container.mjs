import { spawn } from "node:child_process";
import { readdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { buildahProgram, debianBase, postgresPrograms, putNode } from "./lib/debian.mjs";
import { databaseHome, home, makeFolder, root } from "./lib/places.mjs";
import { startCluster } from "./lib/postgres.mjs";
import { hear, must } from "./lib/run.mjs";
import { command, say, Trouble } from "./lib/say.mjs";

// Builds the container of deploy/Containerfile out of the last commit, on a new Debian with this machine's Node, and starts it on a
// database: it must be ready, run as a user without rights, and end by itself when it is told to.

const [PORT, UID, READY_WITHIN, END_WITHIN] = [5860, 870, 90_000, 25_000];

await command(async () => {
  if (process.getuid?.() !== 0) throw new Trouble("A container can be built by root alone.\nIt was NOT built.");
  const buildah = await buildahProgram();
  const base = await debianBase(makeFolder(join(home, "debian")));
  const folder = makeFolder(join(home, "container"));
  const store = ["--root", join(folder, "store"), "--runroot", join(folder, "run"), "--storage-driver", "vfs"];
  const build = (what, ...args) => must(what, buildah, [...store, ...args]);
  const cluster = await startCluster(await postgresPrograms(), await databaseHome("container-database"));
  try {
    say("Making the base of the container");
    const debian = join(folder, "debian");
    await must("Copying Debian", "cp", ["-a", base, debian]);
    await putNode(debian);
    const { output: registry } = await hear("npm", ["config", "get", "registry"]);
    const under = lastLine(await build("Making a container", "from", "scratch"));
    await build("Copying the base", "copy", "--quiet", under, debian, "/");
    rmSync(debian, { recursive: true });
    const env = [`npm_config_registry=${lastLine(registry)}`, "NODE_EXTRA_CA_CERTS=/root/ca.pem"];
    await build("Naming the base", "config", ...env.flatMap((one) => ["--env", one]), under);
    await build("Keeping the base", "commit", "--quiet", under, "node-on-debian");

    say("Building the container");
    const context = join(folder, "context");
    await must("Cloning", "git", ["clone", "-q", root, context]);
    const isolation = ["--isolation", "chroot"];
    const file = ["-f", join(context, "deploy/Containerfile")];
    const from = ["--build-arg", "BASE=localhost/node-on-debian"];
    await build("Building", "build", ...isolation, ...file, ...from, "-t", "bibliotope", context);
    const container = lastLine(await build("Making a container", "from", "localhost/bibliotope"));
    const words = await build("Reading its command", "inspect", "--format", "{{.OCIv1.Config.Cmd}}", container);

    say("Starting it");
    const started = [`DATABASE_URL=${cluster.url}`, `PORT=${PORT}`].flatMap((one) => ["--env", one]);
    const cmd = lastLine(words)
      .replace(/^\[|\]$/g, "")
      .split(" ");
    const child = spawn(buildah, [...store, "run", ...isolation, ...started, container, "--", ...cmd], {
      stdio: ["ignore", "pipe", "pipe"],
    });
    let said = "";
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (piece) => (said += piece));
    const ended = new Promise((resolve) => child.once("exit", resolve));
    await untilReady(
      () => child.exitCode !== null,
      () => said,
    );
    const inside = processesOf(UID);
    if (!inside.length)
      throw new Trouble(`No process of user ${UID} runs: the container has more rights than it should.`);
    say(`ready, as user ${UID}`);
    for (const pid of inside) process.kill(pid, "SIGTERM");
    const code = await Promise.race([ended, wait(END_WITHIN, "late", { ref: false })]);
    if (code !== 0)
      throw new Trouble(`It did not end as it should (${code}):\n${said.split("\n").slice(-20).join("\n")}`);
    say("ended by itself");
    return 0;
  } finally {
    for (const pid of processesOf(UID)) process.kill(pid, "SIGKILL");
    await cluster.stop();
    await hear(buildah, [...store, "rm", "--all"]);
    await hear(buildah, [...store, "rmi", "--all", "--force"]);
    rmSync(folder, { recursive: true, force: true });
  }
});
process.exit();

async function untilReady(isOver, said) {
  for (const end = Date.now() + READY_WITHIN; ; await wait(200)) {
    const answer = await fetch(`http://127.0.0.1:${PORT}/readyz`).catch(() => undefined);
    if (answer?.status === 200) return;
    if (isOver() || Date.now() > end)
      throw new Trouble(`It was not ready:\n${said().split("\n").slice(-30).join("\n")}`);
  }
}

/** Processes of Node's of a user that no other program here runs as: buildah has one as that user too. */
function processesOf(uid) {
  return readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        const isOfUser = new RegExp(`^Uid:\\s+${uid}\\b`, "m").test(readFileSync(`/proc/${pid}/status`, "utf8"));
        return isOfUser && readFileSync(`/proc/${pid}/cmdline`, "utf8").split("\0")[0].endsWith("node");
      } catch {
        // it has ended meanwhile
        return false;
      }
    })
    .map(Number);
}

function lastLine(text) {
  return text.trim().split("\n").at(-1);
}
