import { describe, expect, it } from "vitest";
import { api } from "./api.ts";
import { csrfReducer } from "./csrf.slice.ts";
import { includesRole } from "./may.ts";

describe("what a person may", () => {
  it("is nothing while the session is loading", () => {
    for (const needed of ["look", "edit", "manage"] as const) expect(includesRole(undefined, needed)).toBe(false);
  });

  it("is what their role includes", () => {
    const roles = ["look", "edit", "manage"] as const;
    for (const [i, role] of roles.entries())
      for (const [j, needed] of roles.entries()) expect(includesRole(role, needed), `${role} ${needed}`).toBe(j <= i);
  });
});

describe("the token of changes", () => {
  const { matchFulfilled, matchRejected } = api.endpoints.session;
  const meta = { arg: { type: "query", endpointName: "session" }, requestStatus: "fulfilled" };
  const fulfilled = { type: "api/executeQuery/fulfilled", payload: { csrf: "one" }, meta };
  const rejected = (condition: boolean) => ({
    type: "api/executeQuery/rejected",
    meta: { ...meta, requestStatus: "rejected", condition },
  });

  it("is that of the session, none without one, and stays when a query was only not needed again", () => {
    expect(matchFulfilled(fulfilled)).toBe(true);
    expect(matchRejected(rejected(false))).toBe(true);
    const one = csrfReducer("", fulfilled);
    expect(one).toBe("one");
    expect(csrfReducer(one, rejected(true))).toBe("one");
    expect(csrfReducer(one, rejected(false))).toBe("");
  });
});
