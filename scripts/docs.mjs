import { existsSync } from "node:fs";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { build } from "./lib/build.mjs";
import { headlessChromium } from "./lib/debian.mjs";
import { searchDocs } from "./lib/docs-search.mjs";
import { root } from "./lib/places.mjs";
import { must } from "./lib/run.mjs";
import { command, say, Trouble } from "./lib/say.mjs";

const site = join(root, "site");
const { values } = parseArgs({ options: { check: { type: "boolean" }, base: { type: "string" } } });
/** Where people find them: pages name their files by the whole path. */
const base = values.base ? ["--base", values.base] : [];

/** Builds the docs as a site; a link that leads nowhere fails it. `--check` tries its search, too; `--base /addresses/docs/` is for a server under a path. */
await command(async () => {
  if (!existsSync(join(site, "node_modules/vitepress"))) {
    say("Installing what builds the docs");
    await must("Installing what builds the docs", "npm", ["ci", "--no-audit", "--no-fund"], { cwd: site });
  }
  say("Building the docs");
  await must("Building the docs", join(site, "node_modules/.bin/vitepress"), ["build", ...base], { cwd: site });
  if (values.check) {
    await build();
    say("Searching them as newcomers do");
    const wrong = await searchDocs(join(site, "dist"), await headlessChromium());
    if (wrong.length)
      throw new Trouble(`The search of the docs does not lead to the right page first:\n${wrong.join("\n")}`);
  }
  say("A server has them at /docs once it is started again");
});
