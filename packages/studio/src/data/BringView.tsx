import type { FileAnswer, FileStart, TableFormat, TableReading } from "@bibliotope/wire";
import { type DragEvent, useCallback, useRef, useState } from "react";
import { Link } from "react-router";
import { wordsOf } from "../state/api.ts";
import { sendFile, useLookAtFileMutation } from "../state/data-api.ts";
import { Button } from "../ui/Button.tsx";
import { AboutData } from "./AboutData.tsx";
import { Columns } from "./Columns.tsx";
import { FileFormat } from "./FileFormat.tsx";
import { FirstRows } from "./FirstRows.tsx";
import { size } from "./words.ts";

/** Brings a file: hand it in, look at what its columns are taken for, say what it is, load it as a draft. */
export function BringView() {
  const [file, setFile] = useState<FileAnswer>();
  const [start, setStart] = useState<FileStart>();
  const [look, { error, isLoading }] = useLookAtFileMutation();
  const asked = useRef(0);

  const lookAgain = useCallback(
    async (held: FileAnswer, format?: Partial<TableFormat>, reading?: TableReading) => {
      const turn = ++asked.current;
      const answer = await look({ file: held.id, asked: { format, reading } });
      if (turn === asked.current && answer.data) setStart(answer.data);
    },
    [look],
  );
  const take = (held: FileAnswer) => {
    setFile(held);
    setStart(undefined);
    void lookAgain(held);
  };

  return (
    <main className="mx-auto w-full max-w-6xl px-5 py-7">
      <p className="text-[13px]">
        <Link to="/data" className="underline">
          Data
        </Link>
      </p>
      <h1 className="font-serif text-[26px] font-semibold">{file ? file.name : "Bring a file"}</h1>
      {file ? (
        <p className="text-quiet">
          {size(file.bytes)}{" "}
          <button type="button" className="underline" onClick={() => setFile(undefined)}>
            Another file
          </button>
        </p>
      ) : (
        <Drop onFile={take} />
      )}
      {error && file ? (
        <p role="alert" className="mt-3 text-madder">
          {wordsOf(error)}
        </p>
      ) : null}
      {isLoading && file && !start ? (
        <p role="status" className="mt-4 text-quiet">
          Looking at the file
        </p>
      ) : null}
      {file && start ? (
        <>
          <FileFormat start={start} change={(format) => void lookAgain(file, { ...start.format, ...format })} />
          <Columns start={start} change={(reading) => void lookAgain(file, start.format, reading)} />
          <FirstRows start={start} />
          <AboutData file={file} start={start} />
        </>
      ) : null}
    </main>
  );
}

/** Where a file is dropped or chosen, and how much of it is sent. */
export function Drop({ onFile }: { onFile: (file: FileAnswer) => void }) {
  const [share, setShare] = useState<number>();
  const [wrong, setWrong] = useState<string>();
  const [isOver, setIsOver] = useState(false);
  const stop = useRef<AbortController>(undefined);
  const chooser = useRef<HTMLInputElement>(null);
  const send = async (file: File | undefined) => {
    if (!file) return;
    setWrong(undefined);
    setShare(0);
    stop.current = new AbortController();
    try {
      onFile(await sendFile(file, setShare, stop.current.signal));
    } catch (error) {
      if ((error as { status?: string }).status !== "STOPPED") setWrong(wordsOf(error));
    } finally {
      setShare(undefined);
    }
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setIsOver(false);
    void send(event.dataTransfer.files[0]);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the button within does the same by keyboard
    <div
      className={`mt-4 rounded-md border border-dashed px-6 py-10 text-center ${isOver ? "border-ink bg-wash" : "border-edge bg-page"}`}
      onDragOver={(event) => {
        event.preventDefault();
        setIsOver(true);
      }}
      onDragLeave={() => setIsOver(false)}
      onDrop={drop}
    >
      {share === undefined ? (
        <>
          <p className="font-serif text-[19px]">Drop a file here</p>
          <p className="mx-auto mt-1 max-w-[34rem] text-quiet">
            CSV with any delimiter and encoding, or GeoJSON with a point for each address; both also gzipped, up to 5
            GB. Nothing is changed until you load it, and nothing is live until you publish it.
          </p>
          <input
            ref={chooser}
            type="file"
            aria-label="File"
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => void send(event.target.files?.[0])}
          />
          <Button className="mt-4" onClick={() => chooser.current?.click()}>
            Choose a file
          </Button>
        </>
      ) : (
        <>
          <div
            role="progressbar"
            aria-label="Sending the file"
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(share * 100)}
            className="mx-auto h-1.5 max-w-[24rem] overflow-hidden rounded bg-rule"
          >
            <div className="h-full bg-verdigris" style={{ width: `${share * 100}%` }} />
          </div>
          <p role="status" className="mt-2 text-quiet">
            Sending, {Math.round(share * 100)} %
          </p>
          <Button className="mt-3" onClick={() => stop.current?.abort()}>
            Stop
          </Button>
        </>
      )}
      {wrong ? (
        <p role="alert" className="mt-3 text-madder">
          {wrong}
        </p>
      ) : null}
    </div>
  );
}
