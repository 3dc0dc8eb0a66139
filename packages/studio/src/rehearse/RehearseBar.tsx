import type { Rehearsed } from "@bibliotope/wire";
import { Button } from "../ui/Button.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { ofServicesAlone, SITUATION_WORDS, type Width } from "./situations.ts";

/** Panels that open beside the form. */
export type RehearsePanel = "rehearsals" | "send";

interface RehearseBarProps {
  width: Width;
  setWidth: (width: Width) => void;
  /** Whether the form asks outside services. */
  hasServices: boolean;
  situation: Rehearsed;
  choose: (situation: Rehearsed) => void;
  isStored: boolean;
  /** Undefined while there is nothing to store. */
  openStored: (() => void) | undefined;
  /** Undefined while nothing was done. */
  beginAnew: (() => void) | undefined;
  opened: RehearsePanel | undefined;
  setOpened: (panel: RehearsePanel | undefined) => void;
  /** How many rehearsals are kept. */
  kept: number;
}

/** What a rehearsal is played in, and the panels beside it. */
export function RehearseBar({
  width,
  setWidth,
  hasServices,
  situation,
  choose,
  isStored,
  openStored,
  beginAnew,
  opened,
  setOpened,
  kept,
}: RehearseBarProps) {
  return (
    <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-2 pb-2">
      <Segmented
        label="Width"
        value={width}
        onChange={setWidth}
        options={[
          ["desk", "Desk"],
          ["tablet", "Tablet"],
          ["phone", "Phone"],
        ]}
      />
      <label className="inline-flex items-center gap-2 text-quiet">
        Situation
        <select
          className="h-[28px] rounded border border-edge bg-field px-1.5 text-ink"
          value={situation}
          onChange={(event) => choose(event.target.value as Rehearsed)}
        >
          {(Object.entries(SITUATION_WORDS) as [Rehearsed, string][])
            .filter(([value]) => hasServices || !ofServicesAlone(value))
            .map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
        </select>
      </label>
      {situation === "normal" ? null : (
        <span role="status" className="text-ochre">
          Simulated: {SITUATION_WORDS[situation]}
        </span>
      )}
      <span className="ml-auto flex items-center gap-2.5 max-[640px]:ml-0">
        {isStored ? <span role="status">Stored record</span> : null}
        {openStored ? (
          <button type="button" className="text-quiet underline" onClick={openStored}>
            Open a stored record
          </button>
        ) : null}
        {beginAnew ? (
          <button type="button" className="text-quiet underline" onClick={beginAnew}>
            Start over
          </button>
        ) : null}
        <Button
          aria-expanded={opened === "send"}
          aria-controls="would-send"
          onClick={() => setOpened(opened === "send" ? undefined : "send")}
        >
          Submitted values
        </Button>
        <Button
          aria-expanded={opened === "rehearsals"}
          aria-controls="rehearsals"
          onClick={() => setOpened(opened === "rehearsals" ? undefined : "rehearsals")}
        >
          Rehearsals{kept ? ` (${kept})` : ""}
        </Button>
      </span>
    </div>
  );
}
