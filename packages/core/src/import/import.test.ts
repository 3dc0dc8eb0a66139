import { describe, expect, it } from "vitest";
import { type GatheredArea, Gatherer, proposeColumns, type Reading, RowReader, splitLine } from "./index.ts";

const meanings = (heads: string[] | undefined, rows: string[][]) =>
  proposeColumns(heads, rows).map(({ use }) => use && [use.meaning, use.lang, use.form].filter(Boolean).join(" "));

describe("proposeColumns", () => {
  it.each([
    [["Straße", "Hausnummer", "PLZ", "Ort", "Breite", "Länge"], "street house postcode town lat lon"],
    [["ROAD", "no.", "Zip Code", "City", "lng", "lat"], "street house postcode town lon lat"],
    [["addr:street", "addr:housenumber", "geo_lat", "geo_lon"], "street house lat lon"],
    [["rue", "numéro", "code postal", "commune", "coordonnées"], "street house postcode town position"],
    [["calle", "número", "código postal", "municipio", "provincia"], "street house postcode town county"],
    [["rua", "nº", "Código Postal", "localidade", "concelho", "distrito"], "street house postcode town county region"],
    [["via", "numero civico", "CAP", "comune", "regione"], "street house postcode town region"],
    [["straatnaam", "huisnummer", "toevoeging", "woonplaats"], "street house suffix town"],
    [["ulica", "numer domu", "kod pocztowy", "miejscowość", "województwo"], "street house postcode town region"],
    [["gatuadress", "postnummer", "postort", "landkod"], "line postcode town country"],
    [["οδός", "αριθμός", "Τ.Κ.", "πόλη", "χώρα"], "street house postcode town country"],
    [["Easting", "Northing", "address"], "east north line"],
  ])("reads the heads %j", (heads, expected) => {
    expect(
      meanings(heads, [])
        .map((use) => use ?? "")
        .join(" "),
    ).toBe(expected);
  });

  it("takes languages and other forms from the head", () => {
    expect(
      meanings(["street:qth-Grek", "street:qth-Latn", "county:code", "street:abbr", "town:importance"], []),
    ).toEqual(["street qth-Grek", "street qth-Latn", "county code", "street abbr", "town importance"]);
  });

  it("goes by the values where heads say nothing, and says why", () => {
    const rows = Array.from({ length: 20 }, (_, i) => [
      `${i + 1} Harbour Row`,
      `HT4 ${10 + i}`,
      "QR",
      `${-35.1 - i / 1000},${-21.4}`,
      "x",
    ]);
    expect(meanings(undefined, rows)).toEqual(["line", "postcode", "country", "position", null]);
    expect(proposeColumns(undefined, rows)[1].why).toBe("20 of 20 look like postcodes");
  });

  it("takes a name for a house's in data, for a person's in what is looked up", () => {
    expect(proposeColumns(["name", "town"], [])[0].use).toEqual({ meaning: "name" });
    const heads = ["name", "town", "Typ", "Kategorie", "id"];
    expect(proposeColumns(heads, [], "batch").map(({ use }) => use?.meaning)).toEqual([
      undefined,
      "town",
      ...[undefined, undefined, undefined],
    ]);
  });

  it("takes nothing that says who lives there, or when, for a part of an address", () => {
    const street = ["Brückenweg", "Karlshof", "Kiesgrund"];
    const rows = Array.from({ length: 30 }, (_, i) => [
      ["Anna", "Bert", "Carla"][i % 3],
      ["Muster", "Probe"][i % 2],
      `a${i}@example.org`,
      `2026-11-01T10:${i + 10}:00Z`,
      '["a","b"]',
      `2025-01-${i + 10}`,
      "2026",
      street[i % 3],
      String(i + 1),
      "Ahlbek",
    ]);
    const heads = "First name,Last name,Email,timestamp,Tags,last_update,valid_to,Street,No,City".split(",");
    expect(meanings(heads, rows)).toEqual([null, null, null, null, null, null, null, "street", "house", "town"]);
  });

  it("reads the first and the last number of a range, and joins counted lines of an address where nothing else has the town", () => {
    expect(meanings(["street", "number_from", "number_to", "valid_from"], [])).toEqual([
      "street",
      "house",
      "suffix",
      null,
    ]);
    expect(meanings(["Hausnr. von", "Hausnr. bis", "Straße"], [])).toEqual(["house", "suffix", "street"]);
    const lines = ["addr_line_1", "addr_line_2", "addr_line_3", "lat", "lon"];
    const row = ["Karlshof 12", "24811 Ahlbek", "", "54.36", "9.57"];
    const columns = proposeColumns(lines, [row]).map(({ use }) => use);
    expect(columns.map((use) => use?.meaning)).toEqual(["line", "line", "line", "lat", "lon"]);
    expect(new RowReader({ columns, country: "DE" }).read(row).row).toMatchObject({
      street: { names: [{ name: "Karlshof" }] },
      house: { number: 12 },
      postcode: "24811",
      areas: [{ kind: "town", names: [{ name: "Ahlbek" }] }],
    });
    expect(meanings(["address 1", "address 2", "city"], [])).not.toContain(["line", "line", "town"]);
  });

  it("gives no two columns the same meaning", () => {
    const [first, second] = proposeColumns(["street", "road"], [["a", "b"]]);
    expect(first.use?.meaning).toBe("street");
    expect(second).toEqual({ use: null, why: "looks like street, but another column already is" });
  });
});

