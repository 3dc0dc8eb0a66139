/** One line of the table. */
export interface Measure {
  measure: string;
  corpus: string;
  unit: "ms" | "µs" | "kB" | "bytes" | "%" | "×" | "";
  value: number;
  target: number;
  holds: boolean;
  /** How it was measured, and what was measured beside it. */
  beside: string;
}

/** A measure that holds when it is at most its target. */
export function atMost(
  measure: string,
  corpus: string,
  unit: Measure["unit"],
  value: number,
  target: number,
  beside: string,
): Measure {
  return { measure, corpus, unit, value: Math.round(value * 1000) / 1000, target, holds: value <= target, beside };
}

/** A measure that holds when it is at least its target. */
export function atLeast(...args: Parameters<typeof atMost>): Measure {
  const [, , , value, target] = args;
  return { ...atMost(...args), holds: value >= target };
}

/** The value below which a share of the values lie. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
}

export const median = (values: readonly number[]) => percentile(values, 0.5);

/**
 * Times a call on many inputs, several rounds over. Of each input the median of its rounds counts, so that a pause of
 * the machine is not taken for a slow input.
 * @returns one time for each input, in milliseconds, and every single time
 */
export function timeEach<T>(
  inputs: readonly T[],
  rounds: number,
  call: (input: T) => unknown,
): { each: number[]; all: number[] } {
  for (const input of inputs) call(input);
  const times = inputs.map((): number[] => []);
  for (let round = 0; round < rounds; round++) {
    inputs.forEach((input, i) => {
      const began = performance.now();
      call(input);
      times[i].push(performance.now() - began);
    });
  }
  return { each: times.map(median), all: times.flat() };
}

/** The same of a call that answers later; one time for each input. @param isWarmed each is called once before */
export async function timeEachAsync<T>(
  inputs: readonly T[],
  rounds: number,
  call: (input: T) => unknown,
  isWarmed = true,
): Promise<number[]> {
  if (isWarmed) for (const input of inputs) await call(input);
  const times = inputs.map((): number[] => []);
  for (let round = 0; round < rounds; round++) {
    for (const [i, input] of inputs.entries()) {
      const began = performance.now();
      await call(input);
      times[i].push(performance.now() - began);
    }
  }
  return times.map(median);
}
