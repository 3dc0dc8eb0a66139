import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { countryBox } from "../place/index.ts";
import {
  findCountry,
  findProjection,
  Gatherer,
  metresIn,
  proposeColumns,
  RowReader,
  standsInCapitals,
} from "./index.ts";

/**
 * East and north of UTM by the series of a textbook, to some metres: shares nothing with the reader.
 * @param zone 1 to 60
 */
function utmOf(lat: number, lon: number, zone: number): [string, string] {
  const [a, e2, k] = [6378137, 0.00669438, 0.9996];
  const [p, l] = [(lat * Math.PI) / 180, ((lon - (zone * 6 - 183)) * Math.PI) / 180];
  const n = a / Math.sqrt(1 - e2 * Math.sin(p) ** 2);
  const [t, c, m] = [Math.tan(p) ** 2, (e2 / (1 - e2)) * Math.cos(p) ** 2, l * Math.cos(p)];
  const arc =
    a *
    ((1 - e2 / 4 - (3 * e2 * e2) / 64) * p -
      ((3 * e2) / 8 + (3 * e2 * e2) / 32) * Math.sin(2 * p) +
      ((15 * e2 * e2) / 256) * Math.sin(4 * p));
  const east = 500_000 + k * n * (m + ((1 - t + c) * m ** 3) / 6 + ((5 - 18 * t + t * t + 72 * c) * m ** 5) / 120);
  const north = k * (arc + n * Math.tan(p) * (m * m * 0.5 + ((5 - t + 9 * c + 4 * c * c) * m ** 4) / 24));
  return [east.toFixed(1), (lat < 0 ? north + 1e7 : north).toFixed(1)];
}

it("knows the suffix of a house number by its heading, though the first rows have none", () => {
  for (const head of ["HNRZ", "HNR_ZUS", "Hnr_Zusatz", "HSNRZUS"]) {
    const heads = ["STR", "HNR", head, "PLZ", "ORT"];
    const rows = [
      ["Am Hang", "1", "", "99870", "Obertal"],
      ["Am Hang", "2", "", "99870", "Obertal"],
    ];
    expect(
      proposeColumns(heads, rows).map(({ use }) => use?.meaning),
      head,
    ).toEqual(["street", "house", "suffix", "postcode", "town"]);
  }
});

describe("metres", () => {
  it("are of the zone by which they lie in the country, or somebody is asked; never of another without a word", () => {
    const countries = fc.constantFrom("DE", "FR", "SE", "PL", "BR", "ZA", "NZ", "IT", "QR");
    fc.assert(
      fc.property(countries, fc.nat(), fc.nat(), fc.integer({ min: -1, max: 1 }), (code, x, y, beside) => {
        const [west, south, east, north] = countryBox(code)!;
        // a town: ten houses of it
        const [lat, lon] = [
          south + ((1 + (y % 97)) / 100) * (north - south),
          west + ((1 + (x % 97)) / 100) * (east - west),
        ];
        const zone = Math.min(60, Math.max(1, Math.floor((lon + 180) / 6) + 1 + beside));
        const pairs = Array.from({ length: 10 }, (_, i) => utmOf(lat + i * 1e-4, lon + i * 1e-4, zone));
        // no zone is written so far beyond its own: such metres are those of a grid that reaches farther, as New Zealand's
        fc.pre(pairs.every(([x]) => Number(x) > 0 && Number(x) < 1e6));
        const { projection, why } = findProjection(pairs, code);
        expect(why).toMatch(/metres/);
        if (projection) expect(projection).toEqual({ system: "utm", zone: `${zone}${lat < 0 ? "S" : "N"}` });
        else expect(why).toMatch(/choose (one|the zone)/);
      }),
    );
  });

  it("are found where a file reaches over its country", () => {
    const towns = [
      [48.1, 9.2],
      [53.6, 13.1],
      [51.2, 7.1],
      [50.9, 14.6],
      [54.4, 9.7],
    ];
    const pairs = towns.map(([lat, lon]) => utmOf(lat, lon, 32));
    expect(findProjection(pairs, "DE")).toMatchObject({
      projection: { system: "utm", zone: "32N" },
      why: "metres in UTM 32N: the rows are then in DE",
    });
    expect(findProjection(pairs, undefined).projection).toBeUndefined();
    expect(findProjection(pairs, "ES").projection).toBeUndefined();
  });

  it("put no row anywhere as long as nothing says of which projection they are", () => {
    const columns = [{ meaning: "street" }, { meaning: "east" }, { meaning: "north" }] as const;
    const { refused } = new RowReader({ columns, country: "DE" }).read(["Lindenweg", "500000", "5400000"]);
    expect(refused).toMatchObject({ kind: "no-position", words: expect.stringContaining("zone or projection") });
  });

  it("are left alone where there are degrees", () => {
    const heads = ["street", "x", "y", "lat", "lon"];
    const rows = Array.from({ length: 5 }, (_, i) => ["Lindenweg", "500000", "5400000", `48.75${i}1`, `9.00${i}1`]);
    const proposals = proposeColumns(heads, rows);
    expect(proposals.map(({ use }) => use?.meaning)).toEqual(["street", undefined, undefined, "lat", "lon"]);
    expect(proposals[1].why).toContain("degrees");
    const columns = ["street", "east", "north", "lat", "lon"].map((meaning) => ({ meaning }) as never);
    expect(new RowReader({ columns, country: "DE" }).read(rows[0]).row?.at).toEqual({ lat: 48.7501, lon: 9.0001 });
  });

  it("are degrees where the columns x and y hold degrees", () => {
    const rows = Array.from({ length: 5 }, (_, i) => ["Lindenweg", `9.00${i}1`, `48.75${i}1`]);
    const uses = proposeColumns(["street", "x", "y"], rows).map(({ use }) => use);
    expect(uses.map((use) => use?.meaning)).toEqual(["street", "lon", "lat"]);
    const columns = [{ meaning: "street" }, { meaning: "east" }, { meaning: "north" }] as const;
    const reader = new RowReader({ columns, country: "DE", projection: { system: "degrees" } });
    expect(reader.read(rows[0]).row?.at).toEqual({ lat: 48.7501, lon: 9.0001 });
  });
});

