import { parseHouseNumber } from "../place/index.ts";
import { readHead } from "./head-words.ts";
import { plainHead } from "./heads.ts";
import type { ColumnUse, Meaning } from "./parts.ts";
import { shareOfBareWays, waysOf } from "./ways.ts";

/** What a column is taken for, and why. */
export interface Proposal {
  use: ColumnUse | null;
  /** In words, for the person who decides. */
  why: string;
}

/** A table, and what is made of its columns so far. */
export interface Table {
  proposals: Proposal[];
  heads: readonly string[] | undefined;
  /** What is in a column, without what is empty. */
  valuesOf: (column: number) => string[];
  /** The rows that are looked at. */
  rows: readonly (readonly string[])[];
}

/** A share of the values from which their pattern decides. */
export const MOST = 0.9;

/** True for the years in which houses are built. */
export const isYears = (values: readonly string[]) =>
  values.every((value) => /^\d{4}$/.test(value) && Number(value) > 1700 && Number(value) < 2100);

/** What the values show where no head does: the street, the house's number, the town. */
export function readByValues(table: Table): void {
  const { proposals } = table;
  const has = (...meanings: Meaning[]) =>
    proposals.some(({ use }) => use && !use.form && meanings.includes(use.meaning));
  const isOpen = () => !has("street", "line", "block", "place", "text");
  if (isOpen()) readAsStreet(table);
  if (has("street") && !has("way")) readAsWay(table);
  if (has("street", "house") && has("postcode") && !has("town")) readAsTown(table);
  if (isOpen() && has("house") && has("postcode", "town")) readAsVarying(table);
  if (has("street") && !has("house", "line", "name", "place")) readAsHouse(table);
}

/** A share of a column's values from which words for streets decide. */
export const CALLED = 0.6;

/** A street with its house's number behind it, or in front. */
const AS_LINE = /^(\d+\S?\s+\p{L}.*\p{L}\.?|\p{L}.*\p{L}\.?,?\s+\d+\s?\p{L}?)$/u;

export const isLine = (value: string) => AS_LINE.test(value);

/** What is headed as a street holds lines where most of its values have a number, and no other column has one. */
export function readAsLine({ proposals, valuesOf }: Table): void {
  if (proposals.some(({ use }) => use && ["house", "line"].includes(use.meaning))) return;
  const street = proposals.findIndex(({ use }) => use?.meaning === "street" && !use.form && !use.lang);
  const values = street < 0 ? [] : valuesOf(street);
  if (!values.length || values.filter(isLine).length < CALLED * values.length) return;
  proposals[street] = {
    use: { meaning: "line" },
    why: `${proposals[street].why}, and most of its values have house numbers`,
  };
}

/** Columns that nothing is made of, with what is in them. */
const openIn = ({ proposals, valuesOf }: Table) =>
  proposals.flatMap(({ use }, column) => {
    const values = use ? [] : valuesOf(column);
    return values.length > 2 ? [{ column, values }] : [];
  });

/** Columns in which words for streets stand: bare ones are kinds of street in a column of their own. */
function readAsStreet(table: Table): void {
  const named = openIn(table)
    .filter(({ values }) => new Set(values).size > 1)
    .map(({ column, values }) => ({ column, values, share: Math.max(...waysOf(values).values()) }))
    .filter(({ share }) => share >= CALLED)
    .sort((a, b) => b.share - a.share);
  const [street] = named;
  if (!street) return;
  const count = Math.round(street.share * street.values.length);
  const why = `${count} of ${street.values.length} look like street names`;
  table.proposals[street.column] = { use: { meaning: "street" }, why };
}

/** Kinds of street in a column of their own: "ST", "AVE". */
function readAsWay(table: Table): void {
  const ways = openIn(table).find(({ values }) => shareOfBareWays(values) >= MOST);
  if (!ways) return;
  const street = table.proposals.findIndex(({ use }) => use?.meaning === "street");
  // streets that say their kind themselves are called so, whatever stands beside them
  if (Math.max(...waysOf(table.valuesOf(street)).values()) >= CALLED) return;
  table.proposals[ways.column] = {
    use: { meaning: "way" },
    why: `${ways.values.length} of ${table.rows.length} are street types`,
  };
}

