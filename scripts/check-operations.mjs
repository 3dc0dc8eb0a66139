import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { inNewDebian } from "./lib/debian.mjs";
import { root } from "./lib/places.mjs";
import { must } from "./lib/run.mjs";
import { command, Trouble } from "./lib/say.mjs";

// Runs the commands of docs/operations.md from top to bottom in a new Debian, and looks after each step whether it did what the
// page says. Nothing of this machine is used but its Node and where it gets packages from. Debian's own systemd does not run in there: what
// the page tells it to do is done by a script in its place, by what the unit says.

/** What a reader puts in place of the page's examples. */
const READ_AS = [
  ["https://YOUR-GIT-SERVER/bibliotope.git", "/mnt/clone"],
  ["   # then edit it", ""],
  ["ADDRESSES.csv", "/root/addresses.csv"],
  ["CERTIFICATE-AND-KEY.pem", "/root/certificate-and-key.pem"],
];

/** What is to be so after a step that has these words. */
const CHECKS = [
  // as the package does where systemd runs
  ["apt-get install", "pg_ctlcluster $(ls /etc/postgresql) main start"],
  ["systemctl enable --now bibliotope", "is_ready"],
  ["grep signIn", "makes_key"],
  ["bibliotope import", "answers 4870 http"],
  ["systemctl reload-or-restart haproxy", "answers 443 https"],
  ["bibliotope backup", "test -s /var/backups/bibliotope.backup"],
  ["bibliotope restore", "sleep 2 && is_ready && answers 443 https"],
  ["git pull", "is_ready && answers 443 https"],
];

/** In the place of systemd, by what the unit says: no isolation, no restarts but of what ended to be begun anew. */
const SYSTEMCTL = `#!/bin/bash
unit=/etc/systemd/system/bibliotope.service
of() { sed -n "s/^$1=//p" "$unit"; }
begin() {
  set -a; . "$(of EnvironmentFile)"; set +a
  export "$(of Environment)"
  install -d -o bibliotope -g bibliotope -m 700 "/var/lib/$(of StateDirectory)"
  cd "$(of WorkingDirectory)" || exit 1
  runuser -u "$(of User)" -- $(of ExecStartPre) > /dev/null || exit 1
  (while true; do
    runuser -u "$(of User)" -- $(of ExecStart) >> /var/log/bibliotope.log 2>&1
    [ $? = "$(of RestartForceExitStatus)" ] || break
  done) > /dev/null 2>&1 < /dev/null &
}
end() { pkill -TERM -u bibliotope -f "serve$"; while pgrep -u bibliotope -f "serve$" > /dev/null; do sleep 0.1; done; rm -f /var/lib/bibliotope/ready.json; }
case "$*" in
  daemon-reload) ;;
  "enable --now bibliotope") begin ;;
  "restart bibliotope") end; begin ;;
  "reload-or-restart haproxy") pkill haproxy; sleep 0.3
    sed "s/maxconn 20000/maxconn 4000/" /etc/haproxy/haproxy.cfg > /run/haproxy.cfg # as many as any machine lets a process have open
    haproxy -D -f /run/haproxy.cfg > /var/log/haproxy.log 2>&1 || { cat /var/log/haproxy.log; exit 1; } ;;
  *) echo "systemctl $*: the page tells systemd something new" >&2; exit 1 ;;
esac
`;

