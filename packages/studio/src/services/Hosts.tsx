import { useState } from "react";
import { useForm } from "react-hook-form";
import { useAllowHostMutation, useHostsQuery, useRefuseHostMutation } from "../state/services-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { TextField } from "../ui/TextField.tsx";

/** Scheme, host and port of an address that somebody writes. */
function readOrigin(text: string) {
  try {
    const { protocol, hostname, port } = new URL(/^\w+:\/\//.test(text) ? text : `https://${text}`);
    const scheme = protocol === "http:" ? ("http" as const) : ("https" as const);
    return { scheme, host: hostname, port: Number(port || (scheme === "http" ? 80 : 443)) };
  } catch {
    return undefined;
  }
}

/** Where services may be called: nowhere else does this server go. */
export function Hosts({ isManager }: { isManager: boolean }) {
  const [open, setOpen] = useState(false);
  const { data: hosts = [] } = useHostsQuery(undefined, { skip: !open, refetchOnMountOrArgChange: true });
  const [allow, { error: notAllowed, isLoading }] = useAllowHostMutation();
  const [refuse, { error: notRefused }] = useRefuseHostMutation();
  const { register, handleSubmit, resetField, watch } = useForm({
    defaultValues: { origin: "", isInside: false, forPictures: false },
  });
  const read = readOrigin(watch("origin").trim());
  const wrong = notAllowed ?? notRefused;
  const submit = handleSubmit(({ isInside, forPictures }) => {
    if (!read) return;
    allow({ ...read, isInside, forPictures })
      .unwrap()
      .then(
        () => resetField("origin"),
        () => undefined,
      );
  });
  return (
    <Dialog
      title="Allowed hosts"
      open={open}
      onOpenChange={setOpen}
      size="large"
      trigger={<Button>Allowed hosts</Button>}
    >
      <p className="mt-1 text-[13px] text-quiet">
        Services may only be called at these origins, including scheme and port. Addresses on this machine or its
        network are refused unless marked as internal. Maps in published forms load your own tiles only from hosts
        marked for map tiles.
      </p>
      <ul className="mt-3 border-y border-rule">
        {hosts.map(({ id, scheme, host, port, isInside: inside, forPictures: shows, standIn }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2 last:border-0">
            <span className="font-mono text-[13px]">
              {scheme}://{host}:{port}
            </span>
            <span className="flex-1 text-[12.5px] text-quiet">
              {[
                inside ? "inside" : "",
                shows ? "map tiles too" : "",
                standIn ? `the stand-in “${standIn}”, allowed at every start` : "",
              ]
                .filter(Boolean)
                .join("; ")}
            </span>
            {isManager && !standIn ? (
              <button type="button" className="underline" onClick={() => void refuse(id)}>
                Remove<span className="sr-only"> {host}</span>
              </button>
            ) : null}
          </li>
        ))}
        {hosts.length ? null : <li className="py-2 text-quiet">None yet.</li>}
      </ul>
      {isManager ? (
        <form className="mt-4 grid grid-cols-[2fr_auto_auto_auto] items-end gap-3" onSubmit={submit}>
          <TextField
            label="Scheme, host and port"
            placeholder="https://register.example"
            required
            {...register("origin")}
          />
          <label className="inline-flex h-[34px] items-center gap-1.5">
            <input type="checkbox" {...register("isInside")} />
            internal network
          </label>
          <label className="inline-flex h-[34px] items-center gap-1.5">
            <input type="checkbox" {...register("forPictures")} />
            map tiles
          </label>
          <Button strong type="submit" disabled={isLoading || !read}>
            Allow
          </Button>
        </form>
      ) : null}
      <Alert error={wrong} className="mt-3 text-madder" />
    </Dialog>
  );
}
