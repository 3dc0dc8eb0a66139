import { expect, it } from "vitest";
import { RowReader } from "../../bring/index.ts";
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

it("has its name where a file has its code, and keeps the code as its short form", () => {
  const columns = ["street", "house", "town", "region", "lat", "lon"].map((meaning) => ({ meaning }) as never);
  const reader = new RowReader({ columns, country: "US", recases: true });
  const areasOf = (region: string) =>
    reader.read(["MAIN STREET", "12", "CLEARBURG", region, "40.1", "-100.2"]).row?.areas;
  const region = { kind: "region", names: [{ lang: "en", name: "California", abbr: "CA" }], code: "CA" };
  expect(areasOf("CA")).toContainEqual(region);
  // as a name it is left as it is
  expect(areasOf("CALIFORNIA")).toContainEqual({ kind: "region", names: [{ lang: "en", name: "California" }] });
  expect(areasOf("ZZ")).toContainEqual({ kind: "region", names: [{ lang: "en", name: expect.any(String) }] });
});
