import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { takenOut, withLibraries } from "./lib/debian.mjs";
import { home, makeFolder, root } from "./lib/places.mjs";
import { hear } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";

// The files of deploy/, each checked by the program that it is for.

const CERTIFICATES = "/etc/haproxy/";

await command(async () => {
  const debian = makeFolder(join(home, "debian"));
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-deploy-"));
  const deploy = (name) => join(root, "deploy", name);
  const [openssl, haproxy, promtool, systemd] = await inTurn(
    ["openssl", "haproxy", "promtool", "systemd-analyze"],
    (name) => takenOut(name, debian),
  );
  const libraries = withLibraries(debian);
  const run = async (what, program, args, cwd = root) => {
    const env = program.startsWith(debian) ? libraries : process.env;
    const { code, output } = await hear(program, args, { cwd, env });
    say(`${code === 0 ? "valid" : "WRONG"}: ${what}`);
    if (code !== 0) console.error(output);
    return code;
  };
  try {
    // a certificate of its own: the one of the configuration is where it is used
    const subject = ["-subj", "/CN=localhost", "-days", "2", "-nodes"];
    await hear(openssl, ["req", "-x509", "-newkey", "rsa:2048", ...subject, "-keyout", "key", "-out", "certificate"], {
      cwd: folder,
    });
    writeFileSync(
      join(folder, "addresses.pem"),
      ["certificate", "key"].map((name) => readFileSync(join(folder, name), "utf8")).join(""),
    );
    const configuration = readFileSync(deploy("haproxy.cfg"), "utf8").replaceAll(CERTIFICATES, `${folder}/`);
    writeFileSync(join(folder, "haproxy.cfg"), configuration);
    const codes = await inTurn(
      [
        ["haproxy.cfg", haproxy, ["-c", "-f", join(folder, "haproxy.cfg")]],
        [
          "haproxy.cfg with haproxy-database.cfg",
          haproxy,
          ["-c", "-f", join(folder, "haproxy.cfg"), "-f", deploy("haproxy-database.cfg")],
        ],
        ["make-standby.sh and promote.sh", "sh", ["-n", deploy("make-standby.sh"), deploy("promote.sh")]],
        ["alerts.yml", promtool, ["check", "rules", deploy("alerts.yml")]],
        ["alerts.test.yml: when each rule fires", promtool, ["test", "rules", deploy("alerts.test.yml")]],
        ["bibliotope.service", systemd, ["verify", deploy("bibliotope.service")]],
      ],
      (step) => run(...step),
    );
    return codes.some(Boolean) ? 1 : 0;
  } finally {
    rmSync(folder, { recursive: true });
  }
});
process.exit();

async function inTurn(list, each) {
  const done = [];
  for (const one of list) done.push(await each(one));
  return done;
}
