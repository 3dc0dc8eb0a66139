import { MAP_STYLES } from "@bibliotope/core/map";
import { byValues, InteractiveMap, type Marker, type Values } from "@bibliotope/kit";
import { type DragEvent, useEffect, useMemo, useRef, useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { Button } from "../ui/Button.tsx";
import { count } from "../ui/count.ts";
import { MOST_BYTES, NotShown, readValues, textOf, type ValueTable } from "./read-values.ts";
import { takeOutOf } from "./take-out.ts";
import { ValuePanel, type ValueStyles } from "./ValuePanel.tsx";

/** A file that is shown. */
interface Shown extends ValueTable {
  name: string;
}

/** Values that a card shows. */
const MOST_SHOWN = 40;

/** A file of places on the map, coloured, sized and named by its columns. It is read in the browser, and stays there. */
export function ValuesView() {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  const map = useRef<InteractiveMap>(undefined);
  const picked = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<Shown>();
  const [looks, setLooks] = useState<ValueStyles>({ groups: "count" });
  const [trouble, setTrouble] = useState("");
  const [isOver, setIsOver] = useState(false);

  useEffect(() => {
    if (!client || !holder.current) return;
    const made = new InteractiveMap(holder.current, {
      client,
      label: "Map of the values",
      mapStyles: MAP_STYLES,
      grouped: true,
    });
    map.current = made;
    return () => {
      map.current = undefined;
      made.destroy();
    };
  }, [client]);

  const values = useMemo(() => rowsOf(file), [file]);
  const shown = useMemo(() => {
    const { heads = [], at = [] } = file ?? {};
    const plain = at.map((spot, i): Marker => {
      const facts = heads.slice(0, MOST_SHOWN).map((head, column) => [head, file!.columns[column][i]] as const);
      const title = file!.columns[looks.label ?? 0]?.[i] || `Row ${i + 1}`;
      return { at: spot, name: title, card: { title, facts: facts.filter(([, value]) => value) } };
    });
    const name = (column: number | undefined) => (column === undefined ? undefined : heads[column]);
    const by = { colour: name(looks.colour), size: name(looks.size), label: name(looks.label) };
    return byValues(plain, values, { ...by, groups: looks.groups }, "en");
  }, [file, values, looks]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the client comes with the map
  useEffect(() => map.current?.setMarkers(shown.markers, shown.ofGroup), [shown, client]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  useEffect(() => {
    const spots = file?.at.filter((at) => at !== undefined) ?? [];
    if (spots.length) map.current?.fit(spots);
  }, [file, client]);

  const take = async (from: File | undefined) => {
    if (!from) return;
    try {
      if (from.size > MOST_BYTES) throw new NotShown("It is larger than 20 MB: use a batch.");
      const read = readValues(textOf(new Uint8Array(await from.arrayBuffer())));
      setTrouble("");
      setFile({ ...read, name: from.name });
      setLooks({ groups: "count" });
    } catch (error) {
      setTrouble(error instanceof NotShown ? error.message : "The file could not be read.");
    }
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setIsOver(false);
    void take(event.dataTransfer.files[0]);
  };
  const placed = file?.at.filter(Boolean).length ?? 0;
  return (
    <main className="flex min-h-0 flex-1 flex-col px-5 pb-4">
      <div className="flex flex-wrap items-baseline gap-x-4 py-3">
        <h1 className="font-serif text-[22px] font-semibold">Values on a map</h1>
        <p className="text-quiet">
          {file
            ? `${file.name}: ${count(placed)} of ${count(file.at.length)} rows have a position`
            : "A CSV with positions, or GeoJSON of points. It is read in this browser and not uploaded."}
        </p>
        <span className="ml-auto">
          <Button onClick={() => picked.current?.click()}>{file ? "Choose another file" : "Choose a file"}</Button>
          <input
            ref={picked}
            type="file"
            aria-label="File"
            className="sr-only"
            tabIndex={-1}
            accept=".csv,.tsv,.txt,.json,.geojson"
            onChange={({ target }) => {
              void take(target.files?.[0]);
              target.value = "";
            }}
          />
        </span>
      </div>
      {trouble ? (
        <p role="alert" className="mb-2 text-madder">
          {trouble}
        </p>
      ) : null}
      {file ? (
        <div className="mb-2">
          <ValuePanel
            heads={file.heads}
            looks={looks}
            setLooks={setLooks}
            legend={shown.legend}
            plain="all alike"
            isGrouped
            takeOut={takeOutOf(
              () => map.current,
              file.name.replace(/\.\w+$/, ""),
              () => ({ ...shown, values }),
            )}
          />
        </div>
      ) : null}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the button above does the same by keyboard */}
      <div
        className={`relative min-h-[18rem] flex-1 overflow-hidden rounded-md border ${isOver ? "border-ink" : "border-rule"}`}
        onDragOver={(event) => {
          event.preventDefault();
          setIsOver(true);
        }}
        onDragLeave={() => setIsOver(false)}
        onDrop={drop}
      >
        <div ref={holder} className="absolute inset-0" />
        {isOver || !file ? (
          <p className="pointer-events-none absolute inset-x-0 top-1/3 mx-auto w-fit rounded-md border border-dashed border-ink bg-page px-6 py-4 font-serif text-[19px]">
            Drop a file on the map
          </p>
        ) : null}
      </div>
    </main>
  );
}

/** The rows of a file as objects. */
function rowsOf(file: Shown | undefined): Values[] {
  if (!file) return [];
  return file.at.map((_, i) => Object.fromEntries(file.heads.map((head, column) => [head, file.columns[column][i]])));
}
