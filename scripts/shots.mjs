import { join } from "node:path";
import { headlessChromium } from "./lib/debian.mjs";
import { root } from "./lib/places.mjs";
import { show } from "./lib/run.mjs";
import { command } from "./lib/say.mjs";
import { withServer } from "./lib/with-server.mjs";

/** Takes the pictures of docs/screenshots from the demo data. */
await command(() =>
  withServer("shots", 5270, headlessChromium, (folder) =>
    show(join(root, "node_modules/.bin/playwright"), ["test", "--config", "e2e/shots/playwright.config.ts"], {
      cwd: root,
      env: { ...process.env, BIBLIOTOPE_TEST_HOME: folder },
    }),
  ),
);
process.exit();
