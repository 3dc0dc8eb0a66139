import type { ComponentProps, ReactNode } from "react";
import { placesOf } from "./answer-places.ts";
import { Result } from "./Result.tsx";
import { bodyOf } from "./use-answer.ts";

type ResultProps = ComponentProps<typeof Result>;
type Asked = Pick<ResultProps, "state" | "query">;

interface ResultsProps extends Omit<ResultProps, "state" | "query" | "others"> {
  first: Asked;
  /** The same with other settings; undefined where nothing is compared. */
  second: Asked | undefined;
  /** What the other settings are changed by. */
  narrow: ReactNode;
}

/** What a lookup has found, perhaps beside what it finds with other settings. */
export function Results({ first, second, narrow, ...ways }: ResultsProps) {
  if (!second) return <Result {...first} {...ways} />;
  return (
    <div className="grid grid-cols-2 gap-3 max-[900px]:grid-cols-1">
      <div>
        <p className="mb-2 flex h-[26px] items-center text-[12.5px] text-quiet">These settings</p>
        <Result {...first} {...ways} others={placesOf(bodyOf(second.state))} />
      </div>
      <div>
        <div className="mb-2 flex items-center gap-2 text-[12.5px] text-quiet">
          <span>Other settings</span>
          {narrow}
        </div>
        <Result
          {...second}
          {...ways}
          others={placesOf(bodyOf(first.state))}
          marked={undefined}
          onMark={() => undefined}
        />
      </div>
    </div>
  );
}