describe("a plain list of towns", () => {
  const heads = ["name", "population", "lat", "lon", "country"];
  const rows = [
    ["Oakhaven", "97000", "48.10", "9.10", "DE"],
    ["Oakhaven", "800", "53.10", "9.90", "DE"],
    ["Oakhaven", "800", "53.11", "9.91", "DE"],
    ["Birkfurt", "1 250 000", "50.10", "8.60", "DE"],
    ["Stillbach", "0.4", "51.10", "8.60", "DE"],
  ];

  it("is seen as one, and its population as how important they are", () => {
    const uses = proposeColumns(heads, rows).map(({ use }) => use?.meaning);
    expect(uses).toEqual(["town", "importance", "lat", "lon", "country"]);
    // with a street beside it, a name is a house's
    const houses = proposeColumns(["name", "street", "lat", "lon"], [["Rose Cottage", "Mill Lane", "1.5", "2.5"]]);
    expect(houses[0].use).toEqual({ meaning: "name" });
  });

  it("becomes towns: namesakes apart, one written twice once, the larger the more important", () => {
    const columns = proposeColumns(heads, rows).map(({ use }) => use);
    const reader = new RowReader({ columns });
    const gatherer = new Gatherer();
    for (const cells of rows) gatherer.add(reader.read(cells).row!);
    const { areas, streets } = gatherer.finish();
    expect(streets).toEqual([]);
    const towns = areas.filter(({ kind }) => kind === "town");
    expect(towns.map(({ names: [{ name }], at }) => `${name} ${Math.round(at.lat)}`)).toEqual([
      "Oakhaven 48",
      "Oakhaven 53",
      "Birkfurt 50",
      "Stillbach 51",
    ]);
    expect(new Set(areas.map(({ key }) => key)).size).toBe(areas.length);
    const [large, small, largest, told] = towns.map(({ importance }) => importance);
    expect(largest).toBeGreaterThan(large);
    expect(large).toBeGreaterThan(small);
    expect(largest).toBeLessThanOrEqual(1);
    expect(told).toBe(0.4);
  });
});

describe("a number in two columns", () => {
  it.each([
    ["12", "b", { number: 12, suffix: "b" }],
    ["4816", "1/2", { number: 4816, suffix: "1/2" }],
    ["12", "2", { number: 12, suffix: "-2" }],
    ["10", "bis", { number: 10, suffix: "bis" }],
    ["7", "", { number: 7, suffix: "" }],
  ])("%s and “%s”", (house, suffix, wanted) => {
    const columns = [
      { meaning: "street" },
      { meaning: "house" },
      { meaning: "suffix" },
      { meaning: "position" },
    ] as const;
    const { row } = new RowReader({ columns, country: "FR" }).read(["Rue du Moulin", house, suffix, "47.1,2.2"]);
    expect(row?.house).toEqual(wanted);
  });
});

