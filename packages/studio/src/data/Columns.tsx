import {
  ANGLE_FORMS,
  type ColumnForm,
  type ColumnUse,
  factNameOf,
  gridsOf,
  kindOfValues,
  MEANINGS,
  type Meaning,
  NAME_FORMS,
  NAMED,
  sameUse,
} from "@bibliotope/core/import";
import { FACT_KINDS, type FactKind } from "@bibliotope/core/place";
import type { FileStart, TableReading } from "@bibliotope/wire";
import { useState } from "react";
import { FramedTable, RowHead } from "../ui/Table.tsx";
import { SELECT } from "./FileFormat.tsx";
import { MEANING_WORDS } from "./words.ts";

interface ColumnsProps {
  start: FileStart;
  change: (reading: TableReading) => void;
  /** Meanings that can be chosen. */
  meanings?: readonly Meaning[];
}

/** Meanings of columns of data; a whole address in one text is for batches. */
const FOR_DATA = MEANINGS.filter((meaning) => meaning !== "text");

/** What each column is taken for, and why. */
export function Columns({ start, change, meanings = FOR_DATA }: ColumnsProps) {
  const { heads, columns, rows, reading } = start;
  const set = (place: number, use: ColumnUse | null) => {
    const next = reading.columns.map((one, i) => {
      if (i === place) return use;
      // a meaning is of one column: the other gives it up
      return use && one && sameUse(use, one) ? null : one;
    });
    change({ ...reading, columns: next });
  };
  /** A column taken for something by hand; a fact is named by its head. */
  const takenFor = (meaning: Meaning, place: number): ColumnUse => {
    if (meaning !== "fact") return { meaning };
    const head = heads?.[place] ?? "";
    const values = rows.map(({ cells }) => cells[place]?.trim() ?? "").filter(Boolean);
    const label = head.trim().slice(0, 60) || `Column ${place + 1}`;
    return { meaning, fact: { name: factNameOf(head) ?? `column_${place + 1}`, label, kind: kindOfValues(values) } };
  };
  return (
    <section aria-label="Columns" className="mt-5">
      <h2 className="font-serif text-[20px] font-semibold">Columns</h2>
      <FramedTable
        label="Columns and their meanings"
        narrowest="min-w-[46rem]"
        heads={["Column", "Read as", "Reason", "First values"]}
      >
        {columns.map(({ use, why }, place) => {
          const name = heads?.[place] || `Column ${place + 1}`;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
            <tr key={place} className="border-t border-rule align-baseline">
              <RowHead className="max-w-[12rem] px-4 py-1.5 break-words">{name.slice(0, 60)}</RowHead>
              <td className="px-4 py-1.5 whitespace-nowrap">
                <select
                  aria-label={`Meaning of ${name.slice(0, 60)}`}
                  className={`${SELECT} ${use ? "" : "text-quiet"}`}
                  value={use?.meaning ?? ""}
                  onChange={(event) =>
                    set(place, event.target.value ? takenFor(event.target.value as Meaning, place) : null)
                  }
                >
                  <option value="">{meanings === FOR_DATA ? "not imported" : "not used"}</option>
                  {meanings.map((meaning) => (
                    <option key={meaning} value={meaning}>
                      {MEANING_WORDS[meaning]}
                    </option>
                  ))}
                </select>
                {use?.fact ? <FactFields use={use} name={name.slice(0, 60)} set={(next) => set(place, next)} /> : null}
                {use && formsOf(use.meaning) ? (
                  <Form use={use} name={name.slice(0, 60)} set={(next) => set(place, next)} />
                ) : null}
              </td>
              <td className="px-4 py-1.5 text-[13px] text-quiet">{why}</td>
              <td className="max-w-[18rem] truncate px-4 py-1.5 font-mono text-[12.5px]">
                {rows
                  .slice(0, 3)
                  .map(({ cells }) => (cells[place] ?? "").slice(0, 40))
                  .filter(Boolean)
                  .join(" · ")}
              </td>
            </tr>
          );
        })}
      </FramedTable>
      <Wider start={start} change={change} />
    </section>
  );
}

const FACT_WORDS: Readonly<Record<FactKind, string>> = {
  text: "text",
  number: "number",
  "yes-no": "yes or no",
  link: "link",
  date: "day",
};

