import { compareForms, type Difference, formJson } from "@bibliotope/core/form";
import type { FormVersion } from "@bibliotope/wire";
import { type ReactNode, useState } from "react";
import { useVersionsQuery, wordsOf } from "../state/api.ts";
import { draft } from "../state/draft.slice.ts";
import { callUrl } from "../state/own.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Dialog, DialogClose } from "../ui/Dialog.tsx";
import { moment } from "../ui/moment.ts";
import { saveFile } from "../ui/save-file.ts";
import { RowHead, Table } from "../ui/Table.tsx";
import { readDefinition } from "./read-definition.ts";

/** What can be done with a form as a whole: its versions, and its definition as JSON. */
export function FormMenu({ formRef }: { formRef: string }) {
  return (
    <>
      <Named title="Versions">{(close) => <Versions formRef={formRef} close={close} />}</Named>
      <Named title="Definition">{(close) => <Definition close={close} />}</Named>
    </>
  );
}

/** A button that opens a dialog with the name. */
function Named({ title, children }: { title: string; children: (close: () => void) => ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog title={title} open={open} onOpenChange={setOpen} size="large" trigger={<Button>{title}</Button>}>
      {children(() => setOpen(false))}
    </Dialog>
  );
}

function Versions({ formRef, close }: { formRef: string; close: () => void }) {
  const { data: versions, error } = useVersionsQuery(formRef, { refetchOnMountOrArgChange: true });
  const definition = useStudio((state) => state.draft.definition);
  const dispatch = useStudioDispatch();
  const [shown, setShown] = useState<number>();
  const existing = versions?.find(({ number }) => number === (shown ?? versions[0]?.number));
  const differences = existing ? compareForms(existing.definition, definition) : [];
  const bringBack = (version: FormVersion) => {
    dispatch(draft.edited({ definition: version.definition, selected: "" }));
    close();
  };
  if (error)
    return (
      <p role="alert" className="mt-3">
        {wordsOf(error)}
      </p>
    );
  return (
    <>
      {versions?.length ? (
        <div className="mt-3 grid min-h-0 grid-cols-[190px_minmax(0,1fr)] gap-5">
          <ul aria-label="Published versions" className="overflow-y-auto">
            {versions.map(({ number, publishedAt }) => (
              <li key={number}>
                <button
                  type="button"
                  aria-pressed={number === existing?.number}
                  onClick={() => setShown(number)}
                  className="w-full rounded px-2.5 py-1.5 text-left hover:bg-wash aria-pressed:bg-wash"
                >
                  <span className="font-semibold">Version {number}</span>
                  <span className="block text-[12.5px] text-quiet">{moment(publishedAt)}</span>
                </button>
              </li>
            ))}
          </ul>
          <section aria-label="What the draft changes" className="min-h-0 overflow-y-auto">
            {differences.length ? (
              <Table
                caption={`${differences.length === 1 ? "One change" : `${differences.length} changes`} from version ${existing?.number} to the draft`}
              >
                {differences.map((difference) => (
                  <Change key={`${difference.field} ${difference.kind} ${difference.what}`} difference={difference} />
                ))}
              </Table>
            ) : (
              <p className="text-quiet">The draft is the same as version {existing?.number}.</p>
            )}
          </section>
        </div>
      ) : (
        <p className="mt-3 text-quiet">{versions ? "Not published yet." : "Loading versions"}</p>
      )}
      <div className="mt-4 flex gap-2">
        {existing ? (
          <Button strong disabled={!differences.length} onClick={() => bringBack(existing)}>
            Restore version {existing.number}
          </Button>
        ) : null}
        <DialogClose asChild>
          <Button className="ml-auto">Close</Button>
        </DialogClose>
      </div>
    </>
  );
}

function Change({ difference: { field, kind, what, before, after } }: { difference: Difference }) {
  return (
    <tr className="border-t border-rule align-baseline">
      <RowHead className="w-[34%] py-1.5 pr-3">
        <span className="font-mono text-[12px]">{field || "form"}</span>{" "}
        <span className="text-quiet">{what || kind}</span>
      </RowHead>
      <td className="py-1.5 break-words">
        {kind === "changed" ? (
          <>
            <del className="text-quiet">{before || "–"}</del> <span aria-hidden>→</span>{" "}
            <ins className="no-underline">{after || "–"}</ins>
          </>
        ) : (
          after || before
        )}
      </td>
    </tr>
  );
}

/** The definition as JSON: to be copied, saved as a file, or changed and taken back. */
function Definition({ close }: { close: () => void }) {
  const { definition, ref } = useStudio((state) => state.draft);
  const dispatch = useStudioDispatch();
  const [text, setText] = useState(() => formJson(definition));
  const [wrong, setWrong] = useState("");
  const take = async () => {
    const read = await readDefinition(text);
    if (typeof read === "string") {
      setWrong(read);
      return;
    }
    dispatch(draft.edited({ definition: read, selected: "" }));
    close();
  };
  return (
    <>
      <label htmlFor="definition-json" className="mt-2 mb-1 block text-[12.5px] text-quiet">
        The form as a JSON document. Schema:{" "}
        <a className="underline" href={callUrl("formSchema", {})} target="_blank" rel="noreferrer">
          /api/forms/schema.json
        </a>
        .
      </label>
      <textarea
        id="definition-json"
        className="h-[380px] w-full rounded border border-edge bg-field px-3 py-2 font-mono text-[12.5px]"
        spellCheck={false}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setWrong("");
        }}
      />
      <p role="alert" className="min-h-5 text-[12.5px] text-madder">
        {wrong}
      </p>
      <div className="mt-2 flex items-center gap-3">
        <Button strong onClick={() => void take()}>
          Use this definition
        </Button>
        <Button onClick={() => saveFile(`${ref}.json`, text)}>Save as a file</Button>
        <CopyButton text={text} className="underline" />
        <DialogClose asChild>
          <Button className="ml-auto">Close</Button>
        </DialogClose>
      </div>
    </>
  );
}
