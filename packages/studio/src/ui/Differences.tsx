import type { Difference } from "@bibliotope/wire";

/** Why a record is not quite what was written: each difference with what was written against what is stored. */
export function Differences({ differences }: { differences: readonly Difference[] | undefined }) {
  if (!differences?.length) return null;
  return (
    <table aria-label="What differs" className="mt-2 border-l-2 border-ochre text-[12.5px]">
      <thead className="sr-only">
        <tr>
          <th>Part</th>
          <th>Entered</th>
          <th>In the data</th>
        </tr>
      </thead>
      <tbody>
        {differences.map(({ part, written, held: known, how }) => (
          <tr key={part}>
            <th scope="row" className="pr-3 pl-2 text-left font-semibold text-ochre">
              {part}
            </th>
            <td className="pr-3 font-mono">
              <del className="decoration-ochre">{written}</del>
            </td>
            <td className="pr-3 font-mono">{known ?? "–"}</td>
            <td className="text-quiet">{HOW[how]}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const HOW: Readonly<Record<Difference["how"], string>> = {
  nearby: "the nearest in the data",
  absent: "not in the data there",
  other: "is elsewhere",
  unknown: "unknown",
};
