import {
  chmodSync,
  copyFileSync,
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { home, makeFolder } from "./places.mjs";
import { hear, isRoot, must, show } from "./run.mjs";
import { say, Trouble } from "./say.mjs";

const LOCKED = /could not get lock|is held by process|unable to (acquire|lock)|temporarily unavailable/i;
const PATIENCE = 15 * 60_000;

/** The folder of PostgreSQL's programs, newest version first; installs Debian's package when there is none. */
export async function postgresPrograms() {
  const found = findPostgres();
  if (found) return found;
  say("PostgreSQL is not installed: installing Debian's package postgresql (some 60 MB)");
  // Debian's package would make and start a cluster of its own
  const settings = "/etc/postgresql-common/createcluster.conf";
  const ours = isRoot && !existsSync(settings);
  if (ours) {
    mkdirSync("/etc/postgresql-common", { recursive: true });
    writeFileSync(settings, "create_main_cluster = false\n");
  }
  await install("postgresql");
  if (ours) {
    if (existsSync(`${settings}.dpkg-dist`)) renameSync(`${settings}.dpkg-dist`, settings);
    else rmSync(settings, { force: true });
  }
  const installed = findPostgres();
  if (!installed)
    throw new Trouble(
      "Debian's package postgresql was installed, but /usr/lib/postgresql/*/bin/initdb is not there.\nInstall PostgreSQL 15 or later by hand, or set DATABASE_URL to a database that is running.",
    );
  return installed;
}

function findPostgres() {
  const base = "/usr/lib/postgresql";
  if (!existsSync(base)) return undefined;
  const versions = readdirSync(base).filter(
    (version) => existsSync(`${base}/${version}/bin/initdb`) && existsSync(`${base}/${version}/bin/postgres`),
  );
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest && `${base}/${newest}/bin`;
}

/** PostGIS beside the newest PostgreSQL: the benchmarks alone compare themselves with it. */
export async function postgisExtension() {
  const version = /(\d+)\/bin$/.exec(await postgresPrograms())[1];
  if (existsSync(`/usr/share/postgresql/${version}/extension/postgis.control`)) return;
  say("PostGIS is not installed: installing Debian's package for the benchmarks");
  await install(`postgresql-${version}-postgis-3`);
}

/** Programs by which lookups that are handed out are run, each with Debian's packages. */
const LANGUAGES = {
  curl: ["curl"],
  python3: ["python3"],
  javac: ["default-jdk-headless"],
  go: ["golang-go"],
  // with the JSON that Android has
  kotlinc: ["kotlin", "libandroid-json-org-java"],
};

/** Lets a language's programs be there; installs Debian's package where they are not. @param program such as `python3` */
export async function languageProgram(program) {
  const isThere = (process.env.PATH ?? "").split(":").some((folder) => existsSync(`${folder}/${program}`));
  if (isThere) return;
  const packages = LANGUAGES[program];
  say(`${program} is not installed: installing ${packages.join(" and ")} of Debian for the tests`);
  await install(...packages);
}

/** What is Chromium for: tests want the quick one, benchmarks the one that people have. */
const CHROMIUM = {
  tests: { name: "chromium-headless-shell", program: "/usr/bin/chromium-headless-shell", megabytes: 70 },
  bench: { name: "chromium", program: "/usr/bin/chromium", megabytes: 100 },
};

/** Chromium for the browser tests, without windows and so in half the time; installs Debian's package when there is none. */
export const headlessChromium = () => chromium(CHROMIUM.tests);

/** The whole of Chromium, for benchmarks; installs Debian's package when there is none. */
export const wholeChromium = () => chromium(CHROMIUM.bench);

async function chromium({ name, program, megabytes }) {
  if (existsSync(program)) return program;
  say(`Chromium is not installed: installing Debian's package ${name} (some ${megabytes} MB)`);
  await install(name);
  if (!existsSync(program)) throw new Trouble(`Debian's package ${name} was installed, but ${program} is not there.`);
  return program;
}

/**
 * Programs that are only tested with, each with Debian's packages. Some would start at once, on ports of their own: their files
 * are taken out, and nothing is installed.
 */
const TAKEN_OUT = {
  nginx: ["usr/sbin/nginx", "nginx"],
  openssl: ["usr/bin/openssl", "openssl"],
  haproxy: ["usr/sbin/haproxy", "haproxy", "liblua5.3-0", "libopentracing-c-wrapper0", "libopentracing1"],
  wrk: ["usr/bin/wrk", "wrk", "libluajit-5.1-2"],
  debootstrap: ["usr/sbin/debootstrap", "debootstrap"],
  promtool: ["usr/bin/promtool", "prometheus"],
  "systemd-analyze": ["usr/bin/systemd-analyze", "systemd", "libsystemd-shared"],
};

/**
 * A program of Debian's: the one of this machine, or one whose files are taken out into a folder. Libraries of the packages are
 * then in its folders `usr/lib/…`.
 * @returns its path
 */
export async function takenOut(name, folder) {
  const [path, ...packages] = TAKEN_OUT[name];
  const found = [`/${path}`, join(folder, path)].find((one) => existsSync(one));
  if (found) return found;
  say(`${name} is not installed: taking it out of Debian's package for the tests`);
  await apt(["update"], "fetch Debian's list of packages");
  for (const one of packages) {
    const { code, output } = await hear("apt-get", ["download", one], { cwd: folder });
    const file = readdirSync(folder).find((each) => each.startsWith(`${one}_`) && each.endsWith(".deb"));
    if (code !== 0 || !file) throw new Trouble(`Could not fetch Debian's package ${one}:\n${output}`);
    const taken = await hear("dpkg-deb", ["-x", join(folder, file), folder], {});
    if (taken.code !== 0) throw new Trouble(`Could not take ${one} out of its package:\n${taken.output}`);
    rmSync(join(folder, file));
  }
  return join(folder, path);
}

/** The environment for programs that were taken out into a folder: it has the folders of their libraries, one for each kind of machine. */
export function withLibraries(folder) {
  const libraries = join(folder, "usr/lib");
  const kinds = existsSync(libraries) ? readdirSync(libraries).filter((name) => name.endsWith("-linux-gnu")) : [];
  const folders = kinds.flatMap((name) => [join(libraries, name), join(libraries, name, "systemd")]);
  return { ...process.env, LD_LIBRARY_PATH: folders.join(":") };
}

/** A new Debian of this machine's release in a folder, made once by debootstrap. @returns its folder, which is to be copied */
export async function debianBase(folder) {
  const base = join(folder, "base");
  const isWhole = join(folder, "base-is-whole");
  if (existsSync(isWhole)) return base;
  const debootstrap = await takenOut("debootstrap", folder);
  rmSync(base, { recursive: true, force: true });
  say("Making a base of Debian by debootstrap (some 200 MB)");
  const release = /^VERSION_CODENAME=(\w+)/m.exec(readFileSync("/etc/os-release", "utf8"))[1];
  const keys = "/usr/share/keyrings/debian-archive-keyring.gpg";
  const { code, output } = await hear(debootstrap, ["--variant=minbase", `--keyring=${keys}`, release, base], {
    env: { ...process.env, DEBOOTSTRAP_DIR: join(folder, "usr/share/debootstrap") },
  });
  if (code !== 0) throw new Trouble(`debootstrap failed:\n${output.trim().split("\n").slice(-20).join("\n")}`);
  writeFileSync(isWhole, "");
  return base;
}

/** Puts this machine's Node with npm into a Debian, and what reaches the registry from there: `/root/ca.pem` if there is one. */
export async function putNode(debian) {
  const folder = makeFolder(join(debian, "usr/lib/node_modules"));
  copyFileSync(process.execPath, join(debian, "usr/bin/node"));
  chmodSync(join(debian, "usr/bin/node"), 0o755);
  const { output } = await hear("npm", ["root", "-g"]);
  cpSync(join(realpathSync(output.trim().split("\n").at(-1)), "npm"), join(folder, "npm"), { recursive: true });
  for (const name of ["npm", "npx"]) {
    const text = `#!/bin/sh\nexec node /usr/lib/node_modules/npm/bin/${name}-cli.js "$@"\n`;
    writeFileSync(join(debian, "usr/bin", name), text, { mode: 0o755 });
  }
  copyFileSync("/etc/resolv.conf", join(debian, "etc/resolv.conf"));
  const certificates = process.env.NODE_EXTRA_CA_CERTS ?? process.env.SSL_CERT_FILE;
  if (certificates && existsSync(certificates)) copyFileSync(certificates, join(debian, "root/ca.pem"));
}

/**
 * Runs a script of bash in a new Debian that has this machine's Node and network but processes of its own, and takes it away again.
 * @param folder its folder's name beside the other ones
 * @param furnish puts what is needed into the folder that it is given, and returns the script
 * @returns the script's exit code
 */
export async function inNewDebian(folder, furnish) {
  if (!isRoot)
    throw new Trouble("A Debian of its own can be made by root alone.\nIt was NOT made, and nothing was run.");
  const base = await debianBase(makeFolder(join(home, "debian")));
  const debian = join(home, "debian", folder);
  rmSync(debian, { recursive: true, force: true });
  say("Making a new Debian");
  try {
    await must("Copying Debian", "cp", ["-a", base, debian]);
    await putNode(debian);
    return await runInDebian(debian, await furnish(debian));
  } finally {
    rmSync(debian, { recursive: true, force: true });
  }
}

async function runInDebian(debian, script) {
  const { output: registry } = await hear("npm", ["config", "get", "registry"]);
  const first = `export npm_config_registry="${registry.trim().split("\n").at(-1)}" npm_config_update_notifier=false
if [ -f /root/ca.pem ]; then export NODE_EXTRA_CA_CERTS=/root/ca.pem; fi
`;
  writeFileSync(join(debian, "root/run.sh"), `${first}${script}`);
  const within = `
set -e
mount -t proc proc "${debian}/proc"
mount -t tmpfs tmpfs "${debian}/dev/shm"
exec chroot "${debian}" /usr/bin/env -i PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin HOME=/root DEBIAN_FRONTEND=noninteractive bash /root/run.sh
`;
  return show("unshare", ["--pid", "--mount", "--fork", "--kill-child", "bash", "-c", within], { cwd: "/" });
}

/** Lets buildah be there, which makes containers. @returns its path */
export async function buildahProgram() {
  if (!existsSync(BUILDAH)) {
    say("buildah is not installed: installing Debian's package for the test of the container");
    await install("buildah");
  }
  return BUILDAH;
}
const BUILDAH = "/usr/bin/buildah";

async function install(...names) {
  await apt(["update"], "fetch Debian's list of packages");
  await apt(
    ["install", "-y", "--no-install-recommends", "-o", "Dpkg::Options::=--force-confold", ...names],
    `install ${names.join(", ")}`,
  );
}

/** Runs apt-get; waits with words while another program holds its lock. */
async function apt(args, what) {
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive", LC_ALL: "C" };
  const began = Date.now();
  for (let told = 0; ; ) {
    const [file, ...rest] = isRoot
      ? ["apt-get", ...args]
      : ["sudo", "--preserve-env=DEBIAN_FRONTEND", "apt-get", ...args];
    const { code, output } = await hear(file, rest, {
      env,
      stdio: [isRoot ? "ignore" : "inherit", "pipe", "pipe"],
    }).catch((error) => {
      throw new Trouble(
        `Could not ${what}: ${file} is missing (${error.code}).\nThis needs a Debian machine, as root or with sudo. Or set DATABASE_URL to a PostgreSQL that is running.`,
      );
    });
    if (code === 0) return;
    if (!LOCKED.test(output))
      throw new Trouble(
        `Could not ${what}:\n${output.trim().split("\n").slice(-8).join("\n")}\nRun “apt-get ${args.join(" ")}” by hand to see more.`,
      );
    if (Date.now() - began > PATIENCE)
      throw new Trouble("Another program has held apt-get's lock for a quarter of an hour. End it, then start again.");
    if (told++ % 10 === 0)
      say(`Another program is using apt-get; waiting for it to finish (${Math.round((Date.now() - began) / 1000)} s)`);
    await wait(3000);
  }
}