/** Of a table with house numbers, the one column of texts that vary within a postcode or a town, and come again with other numbers. */
function readAsVarying(table: Table): void {
  const { proposals, rows } = table;
  const within = ["postcode", "town"].map((meaning) => proposals.findIndex(({ use }) => use?.meaning === meaning));
  const around = within.find((column) => column >= 0) ?? -1;
  const may = openIn(table).filter(({ column, values }) => {
    const names = new Set(values).size;
    if (names < 3 || names > 0.9 * values.length || values.some((value) => !/\p{L}{2}/u.test(value))) return false;
    const places = new Set(rows.map((row) => row[around])).size;
    return new Set(rows.map((row) => `${row[around]}|${row[column]}`)).size > places;
  });
  if (may.length !== 1) return;
  proposals[may[0].column] = {
    use: { meaning: "street" },
    why: "its values vary within a town and come with several house numbers, as streets do",
  };
}

/** Words of heads under which no number is a house's. */
const NO_HOUSE = new Set([
  "code",
  "kind",
  "post",
  "postcode",
  "unit",
  "floor",
  "lat",
  "lon",
  "town",
  "county",
  "region",
]);
/** Numbers of most houses are not higher. */
const COMMON_HOUSE = 2000;

function readAsHouse(table: Table): void {
  const { proposals, heads, rows, valuesOf } = table;
  const street = proposals.findIndex(({ use }) => use?.meaning === "street");
  // a street with its number in it needs none
  if (valuesOf(street).filter((value) => /\d/.test(value)).length > 0.5 * valuesOf(street).length) return;
  const town = proposals.findIndex(({ use }) => use?.meaning === "town");
  const may = openIn(table).filter(({ column, values }) => {
    const { said } = readHead(plainHead(heads?.[column] ?? "").split("_"));
    if (!said.includes("number") && said.some((word) => NO_HOUSE.has(word))) return false;
    const numbers = values.flatMap((value) => parseHouseNumber(value.replace(/^0+(?=\d)/, ""))?.number ?? []);
    if (numbers.length < 0.95 * values.length || values.length < 0.8 * rows.length) return false;
    const sorted = [...numbers].sort((a, b) => a - b);
    const isCount = numbers.every((number, i) => i === 0 || number === numbers[i - 1] + 1);
    if (
      isYears(values) ||
      isCount ||
      sorted[sorted.length >> 1] > COMMON_HOUSE ||
      sorted[0] === sorted[sorted.length - 1]
    )
      return false;
    // houses of one street have numbers of their own
    const houses = new Set(rows.map((row) => `${row[street]}|${row[town] ?? ""}|${row[column]}`));
    return houses.size >= 0.8 * rows.length;
  });
  if (may.length !== 1) {
    for (const { column } of may) proposals[column].why = "may be house numbers, as another column may: choose one";
    return;
  }
  const [{ column, values }] = may;
  proposals[column] = {
    use: { meaning: "house" },
    why: `its values look like house numbers (${values.length} of ${rows.length} rows), and no other column has them`,
  };
}

function readAsTown(table: Table): void {
  const { proposals, rows } = table;
  const postcode = proposals.findIndex(({ use }) => use?.meaning === "postcode");
  const postcodes = new Set(rows.map((row) => row[postcode])).size;
  const may = openIn(table).flatMap(({ column, values }) => {
    const names = new Set(values);
    if (names.size < 2 || names.size * 5 < postcodes || values.some((value) => !/\p{L}{2}/u.test(value))) return [];
    // one name for nearly every postcode
    const first = new Map<string, string>();
    for (const row of rows) if (!first.has(row[postcode])) first.set(row[postcode], row[column] ?? "");
    const alike = rows.filter((row) => first.get(row[postcode]) === row[column]).length;
    return alike >= 0.95 * rows.length ? [{ column, names: names.size, length: [...names].join("").length }] : [];
  });
  // of several the narrowest, called the shortest: what lies around a town is often called after it
  const [town] = may.sort((a, b) => b.names - a.names || a.length - b.length);
  if (!town) return;
  proposals[town.column] = { use: { meaning: "town" }, why: "its values change with the postcode, as towns do" };
}
