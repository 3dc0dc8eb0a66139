import { expect, it } from "vitest";
import { profileOf } from "./index.ts";
import { regionOf } from "./regions.ts";

it.each([
  ["US", "CA", "California"],
  ["US", "us-ny", "New York"],
  ["CA", "QC", "Quebec"],
  ["AU", "NSW", "New South Wales"],
  ["BR", "sp", "São Paulo"],
  ["DE", "BY", "Bayern"],
  ["CH", "ZH", "Zürich"],
])("the region %s-%s is %s", (country, code, name) => {
  expect(regionOf(country, code)?.name).toBe(name);
  expect(profileOf(country).labels.region).toBeDefined();
});

it("is none that nobody knows", () => {
  expect(regionOf("US", "California")).toBeUndefined();
  expect(regionOf("PL", "CA")).toBeUndefined();
  expect(regionOf("US", "constructor")).toBeUndefined();
});