const HEADS = ["street", "house", "postcode", "town", "lat", "lon"] as const;
const reading = (columns: Reading["columns"] = HEADS.map((meaning) => ({ meaning })), more = {}): Reading => ({
  columns,
  country: "QR",
  ...more,
});
const read = (cells: string[], how = reading()) => new RowReader(how).read(cells);

describe("RowReader", () => {
  it("reads a row", () => {
    const { row, doubts } = read([" Harbour  Row ", "12 B", "ht4 29", "Tidewell", "-35.2", "-21,4"]);
    expect(doubts).toEqual([]);
    expect(row).toEqual({
      country: "QR",
      areas: [{ kind: "town", names: [{ lang: "en", name: "Tidewell" }] }],
      street: { names: [{ lang: "en", name: "Harbour Row" }], isBlock: false },
      house: { number: 12, suffix: "b" },
      postcode: "HT4 29",
      at: { lat: -35.2, lon: -21.4 },
    });
  });

  it.each([
    [["Harbour Row", "1", "", "", "", ""], "no-position"],
    [["Harbour Row", "1", "", "", "abc", "1"], "no-position"],
    [["Harbour Row", "1", "", "", "0", "0"], "at-zero"],
    [["Harbour Row", "1", "", "", "-121.4", "-35.2"], "swapped"],
    [["", "1", "", "", "-35.2", "-21.4"], "nothing-named"],
    [["x".repeat(100_000), "1", "", "", "-35.2", "-21.4"], "too-long"],
  ])("refuses %j", (cells, kind) => {
    expect(read(cells)).toMatchObject({ refused: { kind } });
    expect(read(cells).row).toBeUndefined();
  });

  it.each([
    [["Harbour Row", "", "", "", "-35.2", "-21.4"], "no-number"],
    [["Harbour Row", "1", "99999", "", "-35.2", "-21.4"], "postcode-shape"],
    [["HÃ¸fn Row", "1", "", "", "-35.2", "-21.4"], "mixed-encodings"],
  ])("takes %j with a doubt", (cells, kind) => {
    expect(read(cells)).toMatchObject({ row: {}, doubts: [{ kind }] });
  });

  it("reads positions as they are written", () => {
    const at = (text: string) => read(["A", text], reading([{ meaning: "street" }, { meaning: "position" }])).row?.at;
    expect(at("-35.2, -21.4")).toEqual({ lat: -35.2, lon: -21.4 });
    for (const text of [
      "POINT(-21.4 -35.2)",
      "SRID=4326;POINT Z (-21.4 -35.2 12)",
      '{"type":"Point","coordinates":[-21.4, -35.2]}',
    ])
      expect(at(text), text).toEqual({ lat: -35.2, lon: -21.4 });
    expect(at("SRID=25832;POINT(-21.4 -35.2)")).toBe(undefined);
    expect(at("geo:-35.2,-21.4")).toEqual({ lat: -35.2, lon: -21.4 });
    expect(at("35°12'00\"S 21°24'00\"W")?.lat).toBeCloseTo(-35.2, 6);
  });

  it("reads metres of UTM and of Web Mercator", () => {
    const columns = [{ meaning: "street" }, { meaning: "east" }, { meaning: "north" }] as const;
    const at = (east: string, north: string, projection: Reading["projection"]) =>
      read(["A", east, north], reading(columns, { projection })).row?.at;
    // the middle meridian of zone 27 is 21° W: the arc along it to 35° S, by Simpson's rule, is 3 874 592.9017 m, times 0.9996
    const utm = at("500000", "6126956.9355", { system: "utm", zone: "27S" })!;
    expect(utm.lon).toBeCloseTo(-21, 9);
    expect(utm.lat).toBeCloseTo(-35, 8);
    const web = at("-2337709.3", "-4163881.14", { system: "web-mercator" })!;
    expect(web.lon).toBeCloseTo(-21, 5);
    expect(web.lat).toBeCloseTo(-35, 4);
    const wrong = reading(columns, { projection: { system: "utm", zone: "99X" } });
    expect(() => new RowReader(wrong)).toThrow("zone of UTM");
  });

  it("reads names in several languages, short forms and codes", () => {
    const how = reading([
      { meaning: "block", lang: "qth-Grek" },
      { meaning: "block", lang: "qth-Latn" },
      { meaning: "county" },
      { meaning: "county", form: "code" },
      { meaning: "county", form: "id" },
      { meaning: "county", form: "importance" },
      { meaning: "position" },
    ]);
    expect(
      read(["Τετράγωνο 4", "Tetragono 4", "Sallow", "QR-SA", "S1", "0.625", "-35.2,-21.4"], how).row,
    ).toMatchObject({
      areas: [{ kind: "county", code: "QR-SA", id: "S1", importance: 0.625 }],
      street: {
        isBlock: true,
        names: [
          { lang: "qth-Grek", name: "Τετράγωνο 4" },
          { lang: "qth-Latn", name: "Tetragono 4" },
        ],
      },
    });
  });

  it("keeps markup, formulas and SQL as the plain text that they are", () => {
    const name = '=HYPERLINK("x");<b onclick=1>\'; drop table streets; --';
    expect(read([name, "1", "", "", "-35.2", "-21.4"]).row?.street?.names[0].name).toBe(name);
  });
});

