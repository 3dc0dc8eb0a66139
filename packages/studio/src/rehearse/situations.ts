import type { ClientOptions } from "@bibliotope/kit";
import type { Rehearsed, Situation } from "@bibliotope/wire";

/** What a form can be rehearsed in: played by the service for a try key, or by the browser's side. */
export const SITUATION_WORDS: Record<Rehearsed, string> = {
  normal: "normal",
  none: "nothing is found",
  differs: "something differs",
  several: "several match",
  slow: "slow answers",
  down: "the service is down",
  limit: "a limit is reached",
  refused: "the key is refused",
  malformed: "a request is invalid",
  offline: "off-line",
  denied: "position denied",
  off: "position switched off",
  timeout: "position times out",
  inexact: "position inaccurate",
  "service-none": "outside services find nothing",
  "service-slow": "outside services are slow",
  "service-down": "outside services are down",
  "service-refused": "outside services refuse",
  "service-malformed": "outside services return unreadable data",
};

const ON_DEVICE: ReadonlySet<Rehearsed> = new Set(["denied", "off", "timeout", "inexact"]);

/** What is played of outside services alone; undefined for what is of lookups too. */
export function ofServicesAlone(rehearsed: Rehearsed): Situation | undefined {
  return rehearsed.startsWith("service-") ? (rehearsed.slice("service-".length) as Situation) : undefined;
}

/** What the client plays of a situation. */
export function wireSituation(rehearsed: Rehearsed): ClientOptions["situation"] {
  return rehearsed === "normal" || ON_DEVICE.has(rehearsed)
    ? undefined
    : (ofServicesAlone(rehearsed) ?? (rehearsed as NonNullable<ClientOptions["situation"]>));
}

/** Calls that a situation is played for; undefined for all. */
export const playedCalls = (rehearsed: Rehearsed): ClientOptions["plays"] =>
  ofServicesAlone(rehearsed) ? SERVICE : undefined;
/** One list, so that a client is made anew only when something changes. */
const SERVICE = ["service"] as const;

/** Somewhere in the middle of the demo's first town. */
const SOMEWHERE = { latitude: -35.1841, longitude: -21.6253 };
/** Metres of an inexact position; milliseconds until an answer. */
const INEXACT = 1400;
const SOON = 400;

/** A device that answers as the situation wants; undefined for the browser's own. */
export function playedDevice(rehearsed: Rehearsed): Geolocation | undefined {
  if (!ON_DEVICE.has(rehearsed)) return undefined;
  const errors = { denied: 1, off: 2, timeout: 3 } as const;
  const timers = new Map<number, ReturnType<typeof setTimeout>>();
  let watches = 0;
  const answer = (heard: PositionCallback, failed?: PositionErrorCallback | null) => {
    if (rehearsed === "inexact") {
      const coords = { ...SOMEWHERE, accuracy: INEXACT } as GeolocationCoordinates;
      heard({ coords, timestamp: Date.now() } as GeolocationPosition);
      return;
    }
    const code = errors[rehearsed as keyof typeof errors];
    failed?.({ code, message: "played", PERMISSION_DENIED: 1, POSITION_UNAVAILABLE: 2, TIMEOUT: 3 });
  };
  return {
    getCurrentPosition: (heard, failed) => void setTimeout(() => answer(heard, failed), SOON),
    watchPosition: (heard, failed) => {
      const id = ++watches;
      timers.set(
        id,
        setTimeout(() => answer(heard, failed), SOON),
      );
      return id;
    },
    clearWatch: (id) => clearTimeout(timers.get(id)),
  };
}

/** Widths of a page that a form is looked at in, in CSS pixels; the first as broad as there is room. */
export const WIDTHS = { desk: 374, tablet: 600, phone: 320 } as const;
export type Width = keyof typeof WIDTHS;
