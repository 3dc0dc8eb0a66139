import { useState } from "react";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { AnswerTree } from "./AnswerTree.tsx";
import { BindDialog } from "./BindDialog.tsx";
import type { LookupQuery } from "./lookup-query.ts";
import { PictureCode } from "./PictureCode.tsx";
import { pictureOf } from "./picture.ts";
import { RequestCode } from "./RequestCode.tsx";
import { partAt, valueAt } from "./tree.ts";
import { bodyOf, type LookupState } from "./use-answer.ts";

type Page = "answer" | "request" | "picture" | "headers";

/** What machines say: the answer as a tree, the request as code, the answer as a picture, status and headers. */
export function Raw({ query: params, state }: { query: LookupQuery; state: LookupState }) {
  const { answer } = state;
  const [page, setPage] = useState<Page>("answer");
  const [pointer, setPointer] = useState("");
  const part = partAt(pointer);
  const value = valueAt(answer?.body, pointer);
  return (
    <section
      aria-label="Raw response"
      className="flex min-h-[280px] flex-1 flex-col overflow-hidden rounded-md border border-rule bg-page"
    >
      <div className="flex items-center justify-between border-b border-rule px-3 py-2">
        <Segmented
          label="Show"
          value={page}
          onChange={setPage}
          options={[
            ["answer", "Response"],
            ["request", "Request"],
            ["picture", "Picture"],
            ["headers", "Headers"],
          ]}
        />
        {answer && page === "answer" ? (
          <CopyButton text={JSON.stringify(answer.body, null, 2)} className="text-[13px] underline" />
        ) : null}
      </div>
      {page === "request" ? <RequestCode query={params} /> : null}
      {page === "picture" ? <PictureCode picture={pictureOf(params, bodyOf(state))} /> : null}
      {page === "headers" ? (
        <dl
          tabIndex={0}
          aria-label="Status and headers"
          className="grid min-h-0 flex-1 auto-rows-min grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 overflow-auto px-4 py-3 font-mono text-[12.5px]"
        >
          {answer
            ? [
                ["status", String(answer.status)],
                ["time", `${answer.took.toFixed(1)} ms`],
                ["size", `${answer.size} B`],
                ...answer.headers,
              ].map(([name, text]) => (
                <div key={name} className="contents">
                  <dt className="text-quiet">{name}</dt>
                  <dd className="break-all">{text}</dd>
                </div>
              ))
            : null}
        </dl>
      ) : null}
      {page === "answer" && answer ? (
        <AnswerTree document={answer.body} chosen={pointer} onChoose={setPointer} />
      ) : null}
      {page === "answer" && !answer ? (
        <p className="p-4 text-quiet">The response appears here after a lookup.</p>
      ) : null}
      {page === "answer" && pointer && answer ? (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 bg-ink px-4 py-2.5 font-mono text-[12.5px] text-page">
          <span className="basis-full break-all">{pointer}</span>
          <CopyButton text={pointer} label="Copy path" />
          <CopyButton text={typeof value === "string" ? value : JSON.stringify(value)} label="Copy value" />
          {part ? <BindDialog part={part} /> : null}
        </div>
      ) : null}
    </section>
  );
}
