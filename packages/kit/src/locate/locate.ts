import type { Position } from "@bibliotope/core/geo";
import { lengthText } from "@bibliotope/core/map";
import { say, wordsLang } from "../words/say.ts";

/** Why the device's position is not known. */
export type NotLocated = "unsupported" | "insecure" | "denied" | "off" | "timeout";

/** The device's position, or why there is none; a refusal is a value, never an exception. */
export type Located =
  | {
      ok: true;
      at: Position /** Metres around it. */;
      within: number;
      isInexact: boolean;
      words?: string;
      next?: string;
    }
  | { ok: false; why: NotLocated; words: string; next: string };

export interface LocateOptions {
  /** Milliseconds until it is given up; 10,000 when not given. */
  timeout?: number;
  /** Metres of uncertainty from which a position counts as inexact; 200 when not given. */
  inexact?: number;
  /** Where the position comes from; the browser's when not given. */
  from?: Geolocation | undefined;
}

const refusals = (): Readonly<Record<NotLocated, { words: string; next: string }>> => ({
  unsupported: {
    words: say("This browser cannot determine the device's location."),
    next: say("Type the address, or place the marker on the map."),
  },
  insecure: {
    words: say("Location is only available over a secure connection."),
    next: say("Open the page over https, or type the address."),
  },
  denied: {
    words: say("This page is not allowed to use the device's location."),
    next: say("Allow it in the browser's settings for this page, or type the address."),
  },
  off: {
    words: say("The device's location is not available."),
    next: say("Turn on location, or type the address."),
  },
  timeout: {
    words: say("Locating the device took too long."),
    next: say("Try again, if possible near a window, or type the address."),
  },
});

/** Asks once for the device's position. */
export function locate(options: LocateOptions = {}): Promise<Located> {
  return new Promise((resolve) => {
    const stop = watchDevice((located) => {
      resolve(located);
      // the first answer may come before the watch has a name
      queueMicrotask(() => stop());
    }, options);
  });
}

/** Hears of the device's position again and again, until it is stopped. @returns what stops it */
export function watchDevice(
  heard: (located: Located) => void,
  { timeout = 10_000, inexact = 200, from = globalThis.navigator?.geolocation }: LocateOptions = {},
): () => void {
  const refuse = (why: NotLocated) => heard({ ok: false, why, ...refusals()[why] });
  if (!from) {
    refuse("unsupported");
    return () => undefined;
  }
  if (globalThis.isSecureContext === false) {
    refuse("insecure");
    return () => undefined;
  }
  const watch = from.watchPosition(
    ({ coords: { latitude, longitude, accuracy } }) =>
      heard({
        ok: true,
        at: { lat: latitude, lon: longitude },
        within: accuracy,
        isInexact: accuracy > inexact,
        ...(accuracy > inexact
          ? {
              words: say("The device is somewhere within {length} of here.", { length: roughly(accuracy) }),
              next: say("Move the marker to the right house."),
            }
          : {}),
      }),
    ({ code }) => refuse(code === 1 ? "denied" : code === 3 ? "timeout" : "off"),
    { enableHighAccuracy: true, timeout, maximumAge: 5000 },
  );
  return () => from.clearWatch(watch);
}

/** Whether, and within how many metres, the device is near a place. */
export const withinWords = (metres: number) =>
  say("This device is within {length} of here.", { length: lengthText(metres, wordsLang()) });

/** A length of which the last digits mean nothing. */
const roughly = (metres: number) =>
  lengthText(metres < 950 ? Math.round(metres / 50) * 50 : Number(metres.toPrecision(2)), wordsLang(), true);
