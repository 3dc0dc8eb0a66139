import { type Correction, correct, type Segment } from "@bibliotope/core/index";
import { Engine } from "@bibliotope/core/search";

/** An engine of a segment with what was corrected by hand on top of it. */
export function correctedEngine(segment: Segment, corrections: readonly Correction[]): Engine {
  if (!corrections.length) return new Engine(segment);
  const { overlay } = correct(segment, corrections);
  return new Engine(overlay.size ? overlay.finish() : segment);
}
