import { compareForms, type Difference } from "@bibliotope/core/form";
import type { FormVersion } from "@bibliotope/wire";
import { useState } from "react";
import { useVersionsQuery, wordsOf } from "../state/api.ts";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { DialogClose } from "../ui/Dialog.tsx";
import { moment } from "../ui/moment.ts";
import { RowHead, Table } from "../ui/Table.tsx";

/** Published versions of a form, and what the draft changes of each; one can be restored. */
export default function Versions({ formRef, close }: { formRef: string; close: () => void }) {
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
