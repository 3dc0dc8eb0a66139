import type { AddressInfo } from "node:net";
import express from "express";

/** An Express route that does nothing: what any answer of ours costs at the very least on this machine. */
const app = express();
app.get("/", (_request, response) => void response.json({ status: "ok" }));
const server = app.listen(0, "127.0.0.1", () => process.send?.((server.address() as AddressInfo).port));
