import { spawn } from "node:child_process";
import { join } from "node:path";
import { root } from "./places.mjs";
import { Trouble } from "./say.mjs";

/**
 * Starts the stand-ins for outside services, each on a free port of this machine. They end when this process ends.
 * @returns what a server is told of them, and what ends them
 */
export async function startStandIns() {
  const child = spawn(process.execPath, [join(root, "packages/standins/dist/main.js")], {
    stdio: ["ignore", "inherit", "inherit", "ipc"],
  });
  const ended = new Promise((resolve) => child.once("exit", resolve));
  const urls = await new Promise((resolve, reject) => {
    child.once("message", resolve);
    void ended.then(() => reject(new Trouble("The stand-ins for outside services ended before they were ready.")));
  });
  return {
    env: { BIBLIOTOPE_STAND_INS: JSON.stringify(urls) },
    stop: async () => {
      if (child.exitCode === null && child.signalCode === null) child.kill("SIGTERM");
      await ended;
    },
  };
}
