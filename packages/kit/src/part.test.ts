import { expect, test } from "vitest";
import { part } from "./part.ts";

const ADDRESS = "data:text/javascript,export%20const%20held=1";

test("after a failure, a part is requested from an address that no browser keeps as failed", async () => {
  let tries = 0;
  const load = part<{ held: number }>(() => {
    tries += 1;
    return Promise.reject(new TypeError(`Failed to fetch dynamically imported module: ${ADDRESS}`));
  });
  await expect(load()).rejects.toThrow(TypeError);
  await expect(load()).resolves.toMatchObject({ held: 1 });
  await expect(load()).resolves.toMatchObject({ held: 1 });
  expect(tries).toBe(1);
});

test("where the error names no address, a part is imported as before", async () => {
  let tries = 0;
  const load = part(() =>
    ++tries < 3 ? Promise.reject(new TypeError("Importing a module script failed.")) : Promise.resolve(tries),
  );
  await expect(load()).rejects.toThrow(TypeError);
  await expect(load()).rejects.toThrow(TypeError);
  await expect(load()).resolves.toBe(3);
});
