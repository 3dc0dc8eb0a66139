import type { Segment } from "../index/index.ts";
import { tokenize } from "../text/index.ts";

/** Things whose names are kept in words at most; then it begins anew. */
const MOST_KEPT = 5000;

const keptBySegment = new WeakMap<Segment, Map<number, readonly (readonly string[])[]>>();

/** The names of a thing, each as its words in the order in which they are written. Shared between lookups, so not to be changed. */
export function nameWords(segment: Segment, thing: number): readonly (readonly string[])[] {
  let kept = keptBySegment.get(segment);
  if (!kept) {
    kept = new Map();
    keptBySegment.set(segment, kept);
  }
  let names = kept.get(thing);
  if (!names) {
    if (kept.size >= MOST_KEPT) kept.clear();
    names = segment.namesOf(thing).map(({ name }) => tokenize(name).map(({ text }) => text));
    kept.set(thing, names);
  }
  return names;
}
