import type { DataAnswer } from "@bibliotope/wire";
import { useState } from "react";
import { usePublishDataMutation } from "../state/data-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Dialog, DialogClose } from "../ui/Dialog.tsx";
import { findVersion, holds, liveVersions } from "./words.ts";

interface PublishDialogProps {
  data: DataAnswer;
  /** What is to be live, the most trusted first. */
  versions: readonly number[];
  /** What the publication is called. */
  why: string;
  label: string;
}

/** Makes versions live: in which order they are trusted, and which are left out. */
export function PublishDialog({ data, versions, why, label }: PublishDialogProps) {
  const [open, setOpen] = useState(false);
  const [order, setOrder] = useState<readonly number[]>(versions);
  const [publish, { error, isLoading }] = usePublishDataMutation();
  const toggle = (is: boolean) => {
    setOrder(versions);
    setOpen(is);
  };
  const move = (place: number, by: number) => {
    const next = [...order];
    [next[place], next[place + by]] = [next[place + by], next[place]];
    setOrder(next);
  };
  const leftOut = liveVersions(data).filter((id) => {
    const set = findVersion(data, id)?.set;
    return !order.some((one) => findVersion(data, one)?.set.id === set?.id);
  });
  const go = async () => {
    if ("data" in (await publish({ versions: [...order], why }))) setOpen(false);
  };
  return (
    <Dialog
      title={`Publish ${why}`}
      open={open}
      onOpenChange={toggle}
      size="large"
      trigger={
        <button type="button" className="underline">
          {label}
        </button>
      }
    >
      <p className="mt-2 text-quiet">
        The index is built first; until it is ready, lookups use the current data. Data sets higher in the list take
        precedence: an address in several of them comes from the highest.
      </p>
      <ol className="mt-3 rounded border border-rule">
        {order.map((id, place) => {
          const found = findVersion(data, id);
          if (!found) return null;
          return (
            <li
              key={id}
              className="flex flex-wrap items-baseline gap-x-4 border-t border-rule px-3 py-2 first:border-t-0"
            >
              <span className="font-serif text-[16px]">{found.set.name}</span>
              <span className="text-[13px] text-quiet">
                version {found.version.number}, {holds(found.version)}
              </span>
              <span className="ml-auto flex gap-3 text-[13px]">
                <button
                  type="button"
                  className="underline disabled:no-underline disabled:opacity-40"
                  disabled={place === 0}
                  aria-label={`Move ${found.set.name} up`}
                  onClick={() => move(place, -1)}
                >
                  Up
                </button>
                <button
                  type="button"
                  className="underline disabled:no-underline disabled:opacity-40"
                  disabled={place === order.length - 1}
                  aria-label={`Move ${found.set.name} down`}
                  onClick={() => move(place, 1)}
                >
                  Down
                </button>
                <button
                  type="button"
                  className="underline disabled:no-underline disabled:opacity-40"
                  disabled={order.length === 1}
                  aria-label={`Leave ${found.set.name} out`}
                  onClick={() => setOrder(order.filter((one) => one !== id))}
                >
                  Leave out
                </button>
              </span>
            </li>
          );
        })}
      </ol>
      {leftOut.length ? (
        <p className="mt-2 text-[13px] text-ochre">
          No longer live: {leftOut.map((id) => findVersion(data, id)?.set.name).join(", ")}. It stays here and can be
          published again.
        </p>
      ) : null}
      <Alert error={error} className="mt-3 text-madder" />
      <div className="mt-4 flex gap-2">
        <Button strong disabled={isLoading} onClick={() => void go()}>
          Publish
        </Button>
        <DialogClose asChild>
          <Button>Cancel</Button>
        </DialogClose>
      </div>
    </Dialog>
  );
}
