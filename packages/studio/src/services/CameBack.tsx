import type { TriedService } from "@bibliotope/wire";
import { useMemo, useState } from "react";
import { AnswerTree } from "../lookups/AnswerTree.tsx";
import { valueAt } from "../lookups/tree.ts";
import { CopyButton } from "../ui/CopyButton.tsx";
import { ScrollBox } from "../ui/ScrollBox.tsx";
import { treeOf, valueFor } from "./ways.ts";
import { OUTCOME_WORDS } from "./words.ts";

interface CameBackProps {
  tried: TriedService;
  /** A value of the answer is to be named for forms. */
  name: (pointer: string, value: ReturnType<typeof valueFor>) => void;
  isFixed: boolean;
}

const isOpen = (pointer: string) => pointer.split("/").length < 6;

/** What a service has answered: in a sentence, and as a tree of which a press names a value for forms. */
export function CameBack({ tried, name, isFixed }: CameBackProps) {
  const { outcome, words, status, took, headers, body, form, curl } = tried;
  const [chosen, setChosen] = useState("");
  const [showsHeaders, setShowsHeaders] = useState(false);
  const document = useMemo(() => treeOf(body, form), [body, form]);
  const [said, colour] = OUTCOME_WORDS[outcome];
  const proposed = chosen && form !== "text" ? valueFor(chosen, valueAt(document, chosen), form) : undefined;
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3 text-[13px] text-quiet">
        <span>
          <strong className={colour}>{said}</strong> in {took} ms{status === null ? "" : `, status ${status}`}.{" "}
          {outcome === "answered" ? "" : words}
        </span>
        {headers.length ? (
          <button
            type="button"
            className="underline"
            aria-expanded={showsHeaders}
            onClick={() => setShowsHeaders(!showsHeaders)}
          >
            Headers
          </button>
        ) : null}
        <CopyButton text={curl} label="Copy as curl" />
      </p>
      {showsHeaders ? (
        <dl className="my-1 max-h-40 overflow-auto border-y border-rule py-1 font-mono text-[12px]">
          {headers.map(({ name: header, value }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a header may come twice
            <div key={i} className="break-words">
              <dt className="inline text-quiet">{header}: </dt>
              <dd className="inline">{value}</dd>
            </div>
          ))}
        </dl>
      ) : null}
      {document !== undefined ? (
        <AnswerTree document={document} chosen={chosen} onChoose={setChosen} opens={isOpen} />
      ) : body ? (
        <ScrollBox label="Response as text" className="min-h-0 flex-1">
          <pre className="py-2 font-mono text-[12px] break-all whitespace-pre-wrap">{body}</pre>
        </ScrollBox>
      ) : (
        <p className="mt-3 text-quiet">Empty response.</p>
      )}
      {proposed ? (
        <div className="mt-2 flex items-baseline gap-3 rounded bg-ink px-3 py-2 font-mono text-[12.5px] text-page">
          <span className="min-w-0 flex-1 break-words">
            {proposed.way}
            {proposed.isList ? `, each${proposed.each ? ` ${proposed.each}` : ""}` : ""}
          </span>
          {isFixed ? null : (
            <button type="button" className="font-sans underline" onClick={() => name(chosen, proposed)}>
              Use in forms
            </button>
          )}
        </div>
      ) : null}
    </>
  );
}
