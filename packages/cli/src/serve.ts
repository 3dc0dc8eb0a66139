/** What holds for a server of its own where the environment does not say otherwise; npm start has the demo and its port moves. */
const USUAL = {
  NODE_ENV: "production",
  BIBLIOTOPE_DEMO: "off",
  BIBLIOTOPE_PORTS: "1",
  BIBLIOTOPE_LOG: "stdout",
  BIBLIOTOPE_STORE: "database",
};

/** Runs the server in this process until it is stopped; its exit code is the server's. */
export async function serve({ check }: { check?: boolean }): Promise<void> {
  for (const [name, value] of Object.entries(USUAL)) process.env[name] ||= value;
  if (check) process.argv.push("--check");
  // a package of its own, which this one does not depend on to ask a server
  await import(new URL("../../server/dist/main.js", import.meta.url).href);
}
