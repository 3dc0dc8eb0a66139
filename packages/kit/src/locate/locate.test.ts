import { describe, expect, it } from "vitest";
import { type Located, locate, watchDevice } from "./locate.ts";

/** A device that tells what it is told to. */
function device(...told: ({ lat: number; lon: number; within: number } | { code: number })[]) {
  const cleared: number[] = [];
  let options: PositionOptions | undefined;
  const from = {
    watchPosition(heard: PositionCallback, refused: PositionErrorCallback, request?: PositionOptions) {
      options = request;
      for (const one of told) {
        if ("code" in one) refused({ code: one.code } as GeolocationPositionError);
        else heard({ coords: { latitude: one.lat, longitude: one.lon, accuracy: one.within } } as GeolocationPosition);
      }
      return 7;
    },
    clearWatch: (watch: number) => void cleared.push(watch),
  } as unknown as Geolocation;
  return { from, cleared, asked: () => options };
}

describe("locate", () => {
  it("is where the device says, and how sure that is", async () => {
    const { from, cleared, asked: request } = device({ lat: -35.2, lon: -21.4, within: 35 });
    expect(await locate({ from, timeout: 4000 })).toEqual({
      ok: true,
      at: { lat: -35.2, lon: -21.4 },
      within: 35,
      isInexact: false,
    });
    await Promise.resolve();
    expect(cleared).toEqual([7]);
    expect(request()).toMatchObject({ timeout: 4000, enableHighAccuracy: true });
  });

  it("says so when it is inexact, with what to do", async () => {
    const located = await locate({ from: device({ lat: 0, lon: 0, within: 2300 }).from });
    expect(located).toMatchObject({
      ok: true,
      isInexact: true,
      words: "The device is somewhere within 2.3 km of here.",
      next: "Move the marker to the right house.",
    });
  });

  it.each([
    [1, "denied"],
    [2, "off"],
    [3, "timeout"],
  ])("has a value, words and a next step for refusal %i", async (code, why) => {
    const located = await locate({ from: device({ code }).from });
    expect(located).toMatchObject({ ok: false, why });
    if (!located.ok) {
      expect(located.words).toMatch(/\.$/);
      expect(located.next).toMatch(/\.$/);
    }
  });

  it("has one where there is no such thing at all", async () => {
    expect(await locate({ from: undefined })).toMatchObject({ ok: false, why: "unsupported" });
  });
});

describe("watchDevice", () => {
  it("hears of every change until it is stopped", () => {
    const { from, cleared } = device({ lat: 1, lon: 1, within: 900 }, { code: 3 }, { lat: 1, lon: 2, within: 10 });
    const heard: Located[] = [];
    const stop = watchDevice((located) => heard.push(located), { from });
    expect(heard.map(({ ok }) => ok)).toEqual([true, false, true]);
    stop();
    expect(cleared).toEqual([7]);
  });
});
