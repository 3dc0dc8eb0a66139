import { useState } from "react";
import { useCoverageQuery } from "../state/data-api.ts";
import { callUrl } from "../state/own.ts";
import { SELECT } from "./FileFormat.tsx";

const FORMATS = [
  ["csv", "CSV"],
  ["geojson", "GeoJSON"],
  ["gpx", "GPX"],
] as const;

/** A version as a file, or what lies in one of the areas; with what was corrected by hand, or as it was imported. */
export function TakeOut({ version }: { version: number }) {
  const { data } = useCoverageQuery({ version, beside: undefined });
  const [area, setArea] = useState("");
  const [isCorrected, setCorrected] = useState(true);
  const areas = data?.areas.filter(({ kind }) => kind !== "country") ?? [];
  const nameOf = ({ name, within }: (typeof areas)[number]) => (within ? `${name}, ${within}` : name);
  const wanted = area.trim().toLowerCase();
  const found = wanted
    ? areas.find((one) => nameOf(one).toLowerCase() === wanted || one.name.toLowerCase() === wanted)
    : undefined;
  const isLost = Boolean(wanted) && !found;
  const asks = { inside: found?.ref, corrected: isCorrected ? undefined : ("no" as const) };
  return (
    <section aria-label="Export" className="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2 text-[13px]">
      <span className="text-quiet">
        Export {found ? <span className="text-ink">{found.name}</span> : "everything"} as{" "}
        {FORMATS.map(([format, name], i) => (
          <span key={format}>
            {i ? ", " : ""}
            {isLost ? (
              name
            ) : (
              <a
                className="text-ink underline"
                href={callUrl("versionFile", { parts: { id: version, format }, asks })}
                download
              >
                {name}
              </a>
            )}
          </span>
        ))}
      </span>
      <label className="inline-flex items-center gap-1.5">
        <span className="text-quiet">only within</span>
        <input
          className={`${SELECT} w-[15rem]`}
          list="areas-of-version"
          placeholder="everywhere"
          value={area}
          aria-invalid={isLost || undefined}
          aria-describedby={isLost ? "no-such-area" : undefined}
          onChange={(event) => setArea(event.target.value)}
        />
      </label>
      <datalist id="areas-of-version">
        {areas.map((one) => (
          <option key={one.ref} value={nameOf(one)} />
        ))}
      </datalist>
      <label className="inline-flex items-center gap-1.5">
        <input type="checkbox" checked={isCorrected} onChange={(event) => setCorrected(event.target.checked)} />
        including corrections made by hand
      </label>
      {isLost ? (
        <span id="no-such-area" role="status" className="text-ochre">
          There is no area with that name in this version.
        </span>
      ) : null}
    </section>
  );
}
