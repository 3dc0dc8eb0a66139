import type { TraceEvent } from "@bibliotope/kit";

/** A mark on the time line: where it is (0 to 1), how long it lasts, and what it holds. */
export interface TraceMark {
  row: "keys" | "requests" | "services" | "list" | "fields";
  from: number;
  to: number;
  text: string;
  shape: "key" | "answered" | "dropped" | "failed" | "waiting" | "list" | "field";
  title: string;
  /** What was sent and what came back. */
  sent?: unknown;
  came?: unknown;
  /** What was written into which field, and by which rule. */
  written?: readonly Written[];
}

/** A value that was written into a field. */
export type Written = (TraceEvent & { row: "fields" })["fillings"][number];

/** Why fields were written, in words. */
const WHY: Record<(TraceEvent & { row: "fields" })["why"], string> = {
  chosen: "Chosen from the list",
  pressed: "Clicked on the map",
  moved: "Marker moved",
  asked: "Found from the fields",
  located: "Device location",
  exchanged: "Swapped with the other address",
  typed: "Used as typed",
  cleared: "Starting field cleared",
  corrected: "Corrected by the user",
  service: "From a service",
};

/** The same in a word, where the event's own is not what people call it. */
const WHY_SHORT: Partial<typeof WHY> = {
  pressed: "clicked",
  asked: "looked up",
  located: "device",
  exchanged: "swapped",
};

/** Shortest time that the line shows, in milliseconds. */
const SHORTEST = 2500;

/** Lays what happened out on a line of time. */
export function layOut(events: readonly TraceEvent[]): TraceMark[] {
  if (!events.length) return [];
  // what the key lacks is known before anything happens: it is at the beginning
  const first = (events.find(({ row }) => row !== "key") ?? events[0]).at;
  const span = Math.max(SHORTEST, (events.at(-1)!.at - first) * 1.04);
  const place = (at: number) => Math.max(0, (at - first) / span);
  const marks: TraceMark[] = [];
  const ends = new Map<number, TraceEvent & { row: "answered" | "dropped" }>();
  for (const event of events)
    if ((event.row === "answered" || event.row === "dropped") && !ends.has(event.id)) ends.set(event.id, event);
  for (const event of events) {
    if (event.row === "keys") {
      marks.push({
        row: "keys",
        from: place(event.at),
        to: place(event.at),
        text: event.place ? "map" : event.key === " " ? "␣" : event.key,
        shape: "key",
        title: event.place ? `Clicked on the map at ${ms(event.at - first)}` : `Key at ${ms(event.at - first)}`,
        sent: event.text,
      });
    } else if (event.row === "requests") {
      const end = ends.get(event.id);
      const shape = !end
        ? "waiting"
        : end.row === "dropped"
          ? "dropped"
          : end.row === "answered" && end.status === 200 && !isServiceEnd(event.call, end.answer)
            ? "answered"
            : "failed";
      const isService = event.call === "service";
      const name = isService ? (event.params.path?.split("/").at(-1) ?? event.call) : event.call;
      const took = end ? ms(end.at - event.at) : "no response yet";
      marks.push({
        row: isService ? "services" : "requests",
        from: place(event.at),
        to: place(end?.at ?? event.at),
        text: name,
        shape,
        title:
          `${name}: ${shape === "dropped" ? "dropped as stale after" : shape === "failed" ? "failed after" : ""} ${took}`.replace(
            / {2,}/g,
            " ",
          ),
        sent: event.params,
        came: end?.row === "answered" ? end.answer : undefined,
      });
    } else if (event.row === "key") {
      const lacks = event.lacks.join(", ");
      marks.push({
        row: "requests",
        from: 0,
        to: 0,
        text: lacks,
        shape: "failed",
        title: `The key may not ask for ${lacks}, which the form uses`,
        sent: event.lacks,
      });
    } else if (event.row === "list") {
      marks.push({
        row: "list",
        from: place(event.at),
        to: place(event.at),
        text: String(event.count),
        shape: "list",
        title: `${event.count} suggestions for “${event.text}”`,
        sent: event.text,
      });
    } else if (event.row === "fields") {
      const filled = event.fillings.filter(({ value }) => value !== "");
      marks.push({
        row: "fields",
        from: place(event.at),
        to: place(event.at),
        shape: "field",
        text:
          event.why === "cleared"
            ? "cleared"
            : `${WHY_SHORT[event.why] ?? event.why}: ${filled.length} ${filled.length === 1 ? "field" : "fields"}`,
        title: [WHY[event.why], event.line].filter(Boolean).join(": "),
        written: event.fillings,
      });
    }
  }
  return marks;
}

/** True for an answer with a service's failure. */
const isServiceEnd = (call: string, answer: unknown) =>
  call === "service" && !["answered", "outside"].includes(String((answer as { outcome?: unknown } | null)?.outcome));

/** What happened, counted; nothing before anything did. */
export function summary(events: readonly TraceEvent[]): string[] {
  if (!events.length) return [];
  const isLetter = (event: TraceEvent) => event.row === "keys" && event.key !== "↵" && !event.place;
  const keys = events.filter(isLetter).length;
  const params = events.filter((event) => event.row === "requests");
  const services = params.filter(({ call }) => call === "service").length;
  const requests = params.length - services;
  const dropped = events.filter((event) => event.row === "dropped").length;
  const firstList = events.findIndex((event) => event.row === "list");
  const letters = events.slice(0, Math.max(0, firstList)).filter(isLetter).length;
  return [
    [count(keys, "key"), count(requests, "request"), ...(services ? [count(services, "service")] : [])].join(" · "),
    ...(dropped ? [`${dropped} dropped as stale`] : []),
    ...(firstList >= 0 && letters
      ? [`first line after ${count(letters, "letter")}, ${ms(events[firstList].at - events[0].at)}`]
      : []),
  ];
}

const count = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;
const ms = (time: number) => `${Math.round(time)} ms`;
