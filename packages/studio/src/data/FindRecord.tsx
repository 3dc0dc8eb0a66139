import { SearchBox } from "@bibliotope/kit";
import type { RecordAnswer } from "@bibliotope/wire";
import { useEffect, useId, useRef } from "react";
import { useClient } from "../forms/use-client.ts";
import { useLatest } from "../ui/use-latest.ts";

/** Finds the record to be corrected by what it is called, with the kit's own search box. */
export function FindRecord({ wanted, onFound }: { wanted?: string; onFound: (record: RecordAnswer) => void }) {
  const client = useClient();
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const found = useLatest(onFound);
  useEffect(() => {
    if (!client || !input.current) return;
    const box = new SearchBox(input.current, {
      client,
      narrow: () => ({ kinds: "address,street,block,place" }),
      chosen: ({ ref }) => void client.record(ref).then((record) => found.current(record)),
    });
    return () => box.destroy();
  }, [client]);
  useEffect(() => {
    if (client && wanted)
      void client.record(wanted).then(
        (record) => found.current(record),
        () => undefined,
      );
  }, [client, wanted]);
  return (
    <>
      <label htmlFor={id} className="mb-1 block text-[12.5px] text-quiet">
        Address, street or place to correct
      </label>
      <input
        ref={input}
        id={id}
        className="h-[34px] w-full max-w-[34rem] rounded border border-edge bg-field px-3 text-ink"
        placeholder="12 Harbour Row, Tidewell"
      />
    </>
  );
}