describe("splitLine", () => {
  it.each([
    ["12b Harbour Row", "before", "Harbour Row", 12, "b"],
    ["Havngade 4", "after", "Havngade", 4, ""],
    ["Street of 1905 7", "after", "Street of 1905", 7, ""],
    ["Harbour Row 12", "before", "Harbour Row", 12, ""],
  ] as const)("splits %j", (line, stands, street, number, suffix) => {
    expect(splitLine(line, stands)).toEqual({ street, house: { number, suffix } });
  });

  it("leaves a street without a house number whole", () => {
    expect(splitLine("Harbour Row", "before")).toEqual({ street: "Harbour Row" });
  });
});

describe("Gatherer", () => {
  const row = (street: string, number: number, lat: number, lon: number, town = "Tidewell") =>
    read([street, String(number), "HT4 29", town, String(lat), String(lon)]).row!;
  const gather = (rows: ReturnType<typeof row>[], earlier?: Parameters<Gatherer["finish"]>[0]) => {
    const gatherer = new Gatherer();
    const heaped = rows.map((one) => gatherer.add(one));
    return { heaped, ...gatherer.finish(earlier) };
  };
  const along = (street: string, lat: number, count = 8) =>
    Array.from({ length: count }, (_, i) => row(street, i + 1, lat + i * 0.0003, -21.4));

  it("makes a street of houses that hang together, and areas around them", () => {
    const { streets, areas, postcodes, heaped, streetOfHeap } = gather([
      ...along("Harbour Row", -35.2),
      ...along("Mill Lane", -35.21),
    ]);
    expect(streets.map(({ names, count }) => [names[0].name, count])).toEqual([
      ["Harbour Row", 8],
      ["Mill Lane", 8],
    ]);
    expect(new Set(heaped.slice(0, 8).map(({ heap }) => streetOfHeap[heap!]))).toEqual(new Set([0]));
    expect(areas.map(({ kind, count }) => [kind, count])).toEqual([
      ["country", 16],
      ["town", 16],
    ]);
    const [ring] = areas[1].rings;
    expect(ring[0]).toEqual(ring.at(-1));
    expect(ring.map(([, lat]) => lat).every((lat) => lat > -35.22 && lat < -35.19)).toBe(true);
    expect(postcodes).toMatchObject([{ code: "HT4 29", area: "QR/town:tidewell" }]);
  });

  it("keeps areas of one name apart where the rows have a name of their own for each", () => {
    const rows = [...along("Harbour Row", -35.2), ...along("Harbour Row", -35.6)];
    const named = rows.map((one, i) => ({ ...one, areas: [{ ...one.areas[0], id: i < 8 ? "T1" : "T2" }] }));
    expect(gather(named).areas.map(({ key, count }) => [key, count])).toEqual([
      ["QR", 16],
      ["QR/town:tidewell#T1", 8],
      ["QR/town:tidewell#T2", 8],
    ]);
    expect(gather(named).streets).toHaveLength(2);
    expect(gather(rows).areas).toHaveLength(2);
  });

  it("takes an area's importance from its rows, else from how much lies in it", () => {
    const of = (areas: GatheredArea[]) => areas.map(({ importance }) => importance);
    const rows = along("Harbour Row", -35.2);
    const said = rows.map((one) => ({ ...one, areas: [{ ...one.areas[0], importance: 0.9 }] }));
    expect(of(gather(said).areas)).toEqual([1, 0.9]);
    const few = of(gather(rows).areas)[1];
    const many = of(gather([...along("Harbour Row", -35.2, 200)]).areas)[1];
    expect(few).toBeGreaterThan(0.3);
    expect(many).toBeGreaterThan(few);
  });

  it("tells two streets of one name apart, and a house with a wrong position from both", () => {
    const { streets, isFar, streetOfHeap } = gather([
      ...along("High Street", -35.2, 30),
      ...along("High Street", -35.6, 10),
      row("High Street", 99, -34, -21.4),
    ]);
    expect(streets.map(({ count, key }) => [count, key])).toEqual([
      [31, "QR/town:tidewell/street:high street"],
      [10, "QR/town:tidewell/street:high street@-35.60,-21.40"],
    ]);
    const far = isFar.indexOf(1);
    expect(streetOfHeap[far]).toBe(0);
    expect(isFar.filter((one) => one === 1)).toHaveLength(1);
  });

  it("keeps keys of an earlier load by place, not by order", () => {
    const base = "QR/town:tidewell/street:high street";
    const earlier = new Map([
      [
        base,
        [
          { key: base, at: { lat: -35.6, lon: -21.4 } },
          { key: `${base}@-35.20,-21.40`, at: { lat: -35.2, lon: -21.4 } },
        ],
      ],
    ]);
    const { streets } = gather([...along("High Street", -35.2, 30), ...along("High Street", -35.6, 10)], earlier);
    expect(streets.map(({ key, count }) => [key, count])).toEqual([
      [`${base}@-35.20,-21.40`, 30],
      [base, 10],
    ]);
  });

  it("says when a name is spelled in two ways, and makes one street of it", () => {
    const { heaped, streets } = gather([row("Harbour Row", 1, -35.2, -21.4), row("HARBOUR-ROW", 2, -35.2, -21.4)]);
    expect(streets).toHaveLength(1);
    expect(heaped[1].spelling).toBe("Harbour Row");
  });

  it("leaves a few strays out of a town's hull", () => {
    const { areas } = gather([...along("A", -35.2, 100), row("B", 1, -33, -25)]);
    expect(areas[1].rings[0].every(([lon]) => lon > -21.5)).toBe(true);
  });

  it("says of a row that only names a town again that both become one", () => {
    const towns = (rows: string[][]) => {
      const gatherer = new Gatherer();
      const how = reading([{ meaning: "town" }, { meaning: "lat" }, { meaning: "lon" }]);
      return rows.map((cells) => gatherer.add(read(cells, how).row!).isSameArea);
    };
    expect(
      towns([
        ["Tidewell", "-35.2", "-21.4"],
        ["Sandmouth", "-35.2", "-21.5"],
        ["Tidewell", "-35.21", "-21.41"],
        ["Tidewell", "-36.9", "-21.4"],
      ]),
    ).toEqual([false, false, true, false]);
    expect(gather([row("A", 1, -35.2, -21.4), row("A", 2, -35.2, -21.4)]).heaped.map((one) => one.isSameArea)).toEqual([
      false,
      false,
    ]);
  });

  it("puts a postcode of two towns into what lies around both", () => {
    const { postcodes } = gather([row("A", 1, -35.2, -21.4), row("B", 1, -35.2, -21.4, "Sandmouth")]);
    expect(postcodes[0].area).toBe("QR");
  });
});

