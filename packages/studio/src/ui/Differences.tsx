import type { Difference } from "@bibliotope/wire";
import { Table } from "./Table.tsx";

/** Why a record is not quite what was written: each difference with what was written against what is stored. */
export function Differences({ differences }: { differences: readonly Difference[] | undefined }) {
  if (!differences?.length) return null;
  return (
    <Table
      label="What differs"
      heads={["Part", "Entered", "In the data", "Why"]}
      hidesHeads
      className="mt-2 border-l-2 border-ochre text-[12.5px]"
    >
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
    </Table>
  );
}

const HOW: Readonly<Record<Difference["how"], string>> = {
  nearby: "the nearest in the data",
  absent: "not in the data there",
  other: "is elsewhere",
  unknown: "unknown",
};
