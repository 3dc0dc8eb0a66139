import { join } from "node:path";
import { inNewDebian } from "./lib/debian.mjs";
import { root } from "./lib/places.mjs";
import { must } from "./lib/run.mjs";
import { command } from "./lib/say.mjs";

// Runs both commands of the README in a clone of the last commit, in a new Debian that has Node and nothing else: `npm start`
// until the product answers and ends when it is told to, then `npm test`.

/** Asks the product one question, as its page would. */
const ASK = `
const { readFileSync } = require("node:fs");
const { url, keys } = JSON.parse(readFileSync(".bibliotope/ready.json", "utf8"));
fetch(url + "/v1/forward?q=12+Harbour+Row+Tidewell", { headers: { authorization: "Bearer " + keys.srv } })
  .then(async (answer) => {
    const text = await answer.text();
    if (JSON.parse(text).outcome !== "matched") throw new Error(text.slice(0, 400));
  })
  .then(() => fetch(url + "/"))
  .then((page) => process.exit(page.ok ? 0 : 1));
`;

const COMMANDS = `
cd /root/bibliotope
echo "  npm start"
began=$SECONDS
setsid npm start > /root/start.log 2>&1 &
for i in $(seq 1800); do
  if [ -f .bibliotope/ready.json ] || ! kill -0 $! 2> /dev/null; then break; fi
  sleep 0.5
done
node -e '${ASK}' || { tail -40 /root/start.log; echo "  WRONG: npm start does not answer"; exit 1; }
echo "  answers after $((SECONDS - began)) s"
kill -- -$!
wait $!
echo "  npm test"
CI=true npm test
`;

await command(() =>
  inNewDebian("commands", async (debian) => {
    await must("Cloning", "git", ["clone", "-q", "--no-hardlinks", root, join(debian, "root/bibliotope")]);
    return COMMANDS;
  }),
);
process.exit();
