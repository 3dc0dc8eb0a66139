import type { Field, FormDefinition } from "@bibliotope/core/form";
import { Dialog } from "radix-ui";
import { useMemo, useState } from "react";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { type Proposal, propose } from "./propose.ts";
import { readHtml } from "./read-html.ts";

/** Takes a form from HTML: its inputs are read, and bindings proposed. */
export function PasteDialog() {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="underline">
          Paste a form
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-14 left-1/2 z-50 flex max-h-[calc(100dvh-7rem)] w-[52rem] max-w-[94vw] -translate-x-1/2 flex-col rounded-md border border-edge bg-page p-5"
        >
          <Dialog.Title className="font-serif text-lg font-semibold">Paste a form</Dialog.Title>
          <PasteForm close={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function PasteForm({ close }: { close: () => void }) {
  const definition = useStudio((state) => state.draft.definition);
  const dispatch = useStudioDispatch();
  const [html, setHtml] = useState("");
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set());
  const read = useMemo(() => (html.trim() ? readHtml(html) : undefined), [html]);
  const proposals = useMemo(() => propose(read?.controls ?? []), [read]);
  const fields = proposals.map((proposal) =>
    refused.has(proposal.field.name) ? plain(proposal.field) : proposal.field,
  );
  const left = (read?.controls.length ?? 0) - proposals.length;
  const take = (to: FormDefinition) => {
    dispatch(draft.edited({ definition: to, selected: "" }));
    close();
  };
  const replace = () => {
    const { addresses: _, ...rest } = definition;
    const title = definition.title === "New form" && read?.title ? { title: read.title } : {};
    // fields that only show the place are the form's own, and stay
    const kept = definition.fields.filter(
      ({ kind, name }) => kind === "map" && fields.every((one) => one.name !== name),
    );
    take({ ...rest, ...title, fields: [...fields, ...kept] });
  };
  const add = () => {
    const taken = new Set(definition.fields.map(({ name }) => name));
    take({ ...definition, fields: [...definition.fields, ...fields.map((field) => renamed(field, taken))] });
  };
  const bound = proposals.filter(({ isAddress, field }) => isAddress && !refused.has(field.name)).length;
  return (
    <>
      <label htmlFor="pasted-html" className="mt-2 mb-1 block text-[12.5px] text-quiet">
        HTML of a page or a part of one. Nothing of it is run, and nothing is fetched.
      </label>
      <textarea
        id="pasted-html"
        className={`w-full flex-none rounded border border-edge bg-field px-3 py-2 font-mono text-[12.5px] ${proposals.length ? "h-[92px]" : "h-[220px]"}`}
        placeholder="<form> … </form>"
        spellCheck={false}
        value={html}
        onChange={(event) => {
          setHtml(event.target.value);
          setRefused(new Set());
        }}
      />
      {read && !read.controls.length ? (
        <p role="alert" className="mt-2 text-ochre">
          There is no input, select or textarea in it. Paste the HTML itself, not what the browser shows.
        </p>
      ) : null}
      {proposals.length ? (
        <>
          <p role="status" className="mt-3 mb-1 text-quiet">
            {`${proposals.length} fields, ${bound} bound${left > 0 ? `; ${left} left out, such as passwords, ticks and files` : ""}.`}
          </p>
          <table className="block min-h-0 flex-1 overflow-y-auto border-y border-rule">
            <thead className="sr-only">
              <tr>
                <th>Field</th>
                <th>Bound to</th>
                <th>Why</th>
                <th>Sureness</th>
              </tr>
            </thead>
            <tbody className="table w-full">
              {proposals.map((proposal) => (
                <Row
                  key={proposal.field.name}
                  proposal={proposal}
                  isTaken={!refused.has(proposal.field.name)}
                  set={(is) => {
                    const names = new Set(refused);
                    if (is) names.delete(proposal.field.name);
                    else names.add(proposal.field.name);
                    setRefused(names);
                  }}
                />
              ))}
            </tbody>
          </table>
        </>
      ) : null}
      <div className="mt-4 flex flex-wrap gap-2">
        <Button strong disabled={!proposals.length} onClick={replace}>
          Take them as the form
        </Button>
        <Button disabled={!proposals.length} onClick={add}>
          Add them to the form
        </Button>
        <Dialog.Close asChild>
          <Button className="ml-auto">Close</Button>
        </Dialog.Close>
      </div>
    </>
  );
}

function Row({ proposal, isTaken, set }: { proposal: Proposal; isTaken: boolean; set: (is: boolean) => void }) {
  const { field, control, isAddress, reason, sureness } = proposal;
  const binding = field.kind === "search" ? "searches" : (field.binding ?? field.autofill ?? "");
  return (
    <tr className="border-b border-rule align-baseline last:border-0">
      <td className="w-[34%] py-1.5 pr-3">
        {field.label} <span className="font-mono text-[11.5px] text-quiet">{control.name}</span>
      </td>
      <td className="py-1.5 pr-3">
        {isAddress ? (
          <label className="inline-flex items-center gap-1.5 font-mono text-[12.5px]">
            <input
              type="checkbox"
              checked={isTaken}
              onChange={(event) => set(event.target.checked)}
              aria-label={`Bind ${field.label} to ${binding}`}
            />
            {binding}
            {field.address ? <span className="text-quiet">{field.address}</span> : null}
          </label>
        ) : (
          <span className="text-quiet">as it is</span>
        )}
      </td>
      <td className="py-1.5 pr-3 text-[12.5px] text-quiet">{isAddress ? reason : ""}</td>
      <td className="w-[72px] py-1.5">
        {isAddress ? (
          <span
            title={`${Math.round(sureness * 100)} %`}
            className="block h-1.5 w-[64px] overflow-hidden rounded-sm bg-rule"
          >
            <span className="sr-only">{Math.round(sureness * 100)} %</span>
            <span
              aria-hidden
              className={`block h-full ${sureness >= 0.7 ? "bg-verdigris" : "bg-ochre"}`}
              ref={(bar) => bar?.style.setProperty("width", `${sureness * 100}%`)}
            />
          </span>
        ) : null}
      </td>
    </tr>
  );
}

/** A field as it was, with nothing bound. */
function plain({ autofill: _, binding: __, address: ___, ...field }: Field): Field {
  return { ...field, kind: field.kind === "search" ? "text" : field.kind };
}

function renamed(field: Field, taken: Set<string>): Field {
  let name = field.name;
  for (let i = 2; taken.has(name); i++) name = `${field.name.slice(0, 36)}-${i}`;
  taken.add(name);
  return { ...field, name };
}
