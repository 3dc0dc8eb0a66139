import type { Service } from "@bibliotope/core/service";
import { useState } from "react";
import { useReadWsdlMutation } from "../state/services-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";

/** Proposes operations from the description that a service publishes, which is pasted. */
export function Wsdl({ take }: { take: (to: Partial<Service>) => void }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [read, { data, error, isLoading }] = useReadWsdlMutation();
  return (
    <Dialog
      title="Operations of a WSDL"
      open={open}
      onOpenChange={setOpen}
      size="large"
      trigger={
        <button type="button" className="text-[12.5px] underline">
          Read a WSDL
        </button>
      }
    >
      <label className="mt-3 block text-[12.5px] text-quiet">
        Paste it here. Imports are not fetched.
        <textarea
          rows={9}
          value={text}
          onChange={({ target }) => setText(target.value)}
          className="mt-1 block w-full rounded border border-edge bg-field p-2 font-mono text-[12px] text-ink"
        />
      </label>
      <div className="mt-3">
        <Button disabled={!text.trim() || isLoading} onClick={() => void read(text)}>
          Read it
        </Button>
      </div>
      <Alert error={error} className="mt-3 text-madder" />
      {data ? (
        <ul className="mt-3 border-y border-rule">
          {data.operations.map(({ name, ask, inputs }) => (
            <li
              key={`${name} ${ask.version}`}
              className="flex items-baseline gap-4 border-b border-rule py-2 last:border-0"
            >
              <span className="font-semibold">{name}</span>
              <span className="flex-1 text-[12.5px] text-quiet">
                SOAP {ask.version}, with {inputs.map((input) => input.name).join(", ") || "nothing"}
              </span>
              <button
                type="button"
                className="underline"
                onClick={() => {
                  take({ ask, inputs });
                  setOpen(false);
                }}
              >
                Use it<span className="sr-only">: {name}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </Dialog>
  );
}
