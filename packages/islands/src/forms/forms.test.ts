import { checkDefinition } from "@bibliotope/core/form";
import { describe, expect, it } from "vitest";
import { SAMPLE_FORMS } from "./index.ts";

describe("the sample forms", () => {
  it.each(SAMPLE_FORMS.map(({ ref, definition }) => [ref, definition] as const))(
    "%s has nothing wrong in it",
    (_ref, definition) => {
      expect(checkDefinition(definition)).toEqual([]);
    },
  );

  it("have refs that are URL-safe, each once", () => {
    const refs = SAMPLE_FORMS.map(({ ref }) => ref);
    expect(new Set(refs).size).toBe(refs.length);
    for (const ref of refs) expect(ref).toMatch(/^[a-z][a-z-]*[a-z]$/);
  });
});
