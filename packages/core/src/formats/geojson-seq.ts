/** A GeoJSON text sequence (RFC 8142): each Feature behind a record separator, ended by a line feed. */
export function geojsonSeqOf(features: readonly unknown[]): string {
  return features.map((feature) => `\u001e${JSON.stringify(feature)}\n`).join("");
}
