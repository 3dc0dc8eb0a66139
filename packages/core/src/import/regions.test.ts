import { expect, it } from "vitest";
import { RowReader } from "./read-row.ts";

it("a region has its name where a file has its code, and keeps the code as its short form", () => {
  const columns = ["street", "house", "town", "region", "lat", "lon"].map((meaning) => ({ meaning }) as never);
  const reader = new RowReader({ columns, country: "US", recases: true });
  const areasOf = (region: string) =>
    reader.read(["MAIN STREET", "12", "CLEARBURG", region, "40.1", "-100.2"]).row?.areas;
  const region = { kind: "region", names: [{ lang: "en", name: "California", abbr: "CA" }], code: "CA" };
  expect(areasOf("CA")).toContainEqual(region);
  // as a name it is left as it is, but for the capitals
  const written = [{ lang: "en", name: "California", written: "CALIFORNIA" }];
  expect(areasOf("CALIFORNIA")).toContainEqual({ kind: "region", names: written });
  expect(areasOf("ZZ")).toContainEqual({ kind: "region", names: [{ lang: "en", name: expect.any(String) }] });
});
