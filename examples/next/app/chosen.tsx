"use client";

import { MapView, useForward, useHeight } from "@bibliotope/kit/react";
import { useMemo, useState } from "react";

/** A lookup without a box, and its place on a map. */
export function Chosen() {
  const [q, setQ] = useState("");
  const [asked, setAsked] = useState<string>();
  const { result, error } = useForward(asked ? { q: asked } : undefined);
  const at = result?.features[0]?.properties.at;
  const height = useHeight(at);
  const markers = useMemo(() => (at ? [{ at, label: asked ?? "" }] : []), [at, asked]);
  return (
    <section>
      <label>
        A place by name <input value={q} onChange={({ target }) => setQ(target.value)} />
      </label>
      <button type="button" onClick={() => setAsked(q)}>
        Look up
      </button>
      {error ? <p role="alert">{error.message}</p> : null}
      {typeof height.result === "number" ? <p>{Math.round(height.result)} m above the sea</p> : null}
      <MapView label="Where it is" markers={markers} style={{ height: 300 }} />
    </section>
  );
}
