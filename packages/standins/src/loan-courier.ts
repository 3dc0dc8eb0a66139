import express, { type Express } from "express";
import { standIn } from "./stand-in.ts";

/** Days on which vans leave, by the first letter of a town; a town without a letter has none. */
const ROUNDS = [
  ["Monday", "Wednesday", "Friday"],
  ["Tuesday", "Thursday"],
  ["Monday", "Tuesday", "Thursday", "Saturday"],
];
/** Kilometres a van drives in an hour, and by how much the road is longer than the straight line. */
const [PACE, DETOUR] = [38, 1.35];

/** Collection days and cost, by GET and POST; a route between two branches. Wants a token for the route. */
export function loanCourier(token = "van-and-barrow"): Express {
  const app = standIn({
    title: "The loan courier",
    words: [
      "Carries books from one branch to another. It says on which days it collects in a town, what that costs, and which way it drives.",
      `The route wants a token in the header Authorization: Bearer ${token}.`,
    ],
    examples: [
      "curl '{here}/days?town=Tidewell'",
      `curl '{here}/collections' -H 'Content-Type: application/json' -d '{"town":"Tidewell","books":3}'`,
      `curl '{here}/route?from=-35.184,-21.625&to=-35.2,-21.6' -H 'Authorization: Bearer ${token}'`,
    ],
  });
  app.use(express.json({ limit: "64kb" }));

  app.get("/days", (request, response) => {
    const days = daysOf(request.query.town);
    if (!days.length) return void response.status(404).json({ error: "No van comes there." });
    response.json({ town: request.query.town, days, next: { day: days[0], before: "10:00" } });
  });

  app.post("/collections", (request, response) => {
    const { town, books } = request.body ?? {};
    if (typeof books !== "number" || !Number.isInteger(books) || books < 1)
      return void response.status(422).json({ error: "books: a whole number, at least one." });
    const days = daysOf(town);
    if (!days.length) return void response.status(404).json({ error: "No van comes there." });
    const slots = days.map((day) => ({ day, from: "09:30", until: "12:00" }));
    response.status(201).json({ collection: { slots, cost: (1.8 + books * 0.35).toFixed(2), insured: books < 40 } });
  });

  app.get("/route", (request, response) => {
    if (request.get("Authorization") !== `Bearer ${token}`)
      return void response.status(401).json({ error: "Send the token that you were given." });
    const [from, to] = [positionOf(request.query.from), positionOf(request.query.to)];
    if (!from || !to) return void response.status(400).json({ error: "from and to: LAT,LON." });
    const line = bent(from, to);
    const metres = Math.round(straight(from, to) * DETOUR);
    response.type("application/geo+json").send(
      JSON.stringify({
        type: "Feature",
        geometry: { type: "LineString", coordinates: line.map(([lat, lon]) => [lon, lat]) },
        properties: { metres, minutes: Math.max(1, Math.round((metres / 1000 / PACE) * 60)) },
      }),
    );
  });
  return app;
}

function daysOf(town: unknown): string[] {
  const letter = typeof town === "string" ? (/\p{L}/u.exec(town)?.[0] ?? "") : "";
  return letter ? ROUNDS[letter.toLowerCase().codePointAt(0)! % ROUNDS.length] : [];
}

type Spot = readonly [lat: number, lon: number];

function positionOf(text: unknown): Spot | undefined {
  const found = typeof text === "string" && /^(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?)$/.exec(text.trim());
  return found ? [Number(found[1]), Number(found[2])] : undefined;
}

/** Metres of the straight line. */
function straight([lat, lon]: Spot, [lat2, lon2]: Spot): number {
  const degree = 111_195;
  return Math.hypot((lat2 - lat) * degree, (lon2 - lon) * degree * Math.cos(((lat + lat2) / 2) * (Math.PI / 180)));
}

/** A road: it leaves the straight line by bends that are always the same. */
function bent(from: Spot, to: Spot): Spot[] {
  const steps = 8;
  const [north, east] = [to[0] - from[0], to[1] - from[1]];
  return Array.from({ length: steps + 1 }, (_, i) => {
    const share = i / steps;
    const aside = i === 0 || i === steps ? 0 : Math.sin(share * Math.PI * 2.5) * 0.18;
    return [from[0] + north * share - east * aside, from[1] + east * share + north * aside] as const;
  }).map(([lat, lon]) => [Number(lat.toFixed(6)), Number(lon.toFixed(6))] as const);
}
