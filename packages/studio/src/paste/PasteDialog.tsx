import { checkDefinition, type Field, type FormDefinition, freeName, MOST_FIELDS } from "@bibliotope/core/form";
import { useMemo, useState } from "react";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { Dialog, DialogClose } from "../ui/Dialog.tsx";
import { Table } from "../ui/Table.tsx";
import { OfferedPatterns, ProposalRow, SEARCHES, wordOf } from "./ProposalRow.tsx";
import { fitting, type Proposal, propose } from "./propose.ts";
import { readHtml } from "./read-html.ts";

/** Takes a form from HTML: its inputs are read, and bindings proposed. */
export function PasteDialog() {
  const [open, setOpen] = useState(false);
  return (
    <Dialog
      title="Paste a form"
      open={open}
      onOpenChange={setOpen}
      size="larger"
      trigger={
        <button type="button" className="underline">
          Paste a form
        </button>
      }
    >
      <PasteForm close={() => setOpen(false)} />
    </Dialog>
  );
}

function PasteForm({ close }: { close: () => void }) {
  const definition = useStudio((state) => state.draft.definition);
  const dispatch = useStudioDispatch();
  const [html, setHtml] = useState("");
  /** What the developer wants in place of a proposal, by the name of the field. */
  const [wanted, setWanted] = useState<ReadonlyMap<string, string>>(new Map());
  const read = useMemo(() => (html.trim() ? readHtml(html) : undefined), [html]);
  const found = useMemo(() => propose(read?.controls ?? []), [read]);
  // a map of the form's own stays beside what is pasted
  const room = MOST_FIELDS - definition.fields.filter(({ kind }) => kind === "map").length;
  const proposals = useMemo(() => fitting(found, room), [found, room]);
  const fields = proposals.map((proposal) => boundTo(proposal, wanted.get(proposal.field.name)));
  const wrong = new Map(checkDefinition({ title: "", fields }).map(({ field, message }) => [field, message]));
  const left = (read?.controls.length ?? 0) - found.length;
  const isTooMuch = definition.fields.length + proposals.length > MOST_FIELDS;
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
  const bound = fields.filter((field) => wordOf(field)).length;
  return (
    <>
      <label htmlFor="pasted-html" className="mt-2 mb-1 block text-[12.5px] text-quiet">
        HTML of a page or part of a page. Nothing in it is run or fetched.
      </label>
      <textarea
        id="pasted-html"
        className={`w-full flex-none rounded border border-edge bg-field px-3 py-2 font-mono text-[12.5px] ${proposals.length ? "h-[92px]" : "h-[220px]"}`}
        placeholder="<form> … </form>"
        spellCheck={false}
        value={html}
        onChange={(event) => {
          setHtml(event.target.value);
          setWanted(new Map());
        }}
      />
      {read && !read.controls.length ? (
        <p role="alert" className="mt-2 text-ochre">
          There is no input, select or textarea in this text. Paste the HTML source, not what the browser shows.
        </p>
      ) : null}
      {proposals.length ? (
        <>
          <p role="status" className="mt-3 mb-1 text-quiet">
            {`${proposals.length} fields, ${bound} bound${left > 0 ? `; ${left} left out, such as passwords, checkboxes and files` : ""}.`}
            {found.length > proposals.length
              ? ` A form has at most ${MOST_FIELDS} fields, so ${found.length - proposals.length} that are not part of an address are left out too.`
              : ""}
          </p>
          <OfferedPatterns />
          <Table
            heads={["Field", "Bound to", "Why", "Confidence"]}
            hidesHeads
            className="block min-h-0 flex-1 overflow-y-auto border-y border-rule [&>tbody]:table [&>tbody]:w-full"
          >
            {proposals.map((proposal) => (
              <ProposalRow
                key={proposal.field.name}
                proposal={proposal}
                value={wanted.get(proposal.field.name) ?? wordOf(proposal.field)}
                wrong={wrong.get(proposal.field.name)}
                set={(to) => setWanted(new Map(wanted).set(proposal.field.name, to))}
              />
            ))}
          </Table>
        </>
      ) : null}
      <div className="mt-4 flex flex-wrap gap-2">
        <Button strong disabled={!proposals.length || wrong.size > 0} onClick={replace}>
          Replace the form
        </Button>
        <Button
          disabled={!proposals.length || wrong.size > 0 || isTooMuch}
          title={isTooMuch ? `A form has at most ${MOST_FIELDS} fields.` : undefined}
          onClick={add}
        >
          Add to the form
        </Button>
        <DialogClose asChild>
          <Button className="ml-auto">Close</Button>
        </DialogClose>
      </div>
    </>
  );
}

/** A proposed field, bound to what the developer wants instead. */
function boundTo({ field }: Proposal, wanted: string | undefined): Field {
  if (wanted === undefined || wanted === wordOf(field)) return field;
  const { autofill: _, binding: __, address: ___, ...plain } = field;
  const kind = field.kind === "search" ? "text" : field.kind;
  if (wanted === SEARCHES) return { ...plain, kind: "search", address: field.address };
  return wanted ? { ...plain, kind, binding: wanted, address: field.address } : { ...plain, kind };
}

function renamed(field: Field, taken: Set<string>): Field {
  const name = freeName(taken, field.name);
  taken.add(name);
  return { ...field, name };
}
