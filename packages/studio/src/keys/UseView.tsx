import { KEY_CALL_WORDS, type KeySummary, USE_OUTCOMES, type UsesAnswer } from "@bibliotope/wire";
import { type ComponentProps, lazy, Suspense, useMemo, useState } from "react";
import { type Uses, useUsesQuery } from "../state/api.ts";
import { callUrl } from "../state/own.ts";
import { Alert } from "../ui/Alert.tsx";
import type { ChartColour, Series } from "../ui/Chart.tsx";
import { count } from "../ui/count.ts";
import { ScrollBox } from "../ui/ScrollBox.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { RowHead, Table } from "../ui/Table.tsx";
import { lookupsOf, momentsOf, OUTCOME_WORDS, sumOf } from "./words.ts";

const Chart = lazy(() => import("../ui/Chart.tsx"));

const SPANS = [
  ["1", "Day"],
  ["7", "Week"],
  ["30", "Month"],
  ["365", "Year"],
] as const;

/** Milliseconds after which the figures are read again. */
const AGAIN = 15_000;

/** How the keys were used: how much, how it ended, how long it took. */
export function UseView({ keys }: { keys: readonly KeySummary[] }) {
  const [days, setDays] = useState<(typeof SPANS)[number][0]>("7");
  const [key, setKey] = useState("");
  const params: Uses = { days: Number(days), key: key ? Number(key) : undefined };
  const { data, error } = useUsesQuery(params, { pollingInterval: AGAIN, skipPollingIfUnfocused: true });
  return (
    <section aria-label="Usage" className="mt-8">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="mr-auto font-serif text-[20px] font-semibold">Usage</h2>
        <select
          aria-label="Key"
          className="h-[26px] max-w-[16rem] rounded border border-edge bg-page px-1.5 text-[12.5px]"
          value={key}
          onChange={(event) => setKey(event.target.value)}
        >
          <option value="">all keys</option>
          {keys.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <Segmented label="Period" value={days} onChange={setDays} options={SPANS} />
        <a className="text-[12.5px] underline" href={callUrl("usesFile", { asks: params })} download>
          CSV
        </a>
      </div>
      <Alert error={error} />
      {data ? <Figures answer={data} /> : null}
    </section>
  );
}

const share = (value: number) => `${(value * 100).toLocaleString("en", { maximumFractionDigits: 1 })} %`;
const milliseconds = (value: number | null) =>
  value === null ? "–" : `${value.toLocaleString("en", { maximumSignificantDigits: 2 })} ms`;

function Figures({ answer }: { answer: UsesAnswer }) {
  const sum = sumOf(answer);
  const shown = useMemo(() => seriesOf(answer), [answer]);
  if (!answer.uses.length)
    return (
      <p className="mt-3 text-quiet">No lookups in this period. Only counts are stored, never what people look up.</p>
    );
  const figures = [
    ["Lookups", count(sum.lookups)],
    ["Letters typed per choice", sum.letters?.toLocaleString("en", { maximumFractionDigits: 1 }) ?? "–"],
    ["Not found", share(sum.none)],
    ["Ambiguous", share(sum.several)],
    ["Median", milliseconds(answer.median)],
    ["99th percentile", milliseconds(answer.p99)],
    ["30 days at this rate", answer.month === null ? "–" : count(answer.month)],
  ];
  return (
    <>
      <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-4 lg:grid-cols-7">
        {figures.map(([name, value]) => (
          <div key={name}>
            <dt className="text-[12.5px] text-quiet">{name}</dt>
            <dd className="font-serif text-[19px]">{value}</dd>
          </div>
        ))}
      </dl>
      <Suspense
        fallback={
          <p role="status" className="mt-4 text-quiet">
            Drawing the charts
          </p>
        }
      >
        <div className="mt-4 grid gap-5 lg:grid-cols-2">
          <Drawn
            title="Lookups by outcome"
            kind="bar"
            label="Lookups over time by outcome; the table below has the totals"
            moments={shown.labels}
            series={shown.outcomes}
          />
          <Drawn
            title="Milliseconds"
            kind="line"
            label="Response times in milliseconds over time: median and 99th percentile"
            moments={shown.labels}
            series={shown.times}
          />
        </div>
      </Suspense>
      <CallTable answer={answer} />
    </>
  );
}

/** A chart with what its colours mean. */
function Drawn({ title, ...chart }: { title: string } & ComponentProps<typeof Chart>) {
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1 flex flex-wrap gap-x-4 text-[12.5px] text-quiet">
        {title}
        {chart.series.map(({ name, colour }) => (
          <Legend key={name} name={name} colour={colour} />
        ))}
      </figcaption>
      <Chart {...chart} />
    </figure>
  );
}

const DOTS: Readonly<Record<ChartColour, string>> = {
  verdigris: "bg-verdigris",
  moss: "bg-moss",
  indigo: "bg-indigo",
  ochre: "bg-ochre",
  plum: "bg-plum",
  slate: "bg-slate",
  quiet: "bg-quiet",
  madder: "bg-madder",
};

function Legend({ name, colour }: { name: string; colour: ChartColour }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <span aria-hidden className={`inline-block size-[9px] rounded-[2px] forced-color-adjust-none ${DOTS[colour]}`} />
      {name}
    </span>
  );
}

/** Kinds of lookup with how they ended. */
function CallTable({ answer: { uses } }: { answer: UsesAnswer }) {
  const calls = [...new Set(uses.map(({ call }) => call))];
  const outcomes = USE_OUTCOMES.filter((outcome) => uses.some((use) => use.outcome === outcome));
  const sum = (call: string, outcome: string) =>
    uses.reduce((total, use) => total + (use.call === call && use.outcome === outcome ? use.count : 0), 0);
  return (
    <ScrollBox label="Use by kind of lookup" className="mt-4">
      <Table
        heads={["Kind of lookup", ...outcomes.map((outcome) => OUTCOME_WORDS[outcome].name)]}
        columns="numbers"
        className="w-full max-w-[46rem] text-[13px]"
      >
        {calls.map((call) => (
          <tr key={call} className="border-t border-rule">
            <RowHead className="py-1">{KEY_CALL_WORDS[call]}</RowHead>
            {outcomes.map((outcome) => (
              <td key={outcome} className="py-1 pl-4 text-right tabular-nums">
                {count(sum(call, outcome))}
              </td>
            ))}
          </tr>
        ))}
      </Table>
    </ScrollBox>
  );
}

/** What the charts draw. */
function seriesOf(answer: UsesAnswer) {
  const moments = momentsOf(answer);
  const labelOf = new Intl.DateTimeFormat(
    "en",
    answer.step === "hour"
      ? { weekday: "short", hour: "2-digit", minute: "2-digit", hourCycle: "h23" }
      : { day: "numeric", month: "short" },
  );
  const at = new Map(moments.map((moment, i) => [moment, i]));
  const outcomes = USE_OUTCOMES.flatMap((outcome) => {
    const values = moments.map(() => 0);
    for (const use of lookupsOf(answer.uses)) if (use.outcome === outcome) values[at.get(use.at) ?? 0] += use.count;
    return values.some(Boolean) ? [{ ...OUTCOME_WORDS[outcome], values }] : [];
  });
  const times = (["median", "p99"] as const).map((which): Series => {
    const values: (number | null)[] = moments.map(() => null);
    for (const time of answer.times) values[at.get(time.at) ?? 0] = time[which];
    return which === "median"
      ? { name: "median", colour: "indigo", values }
      : { name: "99th percentile", colour: "madder", values, isDashed: true };
  });
  return { labels: moments.map((moment) => labelOf.format(new Date(moment))), outcomes, times };
}