/** What people know a fact as, and what its values are. */
function FactFields({ use, name, set }: { use: ColumnUse; name: string; set: (use: ColumnUse) => void }) {
  const [label, setLabel] = useState(use.fact?.label ?? "");
  const { fact } = use;
  if (!fact) return null;
  return (
    <>
      <select
        aria-label={`Kind of ${name}`}
        className={`${SELECT} ml-1.5`}
        value={fact.kind}
        onChange={(event) => set({ ...use, fact: { ...fact, kind: event.target.value as FactKind } })}
      >
        {FACT_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {FACT_WORDS[kind]}
          </option>
        ))}
      </select>
      <input
        aria-label={`Label of ${name}`}
        className={`${SELECT} ml-1.5 w-[8.5rem]`}
        value={label}
        maxLength={60}
        onChange={(event) => setLabel(event.target.value)}
        onBlur={() => label.trim() && label !== fact.label && set({ ...use, fact: { ...fact, label: label.trim() } })}
      />
      <code className="ml-1.5 text-[12px] text-quiet">{`{fact.${fact.name}}`}</code>
    </>
  );
}

/** What a column may hold of what another one holds of the same meaning. */
function formsOf(meaning: Meaning): readonly ColumnForm[] | undefined {
  if (NAMED.has(meaning)) return NAME_FORMS;
  return meaning === "lat" || meaning === "lon" ? ANGLE_FORMS : undefined;
}

const FORM_WORDS: Readonly<Record<ColumnForm, string>> = {
  abbr: "abbreviation",
  written: "as the source writes it",
  code: "code",
  id: "identifier",
  importance: "importance",
  minutes: "minutes",
  seconds: "seconds",
  direction: "direction (N, S, E, W)",
};

/** The form of a name in a column, and its language; or the part of an angle. */
function Form({ use, name, set }: { use: ColumnUse; name: string; set: (use: ColumnUse) => void }) {
  const [lang, setLang] = useState(use.lang ?? "");
  const isNamed = NAMED.has(use.meaning);
  return (
    <>
      <select
        aria-label={`Form of ${name}`}
        className={`${SELECT} ml-1.5`}
        value={use.form ?? ""}
        onChange={(event) => set({ ...use, form: (event.target.value || undefined) as ColumnUse["form"] })}
      >
        <option value="">{isNamed ? "name" : "degrees"}</option>
        {formsOf(use.meaning)?.map((form) => (
          <option key={form} value={form}>
            {FORM_WORDS[form]}
          </option>
        ))}
      </select>
      {isNamed ? (
        <input
          aria-label={`Language of ${name}`}
          placeholder="language"
          className={`${SELECT} ml-1.5 w-[6.5rem]`}
          value={lang}
          onChange={(event) => setLang(event.target.value)}
          onBlur={() => lang !== (use.lang ?? "") && set({ ...use, lang: lang.trim() || undefined })}
        />
      ) : null}
    </>
  );
}

/** What no column contains: the country, the language, how positions are written; and the evidence. */
function Wider({ start, change }: Pick<ColumnsProps, "start" | "change">) {
  const { reading, countryWhy, projections, inCapitals, columns } = start;
  const has = (meaning: Meaning) => reading.columns.some((use) => use?.meaning === meaning);
  // points in one column may be metres too
  const isInMetres = projections.length > 0 || columns.some(({ why }) => why.startsWith("metres"));
  return (
    <>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[13px]">
        <CountryField key={reading.country} hasColumn={has("country")} reading={reading} change={change} />
        {has("east") || isInMetres ? <MetresField reading={reading} change={change} /> : null}
        {inCapitals ? (
          <label className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={reading.recases ?? false}
              onChange={(event) => change({ ...reading, recases: event.target.checked })}
            />
            <span className="text-quiet">Convert names in capitals to title case</span>
          </label>
        ) : null}
        {countryWhy && !has("country") ? (
          <span className={reading.country ? "text-quiet" : "text-ochre"}>{countryWhy}</span>
        ) : null}
      </div>
      {projections.length ? <Weighed start={start} change={change} /> : null}
    </>
  );
}

