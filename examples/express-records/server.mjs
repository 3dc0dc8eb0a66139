import { appendFile, readFile } from "node:fs/promises";
import { Client, placeOf } from "@bibliotope/kit/server";
import express from "express";

const { BIBLIOTOPE_URL, BIBLIOTOPE_SERVER_KEY, PORT = "4330", RECORDS = "records.jsonl" } = process.env;
if (!BIBLIOTOPE_URL || !BIBLIOTOPE_SERVER_KEY) throw new Error("Set BIBLIOTOPE_URL and BIBLIOTOPE_SERVER_KEY.");

const client = new Client({ url: BIBLIOTOPE_URL, key: BIBLIOTOPE_SERVER_KEY, retries: 1 });
const app = express();
app.use(express.json());
app.use(express.static(new URL("public", import.meta.url).pathname));
// the kit for the page, as a bundler would bring it
app.use("/kit", express.static(new URL(".", import.meta.resolve("@bibliotope/kit/server")).pathname));

app.post("/members", async (request, response) => {
  const { name = "", street = "", town = "", postcode = "" } = request.body ?? {};
  const place = await placeOf(
    client,
    { q: [street, town, postcode].filter(Boolean).join(", "), field: "street" },
    { exactness: "between", narrow: { countries: "QR" } },
  );
  // without a place there is nothing to store: the problem goes back to the form as it is
  if (!place.ok) {
    response.status(place.problem.status).type("application/problem+json").json(place.problem);
    return;
  }
  const { ref, at, line } = place;
  await appendFile(RECORDS, `${JSON.stringify({ name, line, ref, ...at })}\n`);
  response.status(201).json({ name, line, ...at });
});

app.get("/members", async (_request, response) => {
  const lines = await readFile(RECORDS, "utf8").catch(() => "");
  response.json(
    lines
      .split("\n")
      .filter(Boolean)
      .map((line) => JSON.parse(line)),
  );
});

app.listen(Number(PORT), "127.0.0.1", function ready() {
  console.log(`http://localhost:${this.address().port}`);
});
