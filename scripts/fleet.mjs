import { parseArgs } from "node:util";
import { build } from "./lib/build.mjs";
import { Fleet } from "./lib/fleet/fleet.mjs";
import { whyNoNamespaces } from "./lib/fleet/network.mjs";
import { installPackages } from "./lib/packages.mjs";
import { command, Trouble } from "./lib/say.mjs";

/**
 * Tests a fleet on this one machine, each host a network namespace: a table says what was lost. `--from REF` begins with the
 * servers of an earlier commit, and upgrades them one after the other; `--only WORDS` has one fault alone.
 */
const { values } = parseArgs({ options: { from: { type: "string" }, only: { type: "string" } } });

await command(async () => {
  const why = await whyNoNamespaces();
  if (why) throw new Trouble(`Network namespaces cannot be made here: ${why}.\nThe fleet was NOT tested.`);
  await installPackages();
  await build();
  const fleet = new Fleet(values);
  try {
    await fleet.start();
    return await fleet.goThrough();
  } finally {
    await fleet.stop();
  }
});
process.exit();
