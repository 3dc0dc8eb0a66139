import fc from "fast-check";
import { expect, it } from "vitest";
import { SegmentStore } from "./segment-store.ts";

it("a segment's name says of which database and of which versions it is, in their order", () => {
  const from = fc.record({ history: fc.uuid(), versions: fc.array(fc.nat(), { minLength: 1, maxLength: 4 }) });
  const nameOf = ({ history, versions }: { history: string; versions: number[] }) =>
    new SegmentStore("", "", history).nameOf(versions);
  fc.assert(
    fc.property(from, from, (one, other) => {
      expect(nameOf(one) === nameOf(other)).toBe(JSON.stringify(one) === JSON.stringify(other));
      expect(nameOf({ ...one, history: other.history }) === nameOf(one)).toBe(one.history === other.history);
    }),
  );
});
