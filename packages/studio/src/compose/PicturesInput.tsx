import { type PictureTiles, pictureOrigin, pictureUrlTrouble } from "@bibliotope/core/map";
import { useState } from "react";
import { useHostsQuery } from "../state/services-api.ts";
import { INPUT, Labelled } from "./Labelled.tsx";

interface PicturesInputProps {
  pictures: PictureTiles | undefined;
  set: (pictures: PictureTiles | undefined) => void;
}

/** Picture tiles of one's own in place of a map style; kept as soon as they can be shown. */
export function PicturesInput({ pictures, set }: PicturesInputProps) {
  const [draft, setDraft] = useState(pictures ?? { name: "Background", url: "", attribution: "" });
  const { data: hosts } = useHostsQuery();
  const url = draft.url.trim();
  const trouble = url ? pictureUrlTrouble(url) : undefined;
  const origin = url && !trouble ? pictureOrigin(url) : undefined;
  const offered = (hosts ?? []).filter(({ forPictures }) => forPictures).map(originOf);
  const isForeign = origin !== undefined && hosts !== undefined && !offered.includes(new URL(origin).origin);
  const words = trouble
    ? `The address ${trouble}.`
    : url && !draft.attribution.trim()
      ? "Enter who made them. The map shows it."
      : isForeign
        ? `${origin} is not allowed for tiles yet. Add it under Services, Allowed hosts.`
        : "";
  const change = (to: Partial<PictureTiles>) => {
    const next = { ...draft, ...to };
    setDraft(next);
    const [address, by] = [next.url.trim(), next.attribution.trim()];
    const isReady = address && by && !pictureUrlTrouble(address);
    if (isReady) set({ ...next, url: address, attribution: by, name: next.name.trim() || "Background" });
    else if (!address && pictures) set(undefined);
  };
  return (
    <fieldset className="grid gap-2 rounded-md border border-rule p-3">
      <legend className="px-1 text-[13px] text-quiet">Your own map tiles</legend>
      <Labelled label="URL template (XYZ or WMTS)">
        {(id) => (
          <>
            <input
              id={id}
              className={`${INPUT} font-mono text-[13px]`}
              value={draft.url}
              maxLength={1000}
              spellCheck={false}
              placeholder="https://pictures.example/{z}/{x}/{y}.jpg"
              aria-invalid={trouble !== undefined}
              aria-describedby={`${id}-words`}
              onChange={({ target }) => change({ url: target.value })}
            />
            <p id={`${id}-words`} role="status" className="text-[12.5px] text-madder empty:hidden">
              {words}
            </p>
          </>
        )}
      </Labelled>
      {url ? (
        <>
          <Labelled label="Attribution">
            {(id) => (
              <input
                id={id}
                className={INPUT}
                value={draft.attribution}
                maxLength={300}
                onChange={({ target }) => change({ attribution: target.value })}
              />
            )}
          </Labelled>
          <div className="grid grid-cols-2 gap-3">
            <Labelled label="Layer name">
              {(id) => (
                <input
                  id={id}
                  className={INPUT}
                  value={draft.name}
                  maxLength={60}
                  onChange={({ target }) => change({ name: target.value })}
                />
              )}
            </Labelled>
            <Labelled label="Maximum zoom">
              {(id) => (
                <input
                  id={id}
                  type="number"
                  min={0}
                  max={24}
                  className={INPUT}
                  value={draft.most ?? 19}
                  onChange={({ target }) => {
                    const most = target.valueAsNumber;
                    if (Number.isInteger(most) && most >= 0 && most <= 24) change({ most });
                  }}
                />
              )}
            </Labelled>
          </div>
        </>
      ) : null}
    </fieldset>
  );
}

const originOf = ({ scheme, host, port }: { scheme: string; host: string; port: number }) =>
  new URL(`${scheme}://${host}:${port}`).origin;
