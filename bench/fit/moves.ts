import { WEIGHTS } from "@bibliotope/core/search";

/** A weight by its group and name: "COST.incomplete". */
export type WeightName = `${string}.${string}`;

/** What the others are measured by, and what counts nothing: they are no weights. */
const FIXED: ReadonlySet<WeightName> = new Set<WeightName>([
  "QUALITY.same",
  "QUALITY.script",
  "QUALITY.differs",
  "QUALITY.ignored",
  "WEIGHT.word",
]);

const group = (name: WeightName) => WEIGHTS[name.split(".")[0]] as Record<string, number>;
const own = (name: WeightName) => name.split(".")[1];

export const allWeights = (): WeightName[] =>
  Object.entries(WEIGHTS)
    .flatMap(([of, its]) => Object.keys(its).map((name): WeightName => `${of}.${name}`))
    .filter((name) => !FIXED.has(name));

export const valueNow = (name: WeightName): number => group(name)[own(name)];

/** Does something with weights changed, which are put back at the end. */
export function withWeights<T>(values: ReadonlyMap<WeightName, number>, act: () => T): T {
  const before = [...values.keys()].map((name) => [name, valueNow(name)] as const);
  try {
    for (const [name, value] of values) group(name)[own(name)] = value;
    return act();
  } finally {
    for (const [name, value] of before) group(name)[own(name)] = value;
  }
}

/** What can be worth 1 at most. */
const isShare = (name: WeightName) => /^(?:QUALITY|MENDED|NUMBER|TRUST)\./.test(name);

/** A weight moved by a half, down and up; a share to 1 at most. */
export const movedByHalf = (name: WeightName): number[] =>
  [0.5, 1.5]
    .map((by) => valueNow(name) * by)
    .map((value) => (isShare(name) ? Math.min(1, value) : value))
    .filter((value) => value !== valueNow(name));

/** Small moves to try: of what is near 1, of what parts it from 1. */
export function nearby(name: WeightName, from: number): number[] {
  const moves = [0.75, 1.3];
  return isShare(name) && from > 0.5 ? moves.map((by) => 1 - (1 - from) * by) : moves.map((by) => from * by);
}
