import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sphereDistance } from "@bibliotope/core/geo";
import { RowReader } from "@bibliotope/core/import";
import { afterAll, describe, expect, it } from "vitest";
import { inspect } from "../../packages/server/src/import/inspect.ts";
import { readTable } from "../../packages/server/src/import/table.ts";
import { type Published, publishedFiles } from "./files.ts";
import { type Address, makeWorld, WHOLE } from "./make.ts";

const folder = mkdtempSync(join(tmpdir(), "bibliotope-published-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Metres that a national grid's datum may be off. */
const NEAR = 30;
const plain = (text: string) => text.toUpperCase().replaceAll(/[\s.’'-]/g, "");

type Outcome = "right" | "asked" | "wrong";

/** Reads a file with nothing said by hand. @returns what came of it, with the first row that is not as it is known */
async function outcomeOf({ name, country, bytes, addresses }: Published): Promise<{ outcome: Outcome; words: string }> {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  // what is live is of a country that no file is of
  const start = await inspect({ path, params: {}, country: "QR", readings: [] });
  const { reading, format, heads, columns } = start;
  const whys = columns.map(({ use, why }, i) => `${heads?.[i]}: ${use?.meaning ?? "–"} (${why})`).join("; ");
  if (!reading.country || columns.some(({ why }) => why.includes(": choose ")))
    return { outcome: "asked", words: `${start.countryWhy}; ${whys}` };
  const reader = new RowReader(reading);
  let [n, off] = [0, 0];
  let first = "";
  for await (const batch of readTable(path, format, heads ?? undefined, () => undefined))
    for (const { cells } of batch) {
      const { row, refused } = reader.read(cells);
      const said = refused ? refused.words : unlike(row!, addresses[n], country);
      if (said) {
        off++;
        first ||= `${cells.join("|")}: ${said}`;
      }
      n++;
    }
  expect(n).toBe(addresses.length);
  return { outcome: off / n < 0.01 ? "right" : "wrong", words: `${off} of ${n}; ${first}; ${whys}` };
}

function unlike(
  row: NonNullable<ReturnType<RowReader["read"]>["row"]>,
  address: Address,
  country: string,
): string | undefined {
  const town = row.areas.find(({ kind }) => kind === "town")?.names[0].name ?? "";
  if (row.country !== country) return `country ${row.country}`;
  if (sphereDistance(row.at, address.at) > NEAR) return `${sphereDistance(row.at, address.at).toFixed(0)} m off`;
  if (plain(row.street?.names[0].name ?? "") !== plain(address.street.name))
    return `street ${row.street?.names[0].name}, is ${address.street.name}`;
  if (row.house?.number !== address.house.number || plain(row.house.suffix) !== plain(address.house.suffix))
    return `house ${JSON.stringify(row.house)}, is ${JSON.stringify(address.house)}`;
  if (plain(town) !== plain(address.town)) return `town ${town}`;
  return plain(row.postcode ?? "") === plain(address.postcode) ? undefined : `postcode ${row.postcode}`;
}

describe("files as authorities publish them", () => {
  const files = publishedFiles(makeWorld({ ...WHOLE, streets: 12, houses: 5 }).addresses);

  it("are read right with nothing said by hand, nearly all; somebody is asked about the rest; none is wrong", {
    tags: ["long"],
    timeout: 60_000,
  }, async () => {
    const outcomes = new Map<string, { outcome: Outcome; words: string }>();
    for (const file of files) outcomes.set(file.name, await outcomeOf(file));
    for (const [name, { outcome, words }] of outcomes)
      console.log(`  ${name.padEnd(22)} ${outcome}${outcome === "right" ? "" : `: ${words}`}`);
    const those = (outcome: Outcome) =>
      [...outcomes].filter(([, its]) => its.outcome === outcome).map(([name]) => name);
    expect(those("wrong")).toEqual([]);
    expect(those("asked")).toEqual(["at-adressregister", "pl-punkty"]);
  });
});
