import type { Position } from "@bibliotope/core/geo";
import { InteractiveMap } from "@bibliotope/kit";
import type { Change, RecordAnswer } from "@bibliotope/wire";
import { useEffect, useRef, useState } from "react";
import { useForm } from "react-hook-form";
import { useClient } from "../forms/use-client.ts";
import { useMakeCorrectionMutation } from "../state/corrections-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { TextField } from "../ui/TextField.tsx";
import { useLatest } from "../ui/use-latest.ts";

type What = "change" | "add" | "remove";

const WAYS: readonly (readonly [What, string])[] = [
  ["change", "Change"],
  ["add", "Add a number"],
  ["remove", "Remove"],
];

/** Changes one record: its marker is moved on the map, its number or name written anew. */
export function CorrectRecord({ record, done }: { record: RecordAnswer; done: () => void }) {
  const { kind, line, parts } = record.properties;
  const isStreet = kind === "street" || kind === "block";
  const before = {
    house: kind === "address" ? (parts.house?.name ?? parts.building?.name ?? "") : "",
    name: nameOf(record),
  };
  const [what, setWhat] = useState<What>("change");
  const [at, setAt] = useState<Position>();
  const { register, handleSubmit, setValue, watch } = useForm({ defaultValues: { ...before, note: "" } });
  const { house, name, note } = watch();
  const [make, { error, isLoading }] = useMakeCorrectionMutation();
  const change: Change =
    what === "remove"
      ? { isRemoved: true }
      : what === "add"
        ? { adds: true, house: house || undefined, at: at ?? record.properties.at }
        : {
            ...(at ? { at } : {}),
            ...(house && house !== before.house ? { house } : {}),
            ...(name && name !== before.name ? { name } : {}),
          };
  const isSomething = what === "add" ? house !== "" : Object.keys(change).length > 0;
  const submit = handleSubmit(async () => {
    if ("data" in (await make({ ref: record.id, change, note }))) done();
  });
  return (
    <form onSubmit={submit} className="mt-4 grid gap-4 lg:grid-cols-2">
      <div>
        <p className="font-serif text-[19px]">{line}</p>
        <p className="font-mono text-[12.5px] text-quiet">{record.id}</p>
        <div className="mt-3">
          <Segmented
            label="Correction"
            value={what}
            onChange={(next) => {
              setWhat(next);
              setValue("house", next === "add" ? "" : before.house);
            }}
            options={WAYS.filter(([way]) => way !== "add" || isStreet)}
          />
        </div>
        <div className="mt-3 grid max-w-[24rem] gap-3">
          {what === "add" || (what === "change" && kind === "address" && parts.house) ? (
            <TextField label="House number" maxLength={20} {...register("house")} />
          ) : null}
          {what === "change" && kind !== "address" ? (
            <TextField label="Name" maxLength={200} {...register("name")} />
          ) : null}
          <TextField label="Reason" maxLength={1000} {...register("note")} />
        </div>
        <p className="mt-3 text-[13px] text-quiet">
          {what === "remove"
            ? "The record is no longer found, now and in later versions. You can undo this."
            : "Move the marker to the correct position."}
        </p>
        <Alert error={error} className="mt-2 text-madder" />
        <div className="mt-3 flex gap-2">
          <Button strong type="submit" disabled={!isSomething || isLoading}>
            Apply
          </Button>
          <Button onClick={done}>Cancel</Button>
        </div>
      </div>
      <PlaceMap at={record.properties.at} label={line} onMove={setAt} />
    </form>
  );
}

const nameOf = ({ properties: { kind, parts } }: RecordAnswer) =>
  (kind === "place" ? parts.place : (parts.street ?? parts.block))?.name ?? "";

function PlaceMap({ at, label, onMove }: { at: Position; label: string; onMove: (at: Position) => void }) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  const moved = useLatest(onMove);
  useEffect(() => {
    if (!client || !holder.current) return;
    const map = new InteractiveMap(holder.current, { client, label: "Position", view: { at, zoom: 17 } });
    map.setMarkers([{ at, name: label, draggable: true, marked: true }]);
    map.onMarker(({ type, at: to }) => type === "drop" && moved.current(to));
    return () => map.destroy();
  }, [client, at, label]);
  return <div ref={holder} className="h-[300px] overflow-hidden rounded-md border border-rule" />;
}
