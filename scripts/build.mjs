import { join } from "node:path";
import { build } from "./lib/build.mjs";
import { withLock } from "./lib/lock.mjs";
import { home, makeFolder } from "./lib/places.mjs";
import { command } from "./lib/say.mjs";

await command(async () => {
  makeFolder(home);
  await withLock(join(home, "setup.lock"), "Another command is setting up; waiting for it", build);
});
