import { PARTS } from "@bibliotope/core/place";
import { useEffect, useRef } from "react";
import { Button } from "../ui/Button.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { ABOUT, CALLS, canAsk, type LookupQuery } from "./lookup-query.ts";

interface QueryFormProps {
  /** What is in the form, which may not be requested yet. */
  typed: LookupQuery;
  choose: (call: LookupQuery["call"]) => void;
  /** A word of the lookup was typed. */
  type: (name: string, value: string) => void;
  /** The ref or country of the lookup was typed. */
  setOf: (of: string) => void;
  ask: () => void;
}

/** Kind and words of a lookup. */
export function QueryForm({ typed, choose, type, setOf, ask }: QueryFormProps) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const { main, of, hint } = ABOUT[typed.call];
  return (
    <form
      className="flex flex-wrap items-stretch gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (canAsk(typed)) ask();
      }}
    >
      <Segmented
        large
        label="Kind of lookup"
        value={typed.call}
        onChange={(call) => {
          choose(call);
          input.current?.focus();
        }}
        options={CALLS.map((call) => [call, ABOUT[call].name] as const)}
      />
      {of ? (
        <input
          ref={main ? undefined : input}
          aria-label={of}
          placeholder={of}
          value={typed.of ?? ""}
          onChange={(event) => setOf(event.target.value.trim())}
          className={`h-[40px] rounded border border-ink bg-field px-3 font-mono text-[15px] ${main ? "w-24" : "min-w-0 flex-1"}`}
        />
      ) : null}
      {main ? (
        <input
          ref={input}
          aria-label={ABOUT[typed.call].name}
          placeholder={hint}
          value={typed.words[main] ?? ""}
          onChange={(event) => type(main, event.target.value)}
          spellCheck={false}
          autoComplete="off"
          className="h-[40px] min-w-56 flex-1 rounded border border-ink bg-field px-3.5 font-serif text-[18px]"
        />
      ) : null}
      {typed.call === "distance" ? (
        <input
          aria-label="To"
          placeholder="LAT,LON"
          value={typed.words.to ?? ""}
          onChange={(event) => type("to", event.target.value)}
          className="h-[40px] min-w-44 flex-1 rounded border border-ink bg-field px-3.5 font-serif text-[18px]"
        />
      ) : null}
      <Button strong type="submit" className="h-[40px]! px-4!" disabled={!canAsk(typed)}>
        Look up
      </Button>
    </form>
  );
}

/** An address by parts, beside or instead of free text. */
export function ByParts({
  typed,
  onType,
  onAsk,
}: {
  typed: LookupQuery;
  onType: (name: string, value: string) => void;
  onAsk: () => void;
}) {
  return (
    <div className="grid grid-cols-7 gap-2 max-[900px]:grid-cols-3">
      {PARTS.map((part) => (
        <label key={part} className="text-[12px] text-quiet">
          {part}
          <input
            value={typed.words[part] ?? ""}
            onChange={(event) => onType(part, event.target.value)}
            onKeyDown={(event) => event.key === "Enter" && onAsk()}
            className="mt-0.5 h-[30px] w-full rounded border border-edge bg-field px-2 font-serif text-[15px] text-ink"
          />
        </label>
      ))}
    </div>
  );
}
