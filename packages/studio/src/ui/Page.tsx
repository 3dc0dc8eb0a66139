import type { ReactNode } from "react";
import { Link } from "react-router";
import { wordsOf } from "../state/api.ts";
import { Alert } from "./Alert.tsx";

interface PageProps {
  title: string;
  /** The page that it is part of: path and name. */
  back?: readonly [path: string, name: string];
  /** What can be done, at the right of the title. */
  actions?: ReactNode;
  intro?: ReactNode;
  error?: unknown;
  /** What is being loaded, or nothing. */
  loading?: string | false;
  width?: "max-w-4xl" | "max-w-6xl";
  children?: ReactNode;
}

/** A page of the workbench that is read from top to bottom: title, actions, introduction, what failed or is loading. */
export function Page({
  title,
  back,
  actions,
  intro,
  error,
  loading = false,
  width = "max-w-6xl",
  children,
}: PageProps) {
  return (
    <main className={`mx-auto w-full ${width} px-5 py-7`}>
      {back ? (
        <p className="text-[13px]">
          <Link to={back[0]} className="underline">
            {back[1]}
          </Link>
        </p>
      ) : null}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="mr-auto font-serif text-[26px] font-semibold">{title}</h1>
        {actions}
      </div>
      {intro ? <p className="mt-1 max-w-[46rem] text-quiet">{intro}</p> : null}
      <Alert error={error} />
      {loading ? (
        <p role="status" className="mt-4 text-quiet">
          {loading}
        </p>
      ) : null}
      {children}
    </main>
  );
}

/** In place of a page that is not there yet, or could not be loaded. */
export function Waiting({ error, words, children }: { error?: unknown; words: string; children?: ReactNode }) {
  return (
    <main className="px-5 py-8">
      {error ? <h1 className="mb-2 font-serif text-2xl font-semibold">This page cannot be shown</h1> : null}
      <p role={error ? "alert" : "status"} className={error ? "text-ochre" : "text-quiet"}>
        {error ? wordsOf(error) : words}
      </p>
      {children}
    </main>
  );
}
