import type { Painter } from "../src/map/index.ts";

/** A painter that paints nothing and notes what was requested of it. */
export function recorder(): { painter: Painter; calls: string[] } {
  const calls: string[] = [];
  const state: Record<string, unknown> = {};
  const painter = new Proxy(state, {
    get: (_target, name: string) => {
      if (name === "measureText") return (text: string) => ({ width: text.length * 7 });
      if (name in state) return state[name];
      return (...given: unknown[]) => {
        calls.push(
          given.length
            ? `${name} ${given.map((value) => (typeof value === "number" ? Math.round(value * 10) / 10 : JSON.stringify(value))).join(" ")}`
            : name,
        );
      };
    },
    set: (_target, name: string, value) => {
      state[name] = value;
      calls.push(`${name} = ${value}`);
      return true;
    },
  });
  return { painter: painter as unknown as Painter, calls };
}
