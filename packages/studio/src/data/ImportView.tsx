import type { FileAnswer } from "@bibliotope/wire";
import { type DragEvent, useRef, useState } from "react";
import { wordsOf } from "../state/api.ts";
import { sendFile } from "../state/data-api.ts";
import { useStudio } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { Progress } from "../ui/Progress.tsx";
import { AboutData } from "./AboutData.tsx";
import { Columns } from "./Columns.tsx";
import { FileFormat } from "./FileFormat.tsx";
import { FileHead } from "./FileHead.tsx";
import { FirstMap } from "./FirstMap.tsx";
import { FirstRows } from "./FirstRows.tsx";
import { useFileStart } from "./use-file-start.ts";

/** Brings a file: hand it in, check the meanings of its columns, describe it, load it as a draft. */
export function ImportView() {
  const { take, setFormat, setReading, ...known } = useFileStart("data");
  const { file, start } = known;
  return (
    <main className="mx-auto w-full max-w-6xl px-5 py-7">
      <FileHead back={["/data", "Data"]} title="Import a file" onOther={() => take(undefined)} {...known}>
        <Drop onFile={take} />
      </FileHead>
      {file && start ? (
        <>
          <FileFormat start={start} change={setFormat} />
          <Columns start={start} change={setReading} />
          <FirstMap spots={start.spots} />
          <FirstRows start={start} />
          <AboutData file={file} start={start} />
        </>
      ) : null}
    </main>
  );
}

/** Where a file is dropped or chosen, and how much of it is sent. */
export function Drop({ onFile }: { onFile: (file: FileAnswer) => void }) {
  const csrf = useStudio(({ csrf }) => csrf);
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
      onFile(await sendFile(file, csrf, setShare, stop.current.signal));
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
            CSV with any delimiter and encoding, GeoJSON with a point or an area per address, or a list of JSON objects.
            Each may be gzipped, up to 5 GB.
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
          <Progress label="Uploading the file" share={share} className="mx-auto max-w-[24rem]" />
          <p role="status" className="mt-2 text-quiet">
            Uploading, {Math.round(share * 100)} %
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
