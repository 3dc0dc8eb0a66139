import { MEANINGS, type Meaning, OF_FACTS, PLACED } from "@bibliotope/core/import";
import type { BatchAsk, FileAnswer, FileStart, TableReading } from "@bibliotope/wire";
import { useState } from "react";
import { useNavigate } from "react-router";
import { Columns } from "../data/Columns.tsx";
import { FileFormat } from "../data/FileFormat.tsx";
import { FileHead } from "../data/FileHead.tsx";
import { Drop } from "../data/ImportView.tsx";
import { useFileStart } from "../data/use-file-start.ts";
import { wordsOf } from "../state/api.ts";
import { useMakeBatchMutation } from "../state/batches-api.ts";
import { sendFile, useDataQuery } from "../state/data-api.ts";
import { useServicesQuery } from "../state/services-api.ts";
import { useStudio } from "../state/store.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Segmented } from "../ui/Segmented.tsx";

const ASKS = [
  ["forward", "By address"],
  ["reverse", "By position"],
  ["both", "By address, then by position"],
] as const;
/** What columns of a batch may mean. */
const FOR_BATCHES: readonly Meaning[] = [
  "text",
  ...MEANINGS.filter((one) => !["text", "id", "kinds", "importance"].includes(one) && !OF_FACTS.has(one)),
];

const isOfPosition = (meaning: Meaning | undefined) => meaning !== undefined && PLACED.has(meaning);

/** What the rows of a file most likely ask. */
function usualAsk({ columns }: TableReading): BatchAsk {
  const meanings = columns.flatMap((use) => (use && use.meaning !== "id" ? [use.meaning] : []));
  if (!meanings.some(isOfPosition)) return "forward";
  return meanings.every(isOfPosition) ? "reverse" : "both";
}

/** Brings a file, or lines, to be looked up. */
export function NewBatchView() {
  const [ask, setAsk] = useState<BatchAsk>("forward");
  const { take, setFormat, setReading, ...known } = useFileStart("batch", (seen, isProposed) => {
    const read = withText(seen);
    if (isProposed) setAsk(usualAsk(read.reading));
    return read;
  });
  const { file, start } = known;
  const [make, made] = useMakeBatchMutation();
  const registers = useServicesQuery().data?.filter(({ isRegister }) => isRegister) ?? [];
  const [register, setRegister] = useState("");
  const navigate = useNavigate();
  const go = async () => {
    if (!file || !start) return;
    const { format, heads, reading } = start;
    const answer = await make({
      file: file.id,
      name: file.name,
      format,
      heads,
      reading,
      ask,
      register: register || undefined,
    });
    if (answer.data) await navigate(`/batches/${answer.data.batch}`);
  };
  const hasMeaning = start?.reading.columns.some((use) => use && use.meaning !== "id");
  return (
    <main className="mx-auto w-full max-w-6xl px-5 py-7">
      <FileHead back={["/batches", "Batches"]} title="New batch" onOther={() => take(undefined)} {...known}>
        <Drop onFile={take} />
        <Lines onFile={take} />
      </FileHead>
      {file && start ? (
        <>
          <FileFormat start={start} change={setFormat} />
          <Columns start={start} meanings={FOR_BATCHES} change={setReading} />
          <div className="mt-5 flex flex-wrap items-center gap-4">
            <span className="text-quiet">Look up each row</span>
            <Segmented label="Look up each row" value={ask} onChange={setAsk} options={ASKS} />
          </div>
          {registers.length ? (
            <label className="mt-3 flex flex-wrap items-center gap-3 text-quiet">
              Check clear rows against
              <select
                className="h-[34px] rounded border border-edge bg-field px-2 text-ink"
                value={register}
                onChange={(event) => setRegister(event.target.value)}
              >
                <option value="">no register</option>
                {registers.map(({ name, title }) => (
                  <option key={name} value={name}>
                    {title}
                  </option>
                ))}
              </select>
            </label>
          ) : null}
          <Alert error={made.error} className="mt-3 text-madder" />
          <div className="mt-5 flex items-center gap-4">
            <Button strong disabled={!hasMeaning || made.isLoading} onClick={() => void go()}>
              Look up all rows
            </Button>
            {hasMeaning ? null : <span className="text-ochre">Set what at least one column contains.</span>}
          </div>
        </>
      ) : null}
    </main>
  );
}

/** A table of one column is a list of addresses. */
function withText(start: FileStart): FileStart {
  const [only] = start.columns;
  if (start.columns.length !== 1 || only.use) return start;
  const use = { meaning: "text" as const };
  return {
    ...start,
    columns: [{ use, why: "the only column" }],
    reading: { ...start.reading, columns: [use] },
  };
}

/** Addresses of the demo data as people write them: some are found at once, some are doubtful, one is nowhere. */
const SAMPLE = `12 Harbour Row, Tidewell
12 harbor rw tidewell
Østergränd 3, Vårhamn
12b Harbour Row, Tidewell
14 Harbour Street
99 Elsewhere Lane, Sandmouth
`;

/** Whether lookups find what the sample names. */
function useHasDemo(): boolean {
  const { data } = useDataQuery();
  const demo = data?.dataSets.find(({ name }) => name === "The islands");
  return demo?.versions.some(({ isLive }) => isLive) ?? false;
}

/** Lines that are typed or pasted. */
function Lines({ onFile }: { onFile: (file: FileAnswer) => void }) {
  const csrf = useStudio(({ csrf }) => csrf);
  const hasDemo = useHasDemo();
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<string>();
  const [isSending, setIsSending] = useState(false);
  const lines = text.split("\n").filter((line) => line.trim()).length;
  const send = async () => {
    setIsSending(true);
    setWrong(undefined);
    // each line is one cell, whatever is in it
    const quoted = text
      .split("\n")
      .filter((line) => line.trim())
      .map((line) => (line.includes("\t") ? line : `"${line.trim().replaceAll('"', '""')}"`));
    const table = `${quoted.some((line) => line.includes("\t")) ? "" : "text\n"}${quoted.join("\n")}\n`;
    try {
      const file = new File([table], `${lines} lines`, { type: "text/csv" });
      onFile(await sendFile(file, csrf, () => undefined, new AbortController().signal));
    } catch (error) {
      setWrong(wordsOf(error));
    } finally {
      setIsSending(false);
    }
  };
  return (
    <div className="mt-5">
      <label className="block">
        <span className="mb-1 block text-[12.5px] text-quiet">
          Or paste addresses, one per line, or cells from a spreadsheet
        </span>
        <textarea
          className="block h-40 w-full rounded border border-edge bg-field p-3 font-mono text-[13px]"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {wrong ? (
        <p role="alert" className="mt-2 text-madder">
          {wrong}
        </p>
      ) : null}
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <Button disabled={!lines || isSending} onClick={() => void send()}>
          {lines ? `Use ${lines === 1 ? "this line" : `these ${lines.toLocaleString("en")} lines`}` : "Use these lines"}
        </Button>
        {hasDemo && !text ? (
          <button type="button" className="underline" onClick={() => setText(SAMPLE)}>
            Try it with six sample addresses
          </button>
        ) : null}
      </div>
    </div>
  );
}
