import type { FileAnswer, FileStart, LookAtFileRequest, TableFormat, TableReading } from "@bibliotope/wire";
import { useCallback, useRef, useState } from "react";
import { useInspectFileMutation } from "../state/data-api.ts";
import { useLatest } from "../ui/use-latest.ts";

/**
 * A file that was handed in, and its beginning as it is read; looked at again whenever something is set by hand.
 * @param purpose what it is uploaded for
 * @param seen hears of each beginning, and whether it is as proposed; it may put another instead
 */
export function useFileStart(
  purpose: LookAtFileRequest["purpose"],
  seen: (start: FileStart, isProposed: boolean) => FileStart = (start) => start,
) {
  const [file, setFile] = useState<FileAnswer>();
  const [start, setStart] = useState<FileStart>();
  const [inspect, { error, isLoading }] = useInspectFileMutation();
  const latest = useRef(0);
  const heard = useLatest(seen);
  const lookAgain = useCallback(
    async (file: FileAnswer, format?: Partial<TableFormat>, reading?: TableReading) => {
      const turn = ++latest.current;
      const answer = await inspect({ file: file.id, params: { format, reading, purpose } });
      // what was set meanwhile is requested already
      if (turn === latest.current && answer.data) setStart(heard.current(answer.data, !reading));
    },
    [inspect, purpose],
  );
  const take = (file: FileAnswer | undefined) => {
    setFile(file);
    setStart(undefined);
    if (file) void lookAgain(file);
  };
  return {
    ...{ file, start, error, isLoading, take },
    setFormat: (format: Partial<TableFormat>) => file && start && void lookAgain(file, { ...start.format, ...format }),
    setReading: (reading: TableReading) => file && start && void lookAgain(file, start.format, reading),
  };
}
