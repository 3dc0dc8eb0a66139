import { forwardAnswer, suggestAnswer } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { ask, shared } from "../../testing/shared.ts";

const FORWARD = "/v1/forward?q=12+harbour+row+tidewell";
/** Asks with the try key. */
const tried = (path: string, headers: Record<string, string> = {}) => ask(path, { key: shared().keys.try, headers });

describe("a situation that a try key asks for", () => {
  it.each([
    ["down", 503, "5"],
    ["limit", 429, "30"],
    ["refused", 403, null],
    ["malformed", 400, null],
  ])("%s answers with %i", async (situation, status, again) => {
    const response = await tried(`${FORWARD}&situation=${situation}`);
    expect(response.status).toBe(status);
    expect(response.headers.get("retry-after")).toBe(again);
    expect(((await response.json()) as { detail: string }).detail).toContain(`“${situation}”`);
  });

  it("none finds nothing, in every form of an answer", async () => {
    const answer = forwardAnswer.parse(await (await tried(`${FORWARD}&situation=none`)).json());
    expect(answer).toMatchObject({ outcome: "none", features: [], advice: [expect.stringContaining("“none”")] });
    const suggested = suggestAnswer.parse(await (await tried("/v1/suggest?q=harb&situation=none")).json());
    expect(suggested).toMatchObject({ outcome: "none", suggestions: [] });
    const csv = await (await tried(`${FORWARD}&situation=none&format=csv`)).text();
    expect(csv.trim().split("\n")).toHaveLength(1);
  });

  it("several has others beside the one that was found", async () => {
    const real = forwardAnswer.parse(await (await tried(FORWARD)).json());
    expect(real.outcome).toBe("matched");
    const answer = forwardAnswer.parse(await (await tried(`${FORWARD}&situation=several`)).json());
    expect(answer.outcome).toBe("ambiguous");
    expect(answer.features[0].id).toBe(real.features[0].id);
    expect(new Set(answer.features.map(({ id }) => id)).size).toBeGreaterThan(1);
  });

  it("slow is late, and right", async () => {
    const began = performance.now();
    const answer = forwardAnswer.parse(await (await tried(FORWARD, { "Bibliotope-Situation": "slow" })).json());
    expect(performance.now() - began).toBeGreaterThan(2400);
    expect(answer.outcome).toBe("matched");
  });

  it("is not played for tiles and countries, and leaves the next answer as it is", async () => {
    expect((await tried("/v1/countries?situation=down")).status).toBe(200);
    expect((await tried("/v1/tiles/features/7/56/77?situation=down")).status).toBe(200);
    expect((await tried(FORWARD)).status).toBe(200);
  });

  it("is refused when it is none, and for keys of other kinds", async () => {
    const unknown = await tried(`${FORWARD}&situation=storm`);
    expect(unknown.status).toBe(400);
    expect(((await unknown.json()) as { detail: string }).detail).toContain("Use one of none, differs, several");
    const other = await ask(`${FORWARD}&situation=none`);
    expect(other.status).toBe(403);
    expect(((await other.json()) as { detail: string }).detail).toContain("a try key");
  });
});
