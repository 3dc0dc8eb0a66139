import { featureOf } from "@bibliotope/core/formats";

/** In the harbour of the demo's first town. */
const SOMEWHERE = { lat: -35.1841, lon: -21.6253 };

/**
 * What a try key is answered while no index is there: always the same position, for whatever was requested, so that a form
 * can be tried out before any data is.
 * @param line what was requested
 */
export function fixedAnswer(line: string) {
  const features = [
    featureOf({
      ref: "try-one",
      kind: "address" as const,
      exactness: "surveyed" as const,
      at: SOMEWHERE,
      line,
      lines: [line],
      parts: {},
      autofill: { "street-address": line },
      score: 1,
    }),
  ];
  const advice = ["There is no data yet. A try key gets one fixed position for every request."];
  return {
    answer: { type: "FeatureCollection" as const, outcome: "matched" as const, advice, source: [], features },
    features,
  };
}