describe("heads of columns in further languages", () => {
  it.each([
    ["Irányítószám", "postcode"],
    ["Település", "town"],
    ["郵便番号", "postcode"],
    ["시군구", "town"],
    ["Kode Pos", "postcode"],
    ["Posta Kodu", "postcode"],
  ])("%s is a %s", (head, meaning) => {
    const rows = [["x", "Mill Lane", "3"]];
    expect(proposeColumns([head, "street", "house"], rows)[0].use?.meaning).toBe(meaning);
  });

  it("takes what is a county in one country and a town in another for the town where nothing else names one", () => {
    const heads = ["İlçe", "Sokak", "Kapı No", "Şehir"];
    const row = ["Gülpınar", "Ihlamur Sokak", "3", "Ihlamur"];
    expect(meanings(heads, [row])).toEqual(["county", "street", "house", "town"]);
    expect(meanings(heads.slice(0, 3), [row.slice(0, 3)])).toEqual(["town", "street", "house"]);
    expect(meanings(["County", "Street", "No"], [["Ashshire", "Mill Lane", "3"]])).toEqual([
      "county",
      "street",
      "house",
    ]);
  });
});

describe("columns whose names say little", () => {
  /** Rows of three towns with three streets each, and houses of their own. */
  const rows = (cells: (town: number, street: number, house: number, n: number) => string[]) =>
    Array.from({ length: 36 }, (_, n) => cells(n % 3, Math.floor(n / 3) % 3, 1 + Math.floor(n / 9) * 2, n));
  const towns = ["Birkdorf", "Lindental", "Mühlhain"];
  const codes = ["36210", "36215", "36220"];

  it.each([
    [
      "codes of something else are no countries, and street types are not streets",
      ["street", "no", "post_type_of_it", "prov_x", "zip", "city"],
      rows((t, s, h) => [["Maple", "Orchard", "Pond"][s], String(h), "ST", "BO", codes[t], towns[t]]),
      ["street", "house", "way", null, "postcode", "town"],
    ],
    [
      "streets in a language of which no words are known vary within a postcode",
      ["q1", "hus nr", "q2", "postnr"],
      rows((t, s, h) => [towns[t], String(h), ["Hlidar", "Fossar", "Bakkar"][s], codes[t]]),
      ["town", "house", "street", "postcode"],
    ],
    [
      "a suburb is the town where nothing else is",
      ["Suburb", "Street Address"],
      rows((t, s, h) => [towns[t], `${h} ${["Mill", "Church", "School"][s]} Road`]),
      ["town", "line"],
    ],
    [
      "a street and its number share a column, and so do postcode and town",
      ["Straat + nr", "Postcode + gemeente"],
      rows((t, s, h) => [`${["Molenweg", "Kerkplein", "Lindelaan"][s]} ${h}`, `${codes[t].slice(1)} ${towns[t]}`]),
      ["line", "postcode"],
    ],
    [
      "what counts rows, and what names a year, are no houses",
      ["street", "row", "built", "z"],
      rows((t, s, _, n) => [["Molenweg", "Kerkplein", "Lindelaan"][s], String(n + 1), String(1950 + n), codes[t]]),
      ["street", null, null, "postcode"],
    ],
    [
      "numbers that many rows of a street share are no houses",
      ["street", "rooms", "z"],
      rows((t, s, h) => [["Molenweg", "Kerkplein", "Lindelaan"][s], String(1 + (h % 3)), codes[t]]),
      ["street", null, "postcode"],
    ],
    [
      "the number in the village is the house's where few have one in a street",
      ["Ulica", "Orientačné číslo", "Súpisné číslo"],
      rows((_, s, h, n) => [["Lipová", "Školská", "Mlynská"][s], n % 6 ? "" : String(h), String(500 + n)]),
      ["street", null, "house"],
    ],
    [
      "numbers of the post are houses where they are as short",
      ["NOM_VIA", "NUM_POSTAL", "CODI_POSTAL", "MUNICIPI"],
      rows((t, s, h) => [["Molí", "Escola", "Font"][s], String(h), codes[t], towns[t]]),
      ["street", "house", "postcode", "town"],
    ],
  ])("%s", (_, heads, table, expected) => {
    expect(meanings(heads, table)).toEqual(expected);
  });
});
