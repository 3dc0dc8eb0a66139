import { describe, expect, it } from "vitest";
import { OWN_CALLS, type OwnCall } from "./own-calls.ts";
import { ownRequest } from "./own-request.ts";

const all = Object.entries(OWN_CALLS) as [string, OwnCall][];

describe("the workbench's own calls", () => {
  it("have a path and a method that no other has", () => {
    const taken = all.map(([, { method, path }]) => `${method} ${path.replace(/\{\w+\}/g, "{}")}`);
    expect(new Set(taken).size).toBe(taken.length);
  });

  it("are changed by nobody who may only look, but what is one's own", () => {
    const open = all.filter(([, { method, role }]) => method !== "GET" && !role).map(([name]) => name);
    expect(open).toEqual([
      "signOut",
      "endOtherSessions",
      "changePassword",
      "beginCodes",
      "confirmCodes",
      "dropCodes",
      "askPasskey",
      "keepPasskey",
      "dropPasskey",
      "keepLookup",
      "forgetLookups",
      "keepingLookups",
    ]);
  });

  it("are asked by their paths, in the query string or in a body", () => {
    expect(ownRequest("session", {})).toEqual({ url: "/api/session", method: "GET" });
    expect(ownRequest("form", { parts: { ref: "a/b ü" } }).url).toBe("/api/forms/a%2Fb%20%C3%BC");
    expect(ownRequest("coverage", { parts: { id: 3 }, asks: { beside: undefined } }).url).toBe(
      "/api/versions/3/coverage",
    );
    expect(ownRequest("uses", { asks: { days: 7, key: 2 } }, "").url).toBe("/uses?days=7&key=2");
    expect(ownRequest("handIn", { asks: { name: "a & b.csv" } })).toEqual({
      url: "/api/files?name=a%20%26%20b.csv",
      method: "POST",
    });
    expect(ownRequest("keepingLookups", { asks: { keeps: true } })).toEqual({
      url: "/api/lookups/keeping",
      method: "PUT",
      body: { keeps: true },
    });
  });
});