function CountryField({
  hasColumn,
  reading,
  change,
}: {
  hasColumn: boolean;
  reading: TableReading;
  change: ColumnsProps["change"];
}) {
  const [country, setCountry] = useState(reading.country ?? "");
  return (
    <label className="inline-flex items-center gap-1.5">
      <span className="text-quiet">{hasColumn ? "Country for rows without one" : "Country of all rows"}</span>
      <input
        className={`${SELECT} w-[3.5rem] uppercase`}
        value={country}
        maxLength={2}
        placeholder="–"
        onChange={(event) => setCountry(event.target.value.toUpperCase())}
        onBlur={() => {
          const code = /^[A-Z]{2}$/.test(country) ? country : undefined;
          if (code !== reading.country) change({ ...reading, country: code });
        }}
      />
    </label>
  );
}

/** What metres are of, set by hand: a zone, a grid by number in the EPSG dataset, or one of the country's grids. */
function MetresField({ reading, change }: { reading: TableReading; change: ColumnsProps["change"] }) {
  const { projection, country = "" } = reading;
  const [zone, setZone] = useState(projection?.zone ?? "");
  const grids = gridsOf(country);
  const value = projection?.system === "epsg" ? `epsg ${projection.epsg}` : (projection?.system ?? "");
  const isElsewhere = projection?.system === "epsg" && !grids.some(({ epsg }) => epsg === projection.epsg);
  const take = (chosen: string) => {
    const epsg = /^epsg (\d+)$/.exec(chosen)?.[1];
    if (epsg) change({ ...reading, projection: { system: "epsg", epsg: Number(epsg) } });
    else if (chosen === "utm") change({ ...reading, projection: { system: "utm", zone: zone || "32N" } });
    else change({ ...reading, projection: { system: "web-mercator" } });
  };
  return (
    <>
      <label className="inline-flex items-center gap-1.5">
        <span className={projection ? "text-quiet" : "text-ochre"}>Coordinate system</span>
        <select className={SELECT} value={value} onChange={(event) => take(event.target.value)}>
          <option value="" disabled>
            – choose –
          </option>
          {grids.map(({ epsg, name }) => (
            <option key={epsg} value={`epsg ${epsg}`}>
              {name} (EPSG:{epsg})
            </option>
          ))}
          {isElsewhere ? <option value={value}>EPSG:{projection.epsg}</option> : null}
          <option value="utm">UTM</option>
          <option value="web-mercator">Web Mercator</option>
        </select>
      </label>
      {projection?.system === "utm" ? (
        <label className="inline-flex items-center gap-1.5">
          <span className="text-quiet">Zone</span>
          <input
            className={`${SELECT} w-[4rem]`}
            value={zone || projection.zone}
            placeholder="32N"
            onChange={(event) => setZone(event.target.value)}
            onBlur={() => zone && change({ ...reading, projection: { system: "utm", zone } })}
          />
        </label>
      ) : null}
    </>
  );
}

type Projection = NonNullable<TableReading["projection"]>;

const isSameProjection = (a: Projection, b: Projection | undefined) =>
  b !== undefined && a.system === b.system && a.zone === b.zone && a.epsg === b.epsg;

/** The readings of metres that were weighed and fit, each with what speaks for it; one press takes another. */
function Weighed({ start: { reading, projections, columns }, change }: Pick<ColumnsProps, "start" | "change">) {
  const isTaken = (one: (typeof projections)[number]) =>
    !one.isSwapped && isSameProjection(one.projection, reading.projection);
  const take = ({ projection, isSwapped }: (typeof projections)[number]) =>
    change({
      ...reading,
      projection,
      columns: columns.map(({ use }) => {
        if (!isSwapped || (use?.meaning !== "east" && use?.meaning !== "north")) return use;
        return { meaning: use.meaning === "east" ? "north" : "east" };
      }),
    });
  return (
    <ul aria-label="Possible coordinate systems" className="mt-3 rounded-md border border-rule bg-page text-[13px]">
      {projections.map((one) => {
        const taken = isTaken(one);
        return (
          <li
            key={`${one.name} ${one.isSwapped}`}
            className="flex flex-wrap items-baseline gap-x-4 border-t border-rule px-4 py-1.5 first:border-t-0"
          >
            <span className={`min-w-[15rem] ${taken ? "font-semibold" : ""}`}>
              {one.name}
              {one.isSwapped ? ", with the two columns swapped" : ""}
            </span>
            <span className="text-quiet">
              {Math.round(one.share * 100)} % of the rows looked at then lie in {reading.country ?? "their country"}
            </span>
            <span className="ml-auto">
              {taken ? (
                <span className="text-verdigris">selected</span>
              ) : (
                <button type="button" className="underline" onClick={() => take(one)}>
                  Use this
                </button>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
