import type { AddressInfo } from "node:net";
import express from "express";

/** A service of five lines, as somebody would write one: it takes five milliseconds, or for ever. */
const app = express();
app.get("/days", (_request, response) => void setTimeout(() => response.json({ days: ["Monday", "Friday"] }), 5));
app.get("/hangs", () => undefined);
const server = app.listen(0, "127.0.0.1", () => process.send?.((server.address() as AddressInfo).port));
process.on("disconnect", () => process.exit());
