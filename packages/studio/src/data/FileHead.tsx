import type { FileAnswer, FileStart } from "@bibliotope/wire";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { wordsOf } from "../state/api.ts";
import { size } from "./words.ts";

interface FileHeadProps {
  /** The view that it is uploaded in. */
  back: readonly [path: string, name: string];
  /** What is there before there is a file. */
  title: string;
  file: FileAnswer | undefined;
  start: FileStart | undefined;
  error: unknown;
  isLoading: boolean;
  onOther: () => void;
  /** Where a file is dropped or chosen. */
  children: ReactNode;
}

/** The head of a page to which a file is uploaded: which one it is, and what is wrong with it. */
export function FileHead({
  back: [path, name],
  title,
  file,
  start,
  error,
  isLoading,
  onOther,
  children,
}: FileHeadProps) {
  return (
    <>
      <p className="text-[13px]">
        <Link to={path} className="underline">
          {name}
        </Link>
      </p>
      <h1 className="font-serif text-[26px] font-semibold">{file ? file.name : title}</h1>
      {file ? (
        <p className="text-quiet">
          {size(file.bytes)}{" "}
          <button type="button" className="underline" onClick={onOther}>
            Choose another file
          </button>
        </p>
      ) : (
        children
      )}
      {error && file ? (
        <p role="alert" className="mt-3 text-madder">
          {wordsOf(error)}
        </p>
      ) : null}
      {isLoading && file && !start ? (
        <p role="status" className="mt-4 text-quiet">
          Reading the file
        </p>
      ) : null}
    </>
  );
}
