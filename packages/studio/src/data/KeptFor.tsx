import type { Kept } from "@bibliotope/wire";
import { type FormEvent, useState } from "react";
import { useRetentionQuery, useSetRetentionMutation } from "../state/api.ts";
import { useMayManage } from "../state/may.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { count } from "../ui/count.ts";

/** What each is called, and what goes with it. */
const WORDS: Readonly<Record<Kept, readonly [name: string, what: string]>> = {
  batches: ["Batches", "with their rows, results and decisions"],
  traces: ["Timelines of rehearsals", "if saved"],
  lookups: ["Earlier lookups", "of each user, under Lookups"],
  files: ["Uploaded files", "their contents are in the data or the batch by then"],
};

/** For how long things are kept; whoever manages the workbench may choose otherwise. */
export function KeptFor() {
  const isManager = useMayManage();
  const { data } = useRetentionQuery();
  return data ? (
    <section aria-label="Retention" className="mt-8 max-w-[46rem]">
      <h2 className="font-serif text-[20px] font-semibold">Retention</h2>
      <p className="mt-1 text-quiet">
        Older items are deleted once an hour. Addresses, forms and keys stay until somebody deletes them.
      </p>
      <ul className="mt-2 rounded-md border border-rule bg-page">
        {data.map(({ what, days }) => (
          <Line key={`${what} ${days}`} what={what} days={days} isManager={isManager} />
        ))}
      </ul>
    </section>
  ) : null;
}

function Line({ what, days, isManager }: { what: Kept; days: number; isManager: boolean }) {
  const [wanted, setWanted] = useState(String(days));
  const [set, { error, isLoading }] = useSetRetentionMutation();
  const [name, words] = WORDS[what];
  const number = Number(wanted);
  const isRight = Number.isInteger(number) && number >= 1 && number <= 3650;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (isRight) void set({ what, days: number });
  };
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule px-4 py-2.5 first:border-t-0">
      <span className="min-w-[14rem] flex-1">
        {name}
        <span className="block text-[12.5px] text-quiet">{words}</span>
      </span>
      {isManager ? (
        <form onSubmit={submit} className="flex items-center gap-2">
          <input
            type="number"
            min={1}
            max={3650}
            aria-label={`${name}, days`}
            aria-invalid={!isRight}
            className="h-[32px] w-[5.5rem] rounded border border-edge bg-field px-2 aria-invalid:border-madder"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
          />
          <span>days</span>
          <Button type="submit" disabled={!isRight || number === days || isLoading}>
            Set<span className="sr-only"> for {name.toLowerCase()}</span>
          </Button>
        </form>
      ) : (
        <span>{count(days)} days</span>
      )}
      <Alert error={error} className="w-full text-madder" />
    </li>
  );
}
