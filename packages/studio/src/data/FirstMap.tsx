import { InteractiveMap } from "@bibliotope/kit";
import type { FileStart } from "@bibliotope/wire";
import { useEffect, useRef } from "react";
import { useClient } from "../forms/use-client.ts";
import { count } from "../ui/count.ts";

/** Where the first rows would lie, before anything is loaded: whoever sees them in the sea knows that the reading is wrong. */
export function FirstMap({ spots }: Pick<FileStart, "spots">) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!client || !holder.current || !spots.length) return;
    const map = new InteractiveMap(holder.current, { client, label: "Map of the first rows", grouped: true });
    map.setMarkers(spots.map((at) => ({ at })));
    map.fit(spots);
    return () => map.destroy();
  }, [client, spots]);
  return (
    <section aria-label="Preview on the map" className="mt-6">
      <h2 className="font-serif text-[20px] font-semibold">Preview on the map</h2>
      {spots.length ? (
        <>
          <p className="text-quiet">
            The first {count(spots.length)} rows with a position. If they are in the wrong place, choose another
            coordinate system above.
          </p>
          <div ref={holder} className="mt-2 h-[360px] overflow-hidden rounded-md border border-rule" />
        </>
      ) : (
        <p className="text-quiet">
          No row has a position yet. Choose the columns that contain it, and the coordinate system, above.
        </p>
      )}
    </section>
  );
}
