import { describe, expect, it } from "vitest";
import { createApp, effectScope, nextTick, ref } from "vue";
import { StandIn } from "../testing/index.ts";
import { useClient, useDistance, useHeight, useRecord, useReverse } from "./index.ts";

const AT = { lat: -35.2, lon: -21.6 };
const records = ["qr-1", "qr-2"].map((one) => ({ ref: one, line: one, at: AT, parts: { town: "Nowhere" } }));

/** Runs a body as a component's setup. @returns what it returned, and what ends the component */
function component<T>(body: () => T): { made: T; end: () => void } {
  const scope = effectScope();
  return { made: scope.run(body)!, end: () => scope.stop() };
}

describe("the composables for Vue", () => {
  it("ask again when their value changes, deep within it too, and drop what is not wanted any more", async () => {
    const standIn = new StandIn({ records });
    const wanted = ref<string | undefined>("qr-1");
    const { made, end } = component(() => useRecord(wanted, standIn.client()));
    expect(made.state.value.status).toBe("waiting");
    await expect.poll(() => made.state.value).toMatchObject({ status: "done", result: { id: "qr-1" } });
    wanted.value = "qr-2";
    await nextTick();
    expect(made.state.value).toMatchObject({ status: "waiting", isOld: true });
    await expect.poll(() => made.state.value.result?.id).toBe("qr-2");
    wanted.value = undefined;
    await nextTick();
    expect(made.state.value.status).toBe("idle");
    end();

    const at = ref({ ...AT });
    const near = component(() => useReverse(at, standIn.client()));
    await expect.poll(() => near.made.state.value.status).toBe("done");
    const before = standIn.requests.length;
    at.value.lat = -35.3;
    await nextTick();
    await expect.poll(() => standIn.requests.length).toBe(before + 1);
    near.end();
    at.value.lat = -35.4;
    await nextTick();
    expect(standIn.requests).toHaveLength(before + 1);
  });

  it("take values that are reckoned, and are of each kind", async () => {
    const standIn = new StandIn({ answers: [{ call: "height", answer: { metres: 7, source: [] } }] });
    const { made } = component(() => [
      useHeight(() => AT, standIn.client()),
      useDistance(() => [AT, { lat: -35.3, lon: -21.6 }] as const, standIn.client()),
    ]);
    await expect.poll(() => made.map(({ state }) => state.value.status)).toEqual(["done", "done"]);
    expect(made[0].state.value.result).toBe(7);
  });

  it("say it when no component above has given a client", () => {
    const app = createApp({});
    app.runWithContext(() => expect(() => useClient()).toThrow("has called provideBibliotope"));
  });
});