/** Asks the server as a reader of the page would. */
const ASK = `
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import http from "node:http";
import https from "node:https";
const [what, ...rest] = process.argv.slice(2);
function ask(port, scheme, path, { method = "GET", headers = {}, body } = {}) {
  return new Promise((resolve, reject) => {
    const asked = { https, http }[scheme].request(
      { host: "127.0.0.1", port, path, method, rejectUnauthorized: false, servername: "addresses.example",
        headers: { host: "addresses.example", ...(scheme === "http" ? { "x-forwarded-proto": "https" } : {}), ...headers } },
      async (response) => {
        let text = "";
        for await (const piece of response) text += piece;
        resolve({ status: response.statusCode, headers: response.headers, text });
      });
    asked.on("error", reject);
    asked.end(body);
  });
}
const must = (is, words) => { if (!is) { console.error("  " + words); process.exit(1); } };
if (what === "ready") {
  if (!existsSync("/var/lib/bibliotope/ready.json")) process.exit(1);
  const { status } = await ask(4870, "http", "/readyz").catch(() => ({}));
  process.exit(status === 200 ? 0 : 1);
} else if (what === "key") {
  const link = new URL(/https:[^"]+/.exec(rest[0])[0]);
  const entered = await ask(4870, "http", link.pathname + link.search);
  const cookie = entered.headers["set-cookie"].map((one) => one.split(";")[0]).join("; ");
  const { csrf } = JSON.parse((await ask(4870, "http", "/api/session", { headers: { cookie } })).text);
  const rules = { origins: [], calls: [], countries: [], endsAt: null, perMinute: null, perDay: null };
  const made = await ask(4870, "http", "/api/keys", { method: "POST", body: JSON.stringify({ kind: "srv", name: "Ours", ...rules }),
    headers: { cookie, "x-csrf-token": csrf, "content-type": "application/json" } });
  must(made.status === 201, made.text);
  writeFileSync("/root/key-of-ours", JSON.parse(made.text).key);
} else {
  const [port, scheme] = rest;
  const { status, text } = await ask(port, scheme, "/v1/forward?q=12+Harbour+Row+Tidewell", {
    headers: { authorization: "Bearer " + readFileSync("/root/key-of-ours", "utf8") } });
  must(status === 200 && JSON.parse(text).outcome === "matched", status + " " + text.slice(0, 400));
}
`;

await command(() => inNewDebian("operations", furnish));
process.exit();

/** What this machine gives beside its Node: the commit, and a file of made-up addresses. @returns what is run in there */
async function furnish(debian) {
  const put = (path, text, mode = 0o644) => {
    mkdirSync(dirname(join(debian, path)), { recursive: true });
    writeFileSync(join(debian, path), text, { mode });
  };
  await must("Cloning", "git", ["clone", "-q", "--bare", root, join(debian, "mnt/clone")]);
  const rows = Array.from({ length: 40 }, (_, i) => `Harbour Row,${i + 1},HT4 29,Tidewell,-35.18${i},-21.62`);
  put("root/addresses.csv", `street,house,postcode,town,lat,lon\n${rows.join("\n")}\n`);
  put("usr/local/bin/systemctl", SYSTEMCTL, 0o755);
  put("root/ask.mjs", ASK);
  const blocks = readBlocks();
  for (const [i, block] of blocks.entries()) put(`root/step-${i + 1}.sh`, block);
  return steps(blocks);
}

/** The commands of the page, as a reader writes them. */
function readBlocks() {
  const page = readFileSync(join(root, "docs/operations.md"), "utf8");
  const blocks = [...page.matchAll(/^```sh\n(.*?)^```$/gms)].map(([, text]) => text);
  return blocks.map((block) => READ_AS.reduce((read, [from, to]) => read.replaceAll(from, to), block));
}

/** All of them one after the other, each with its check. */
function steps(blocks) {
  const steps = blocks.map((block, i) => {
    const [, check = "true"] = CHECKS.find(([words]) => block.includes(words)) ?? [];
    return `
echo "  ${i + 1} of ${blocks.length}: ${block
      .trim()
      .split("\n")[0]
      .replaceAll(/["$`\\]/g, "")}"
if [ -d /opt/bibliotope ]; then cd /opt/bibliotope; fi
bash -eu /root/step-${i + 1}.sh > /root/step.log 2>&1 || { tail -40 /root/step.log; echo "  WRONG: step ${i + 1}"; exit 1; }
{ ${check}; } || { tail -20 /root/step.log /var/log/bibliotope.log; echo "  WRONG after step ${i + 1}: ${check}"; exit 1; }`;
  });
  const missing = CHECKS.filter(([words]) => !blocks.some((block) => block.includes(words)));
  if (missing.length)
    throw new Trouble(`docs/operations.md has no step with: ${missing.map(([words]) => words).join("; ")}`);
  return `
is_ready() { for i in $(seq 300); do node /root/ask.mjs ready && return 0; sleep 0.2; done; return 1; }
makes_key() { node /root/ask.mjs key "$(cat /root/step.log)"; }
answers() { node /root/ask.mjs answers "$1" "$2"; }
apt-get update -q > /root/step.log 2>&1 || { cat /root/step.log; exit 1; }
apt-get install -q -y openssl procps >> /root/step.log 2>&1
openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=addresses.example -keyout /root/key -out /root/certificate 2> /dev/null
cat /root/certificate /root/key > /root/certificate-and-key.pem
${steps.join("\n")}
echo "  The page does what it says."
`;
}
