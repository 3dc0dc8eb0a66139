import type { Express } from "express";
import { standIn } from "./stand-in.ts";

/** Hours between two high waters. */
const TIDE = 12.42;
const MOST_SECONDS = 20;

/** High and low water of a harbour as plain XML; slow on purpose if requested. */
export function tideTable(): Express {
  const app = standIn({
    title: "The tide table of the harbours",
    words: [
      "High and low water of a day, for every harbour that is asked for, as plain XML.",
      "It takes as long as it is asked to: take= and seconds, twenty at most.",
    ],
    examples: ["curl '{here}/tides?harbour=Tidewell&day=2026-06-01'", "curl '{here}/tides?harbour=Tidewell&take=1.5'"],
  });
  app.get("/tides", (request, response) => {
    const { harbour = "", day = new Date().toISOString().slice(0, 10), take = "0" } = request.query;
    const seconds = Math.min(MOST_SECONDS, Math.max(0, Number(take) || 0));
    setTimeout(() => {
      if (!String(harbour).trim()) return void response.status(400).type("xml").send("<problem>No harbour.</problem>");
      response.type("application/xml").send(tidesOf(String(harbour), String(day)));
    }, seconds * 1000);
  });
  return app;
}

function tidesOf(harbour: string, day: string): string {
  const seed = Array.from(harbour + day).reduce((sum, sign) => (sum * 31 + sign.codePointAt(0)!) % 745, 7);
  const first = (seed / 745) * TIDE;
  const tides = [0, 0.5, 1, 1.5].flatMap((turn) => {
    const hour = first + turn * TIDE;
    if (hour >= 24) return [];
    const isHigh = Number.isInteger(turn);
    const metres = (isHigh ? 3.1 : 0.6) + (seed % 7) / 10;
    return [`  <tide kind="${isHigh ? "high" : "low"}" metres="${metres.toFixed(1)}">${clock(hour)}</tide>`];
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<tides harbour="${escaped(harbour)}" day="${escaped(day)}">
${tides.join("\n")}
</tides>
`;
}

const clock = (hour: number) =>
  `${String(Math.floor(hour)).padStart(2, "0")}:${String(Math.floor((hour % 1) * 60)).padStart(2, "0")}`;
const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[sign]!);
