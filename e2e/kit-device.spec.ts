import { expect, type Page } from "@playwright/test";
import { type KitPage, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";
import { nextFrame, standsStill } from "./support/rest.ts";

const HERE = { latitude: -35.174, longitude: -21.6255, accuracy: 35 };
const button = (page: Page) => page.getByRole("button", { name: "Show my location" });
const note = (kit: KitPage) => kit.map.locator(".bt-note");

test(
  "granted: the sign stands where the device is, and the map follows it until it is moved by hand",
  long(),
  async ({ kit, page, context }) => {
    await context.grantPermissions(["geolocation"]);
    await context.setGeolocation(HERE);
    await kit.make({ device: true });
    await button(page).click();
    await expect.poll(async () => (await kit.view()).lat).toBeCloseTo(HERE.latitude, 4);
    expect((await kit.view()).zoom).toBeGreaterThanOrEqual(15);
    await expect(button(page)).toHaveAttribute("aria-pressed", "true");
    await expect(note(kit)).toBeHidden();

    await context.setGeolocation({ ...HERE, longitude: -21.62 });
    await expect.poll(async () => (await kit.view()).lon).toBeCloseTo(-21.62, 4);

    await kit.drag([400, 240], [300, 240]);
    await expect(button(page)).toHaveAttribute("data-state", "shown");
    await standsStill(page);
    const left = await kit.view();
    // a watch of our own, begun after the map's: when it hears of the place, the map has
    const heard = page.evaluate(
      (lon) =>
        new Promise<void>((resolve) =>
          navigator.geolocation.watchPosition(({ coords }) => coords.longitude === lon && resolve()),
        ),
      -21.61,
    );
    await context.setGeolocation({ ...HERE, longitude: -21.61 });
    await heard;
    await nextFrame(page);
    expect((await kit.view()).lon).toBeCloseTo(left.lon, 4);
    await button(page).click();
    await expect.poll(async () => (await kit.view()).lon).toBeCloseTo(-21.61, 4);
    await button(page).click();
    await expect(button(page)).toHaveAttribute("data-state", "off");
  },
);

test("inexact: the circle is there, and words that say how inexact and what to do", async ({ kit, page, context }) => {
  await context.grantPermissions(["geolocation"]);
  await context.setGeolocation({ ...HERE, accuracy: 2300 });
  await kit.make({ device: true });
  await button(page).click();
  await expect(note(kit)).toHaveText(
    "The device is somewhere within 2.3 km of here. Move the marker to the right house.",
  );
});

test("denied: it is said, with what to do", async ({ kit, page, context }) => {
  await context.clearPermissions();
  await kit.make({ device: true });
  await button(page).click();
  await expect(note(kit)).toHaveText(
    "This page is not allowed to use the device's location. Allow it in the browser's settings for this page, or type the address.",
  );
  await expect(button(page)).toHaveAttribute("data-state", "off");
});

/** Answers as a device does that refuses. */
const refuse = (page: Page, code: number | "never" | "none") =>
  page.evaluate((how) => {
    const watchPosition = (_heard: PositionCallback, refused: PositionErrorCallback) => {
      if (typeof how === "number") setTimeout(() => refused({ code: how } as GeolocationPositionError), 50);
      return 1;
    };
    Object.defineProperty(navigator, "geolocation", {
      configurable: true,
      value: how === "none" ? undefined : { watchPosition, clearWatch: () => undefined },
    });
  }, code);

test("switched off, timed out and not supported: each is said, with what to do", async ({ kit, page }) => {
  await kit.make({ device: true });
  await refuse(page, 2);
  await button(page).click();
  await expect(note(kit)).toHaveText("The device's location is not available. Turn on location, or type the address.");
  await refuse(page, 3);
  await button(page).click();
  await expect(note(kit)).toHaveText(
    "Locating the device took too long. Try again, if possible near a window, or type the address.",
  );
  await refuse(page, "none");
  await button(page).click();
  await expect(note(kit)).toHaveText(
    "This browser cannot determine the device's location. Type the address, or place the marker on the map.",
  );
});

test("while it is being found there is a sign of it, and a second press gives up", async ({ kit, page }) => {
  await kit.make({ device: true });
  await refuse(page, "never");
  await button(page).click();
  await expect(button(page)).toHaveAttribute("aria-busy", "true");
  await expect(note(kit)).toHaveText("Locating this device …");
  await button(page).click();
  await expect(button(page)).not.toHaveAttribute("aria-busy", "true");
  await expect(note(kit)).toBeHidden();
});
