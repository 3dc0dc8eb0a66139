import type { FileStart } from "@bibliotope/wire";
import { ScrollBox } from "../ui/ScrollBox.tsx";
import { Table } from "../ui/Table.tsx";

/** The first rows as they would read, and those that would not be taken. */
export function FirstRows({ start: { rows } }: { start: FileStart }) {
  const refused = rows.filter((row) => row.refused).length;
  return (
    <section aria-label="First rows" className="mt-6">
      <h2 className="font-serif text-[20px] font-semibold">Preview</h2>
      <p className="text-quiet">
        The first {rows.length} rows
        {refused ? (
          <>
            , <span className="text-madder">{refused} of them would be rejected</span>
          </>
        ) : (
          ", all valid"
        )}
        .
      </p>
      <ScrollBox label="Rows" className="mt-2 max-h-[19rem] rounded-md border border-rule bg-page">
        <Table className="w-full">
          {rows.map(({ number, line, at, refused: why, doubts }) => (
            <tr key={number} className="border-t border-rule align-baseline first:border-t-0">
              <th scope="row" className="w-14 px-4 py-1 text-right font-mono text-[12px] font-normal text-quiet">
                {number}
              </th>
              <td className="px-2 py-1">
                {why ? (
                  <span className="text-madder">{why.slice(0, 200)}</span>
                ) : (
                  <span className="font-serif text-[15px]">{line}</span>
                )}
                {doubts.length ? <span className="ml-3 text-[12.5px] text-ochre">{doubts.join(", ")}</span> : null}
              </td>
              <td className="px-4 text-right font-mono text-[12px] whitespace-nowrap text-quiet">
                {at ? `${at.lat.toFixed(5)}, ${at.lon.toFixed(5)}` : ""}
              </td>
            </tr>
          ))}
        </Table>
      </ScrollBox>
    </section>
  );
}
