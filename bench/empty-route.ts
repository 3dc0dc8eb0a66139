import type { AddressInfo } from "node:net";
import express from "express";

/** An Express route that does nothing: what any answer of ours costs at the very least on this machine. */
const app = express();
app.get("/", (_request, response) => void response.json({ status: "ok" }));
process.on("message", () => {
  const { user, system } = process.cpuUsage();
  process.send?.({ processor: (user + system) / 1000 });
});
const server = app.listen(0, "127.0.0.1", () => process.send?.((server.address() as AddressInfo).port));
