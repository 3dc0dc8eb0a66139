import { Link } from "react-router";
import { useLiveCoverageQuery } from "../state/data-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { count } from "../ui/count.ts";
import { ScrollBox } from "../ui/ScrollBox.tsx";
import { RowHead, Table } from "../ui/Table.tsx";
import { CellMap } from "./CellMap.tsx";
import { exact } from "./Coverage.tsx";

const HEADS = ["Country", "Addresses", "Streets", "Places", "Exact"] as const;

/** What lookups find now: a map of it, and how much of each country. @param versions how many versions are live */
export function LiveNow({ versions }: { versions: number }) {
  const { data, error, isLoading } = useLiveCoverageQuery();
  const countries = data?.countries ?? [];
  return (
    <section aria-label="Live now" className="mt-5">
      <Alert error={error} />
      {isLoading ? (
        <p role="status" className="text-quiet">
          Counting what is live
        </p>
      ) : null}
      {data && countries.length ? (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
          <CellMap grid={data.grid} label="Map of the live data" className="h-[19rem]" />
          <div>
            <h2 className="mb-1 font-serif text-[20px] font-semibold">Live now</h2>
            <ScrollBox
              label="Live data by country"
              className="max-h-[15rem] rounded-md border border-rule bg-page px-3"
            >
              <Table heads={HEADS} columns="numbers" label="Live data by country" sticks>
                {countries.map(({ ref, name, addresses, streets, bare, places }) => (
                  <tr key={ref} className="border-t border-rule align-baseline">
                    <RowHead className="py-1.5 font-serif text-[16px]">{name}</RowHead>
                    {[count(addresses), count(streets), count(places), exact(addresses, bare)].map((value, i) => (
                      <td key={HEADS[i + 1]} className="pl-4 text-right whitespace-nowrap tabular-nums">
                        {value}
                      </td>
                    ))}
                  </tr>
                ))}
              </Table>
            </ScrollBox>
            <p className="mt-2 text-[12.5px] text-quiet">
              Exact is the share with a position of their own, not only that of the street.
              {versions > 1 ? " A record in several live data sets counts once in each." : ""}{" "}
              <Link className="underline" to="/lookups">
                Try a lookup
              </Link>
            </p>
          </div>
        </div>
      ) : null}
    </section>
  );
}

/** In place of the data where there is none: what it is for, an example, and the next step. */
export function NothingLive({ canEdit }: { canEdit: boolean }) {
  return (
    <section aria-label="No data" className="mt-5 rounded-md border border-rule bg-page px-5 py-4">
      <h2 className="font-serif text-[20px] font-semibold">No data is live</h2>
      <p className="mt-1 max-w-[44rem]">
        Lookups find nothing yet. Import a CSV or GeoJSON file with an address and its position in each row. The columns
        are recognised by their names and values, for example:
      </p>
      <pre className="mt-3 overflow-x-auto rounded border border-rule bg-field px-3 py-2 font-mono text-[13px]">
        {EXAMPLE}
      </pre>
      {canEdit ? (
        <p className="mt-3">
          <Link className="underline" to="/data/import">
            Import a file
          </Link>
        </p>
      ) : null}
    </section>
  );
}

const EXAMPLE = `street,number,postcode,town,country,lat,lon
Harbour Row,12,HT0 10,Tidewell,QR,-35.1841,-21.6253
Harbour Row,14,HT0 10,Tidewell,QR,-35.1843,-21.6251`;
