import { useState } from "react";
import { useFormQuery, useFormsQuery, useSaveDraftMutation, wordsOf } from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { Dialog, DialogClose } from "../ui/Dialog.tsx";

/** Binds a part that is in an answer to a field of one of the forms. */
export function BindDialog({ part }: { part: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog
      title={`Bind ${part} to a field`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="underline">
          Bind to a field
        </button>
      }
    >
      <BindForm part={part} />
      <DialogClose asChild>
        <Button className="mt-3 self-start">Close</Button>
      </DialogClose>
    </Dialog>
  );
}

function BindForm({ part }: { part: string }) {
  const { data: forms = [] } = useFormsQuery();
  const [chosen, setChosen] = useState("");
  const ref = chosen || forms[0]?.ref;
  const existing = useFormQuery(ref ?? "", { skip: !ref, refetchOnMountOrArgChange: true }).currentData;
  const [field, setField] = useState("");
  const [save, saving] = useSaveDraftMutation();
  const draft = saving.data?.ref === ref ? saving.data : existing;
  const fields = draft?.definition.fields.filter(({ kind }) => kind === "text") ?? [];
  const name = fields.some((one) => one.name === field) ? field : fields[0]?.name;
  const bind = () => {
    if (!draft || !name) return;
    const bound = draft.definition.fields.map((one) => (one.name === name ? { ...one, binding: `{${part}}` } : one));
    void save({ ref: draft.ref, revision: draft.revision, definition: { ...draft.definition, fields: bound } });
  };
  const select = "mt-1 h-[34px] w-full rounded border border-edge bg-field px-2";
  return (
    <div className="mt-3 grid gap-3">
      <label>
        Form
        <select className={select} value={ref} onChange={(event) => setChosen(event.target.value)}>
          {forms.map((form) => (
            <option key={form.ref} value={form.ref}>
              {form.title}
            </option>
          ))}
        </select>
      </label>
      <label>
        Field
        <select className={select} value={name} onChange={(event) => setField(event.target.value)}>
          {fields.map((one) => (
            <option key={one.name} value={one.name}>
              {one.label}
              {one.binding ? `, now ${one.binding}` : ""}
            </option>
          ))}
        </select>
      </label>
      <div className="flex items-center gap-3">
        <Button strong onClick={bind} disabled={!name || saving.isLoading}>
          Bind
        </Button>
        <span role="status" className={saving.error ? "text-ochre" : "text-quiet"}>
          {saving.error
            ? wordsOf(saving.error)
            : saving.data
              ? `Bound and saved in ${saving.data.definition.title}.`
              : ""}
        </span>
      </div>
    </div>
  );
}