describe("parts over several columns, and names in capitals", () => {
  const read = (reading: object, cells: string[]) =>
    new RowReader({ country: "ES", ...reading } as never).read(cells).row!;
  const columns = (...meanings: string[]) => ({ columns: meanings.map((meaning) => ({ meaning })) });
  const at = ["40.4", "-3.7"];

  it("joins the kind of street with its name, in the order of the columns, and not twice", () => {
    const first = columns("way", "street", "lat", "lon");
    expect(read(first, ["Calle", "Mayor", ...at]).street?.names[0].name).toBe("Calle Mayor");
    expect(read(first, ["Calle", "Calle Mayor", ...at]).street?.names[0].name).toBe("Calle Mayor");
    expect(read(first, ["", "Mayor", ...at]).street?.names[0].name).toBe("Mayor");
    const behind = columns("street", "way", "lat", "lon");
    expect(read(behind, ["Mill", "Lane", ...at]).street?.names[0].name).toBe("Mill Lane");
  });

  it.each([
    [["12", "A", ""], { number: 12, suffix: "a" }],
    [["12", "A", "2"], { number: 12, suffix: "a-2" }],
    [["12", "", "HS"], { number: 12, suffix: "-hs" }],
    [["10", "bis", ""], { number: 10, suffix: "bis" }],
    [["4816", "1/2", ""], { number: 4816, suffix: "1/2" }],
    [["", "", ""], undefined],
  ])("joins %j to one number", (cells, house) => {
    expect(
      read(columns("house", "suffix", "suffix", "lat", "lon", "street"), [...cells, ...at, "Mayor"]).house,
    ).toEqual(house);
  });

  it("writes capitals as people do where it is told to, and no other column", () => {
    const all = columns("way", "street", "town", "postcode", "lat", "lon");
    const cells = ["CALLE", "DE LA ESTACIÓN", "VILLA DEL RÍO", "28013", ...at];
    const names = ({ street, areas }: ReturnType<typeof read>) => [street?.names[0].name, areas[0].names[0].name];
    expect(names(read({ ...all, recases: true }, cells))).toEqual(["Calle de la Estación", "Villa del Río"]);
    expect(names(read(all, cells))).toEqual(["CALLE DE LA ESTACIÓN", "VILLA DEL RÍO"]);
    const [street, town] = [{ written: "CALLE DE LA ESTACIÓN" }, { written: "VILLA DEL RÍO" }];
    expect(read({ ...all, recases: true }, cells)).toMatchObject({
      street: { names: [street] },
      areas: [{ names: [town] }],
    });
    // what is kept is read again, and what needed no change has nothing beside it
    const again = columns("street", "street", "town", "lat", "lon").columns.map((use, i) =>
      i === 1 ? { ...use, form: "written" } : use,
    );
    const kept = read({ columns: again, recases: true }, [
      "Calle de la Estación",
      "CALLE DE LA ESTACIÓN",
      "Villa",
      ...at,
    ]);
    expect(kept.street?.names).toEqual([{ lang: "es", name: "Calle de la Estación", ...street }]);
    expect(kept.areas[0].names).toEqual([{ lang: "es", name: "Villa" }]);
    expect(standsInCapitals(all.columns as never, [cells, cells, cells])).toBe(true);
    expect(standsInCapitals(all.columns as never, [cells, cells, ["Calle", "Mayor", "Villa", "1", ...at]])).toBe(false);
  });
});

describe("what only happens to fit", () => {
  const pairs = Array.from({ length: 10 }, (_, i) => utmOf(42 + i * 1e-3, 43.5 + i * 1e-3, 38));
  const land = {
    box: [40, 41, 46.8, 43.7] as [number, number, number, number],
    isIn: (_: string, { lat, lon }: { lat: number; lon: number }) => lon > 40 && lon < 46.8 && lat > 41 && lat < 43.7,
  };

  it("is no zone of a country with grids of its own, unless the file says so", () => {
    expect(findProjection(pairs, "GE", land).projection).toBeUndefined();
    expect(findProjection(pairs, "GE", land).why).toMatch(/choose one/);
    const rows = pairs.map(([east, north]) => [east, north, "32638"]);
    const uses = ["east", "north", ""].map((meaning) => (meaning ? ({ meaning } as never) : null));
    const { hints } = metresIn(uses, ["E", "N", "EPSG-kode"], rows)!;
    expect(hints.codes).toEqual(["32638"]);
    expect(findProjection(pairs, "GE", { ...land, ...hints })).toMatchObject({
      projection: { system: "utm", zone: "38N" },
    });
    expect(findProjection(pairs, "GE", { codes: ["32638", "32639"] }).why).toMatch(/several systems/);
  });

  it("is no order of latitude and longitude that no name tells", () => {
    const columns = ["street", "lat", "lon"].map((meaning) => ({ meaning }) as never);
    const rows = Array.from({ length: 5 }, (_, i) => ["Nosuch", `16.${i}23`, `45.${i}23`]);
    const lands = { countriesAt: ({ lat }: { lat: number }) => [lat < 30 ? "TN" : "HR"], hintsOf: () => ({}) };
    const found = (isOrderKnown: boolean) => findCountry(columns, undefined, rows, lands, { isOrderKnown });
    expect(found(true).country).toBe("TN");
    expect(found(false).country).toBeUndefined();
    expect(found(false).why).toMatch(/swapped, in HR: choose one/);
  });
});
