import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { allProfiles, formatLine, type PartName, type Parts, profileOf } from "../place/index.ts";
import { LANGUAGES } from "../text/index.ts";
import { countryCode, RowReader } from "./index.ts";
import { splitWhole } from "./line.ts";

const split = (line: string, country: string) =>
  splitWhole(line, profileOf(country), (text) => countryCode(text) === country);

/**
 * Lines as people write them: the country, the line, and behind the arrow its street and number, the flat (u), the postcode, areas by
 * the first letters of their kinds, and what a house without a number is called (n).
 */
const LINES = `
  DE Hauptstr. 12–14, 24799 Hohnfelde → Hauptstr. | 12-14 | 24799 | t:Hohnfelde
  DE Hauptstr. 12 a-c, 24799 Hohnfelde → Hauptstr. | 12a-c | 24799 | t:Hohnfelde
  DE Hauptstr. 12, Hinterhaus, 24799 Hohnfelde → Hauptstr. | 12 | u:Hinterhaus | 24799 | t:Hohnfelde
  DE Hauptstr. 12 HH, 24799 Hohnfelde → Hauptstr. | 12 | u:HH | 24799 | t:Hohnfelde
  DE Hauptstraße 12 (EG), 24799 Hohnfelde → Hauptstraße | 12 | u:EG | 24799 | t:Hohnfelde
  DE Hauptstr.12, 24799 Hohnfelde → Hauptstr. | 12 | 24799 | t:Hohnfelde
  DE An der Mühle, 24799 Hohnfelde → An der Mühle | – | 24799 | t:Hohnfelde
  DE Straße des 17. Juni 135, 24799 Hohnfelde → Straße des 17. Juni | 135 | 24799 | t:Hohnfelde
  DE D-24799 Hohnfelde, Hauptstr. 12 → Hauptstr. | 12 | 24799 | t:Hohnfelde
  DE Hauptstr. 12 | 24799 Hohnfelde → Hauptstr. | 12 | 24799 | t:Hohnfelde
  DE Hauptstr. 12 24799 Hohnfelde → Hauptstr. | 12 | 24799 | t:Hohnfelde
  DE Ortsteil Ahlbek, Dorfstr. 3, 24799 Hohnfelde → Dorfstr. | 3 | u:Ortsteil Ahlbek | 24799 | t:Hohnfelde
  DE Hauptstr. 12; 24799 Hohnfelde; Deutschland → Hauptstr. | 12 | 24799 | t:Hohnfelde
  ES Calle Mayor, 12, 3º B, 28901 Casas → Calle Mayor | 12 | u:3º B | 28901 | t:Casas
  ES C/ Mayor nº 12, 28901 Casas → C/ Mayor | 12 | 28901 | t:Casas
  ES Calle Mayor s/n, 28901 Casas → Calle Mayor | – | 28901 | t:Casas
  ES Av. del Mar, 4 - 2º izda, 28901 Casas (Madrid) → Av. del Mar | 4 | u:2º izda | 28901 | c:Madrid t:Casas
  DE Lindenweg 5 Haus 2, 24799 Hohnfelde → Lindenweg | 5 | u:Haus 2 | 24799 | t:Hohnfelde
  DE Lindenweg 5 links, 24799 Hohnfelde → Lindenweg | 5 | u:links | 24799 | t:Hohnfelde
  DE Lindenweg 5 EG links, 24799 Hohnfelde → Lindenweg | 5 | u:EG links | 24799 | t:Hohnfelde
  DE Am Alten Haus 5, 24799 Hohnfelde → Am Alten Haus | 5 | 24799 | t:Hohnfelde
  ES Calle Mayor 17, bajo A, 28901 Casas → Calle Mayor | 17 | u:bajo A | 28901 | t:Casas
  ES 17 Calle Principal, 28901 Casas → Calle Principal | 17 | 28901 | t:Casas
  ES Calle del Portal 12, 28901 Casas → Calle del Portal | 12 | 28901 | t:Casas
  GB 12 Castle Road Ground Floor Flat, Tidewell, HT4 2NB → Castle Road | 12 | u:Ground Floor Flat | HT4 2NB | t:Tidewell
  US 20 Mill Drive Bldg C, Tidewell, TX 61079 → Mill Drive | 20 | u:Bldg C | 61079 | r:Texas t:Tidewell
  FR 12 bis rue des Lilas, 69001 Montclair → rue des Lilas | 12bis | 69001 | t:Montclair
  FR 12, rue des Lilas 69001 Montclair → rue des Lilas | 12 | 69001 | t:Montclair
  FR Résidence Les Pins, 12 rue des Lilas, 69001 Montclair → rue des Lilas | 12 | u:Résidence Les Pins | 69001 | t:Montclair
  FR 12 rue des Lilas BP 30, 69001 Montclair Cedex → rue des Lilas | 12 | 69001 | t:Montclair
  GB 12½ Mill Lane, Tidewell, HT4 2NB → Mill Lane | 121/2 | HT4 2NB | t:Tidewell
  GB The Old Mill, Mill Lane, Tidewell HT4 2NB → Mill Lane | – | HT4 2NB | t:Tidewell | n:The Old Mill
  GB Unit 4 Mill Park, Mill Lane, Tidewell, HT4 2NB → Mill Lane | – | u:Unit 4 Mill Park | HT4 2NB | t:Tidewell
  GB 12 Mill Lane, Tidewell, Northshire, HT4 2NB → Mill Lane | 12 | HT4 2NB | c:Northshire t:Tidewell
  US 12 Mill Ln Apt 4, Tidewell, TX 77001 → Mill Ln | 12 | u:Apt 4 | 77001 | r:Texas t:Tidewell
  US 12 Mill Lane, Tidewell TX 77001-1234 → Mill Lane | 12 | 77001-1234 | r:Texas t:Tidewell
  US PO Box 12, Tidewell, TX 77001 → PO Box 12 | – | 77001 | r:Texas t:Tidewell
  US 12 N Mill Ln #4, Tidewell, TX → N Mill Ln | 12 | u:#4 | r:Texas t:Tidewell
  US 12 Mill Ln, Suite 200, Tidewell, TX 77001, USA → Mill Ln | 12 | u:Suite 200 | 77001 | r:Texas t:Tidewell
  BR Rua das Flores, 12, apto 3, Centro, Boa Vista - SP, 01001-000 → Rua das Flores | 12 | u:apto 3 | 01001-000 | r:São Paulo t:Boa Vista d:Centro
  BR Rua das Flores, s/n - Centro, Boa Vista/SP → Rua das Flores | – | r:São Paulo t:Boa Vista d:Centro
  IT Via Roma 12/A, 20100 Montebello (MI) → Via Roma | 12/a | 20100 | c:MI t:Montebello
  IT Via Roma, 12 - 20100 Montebello MI → Via Roma | 12 | 20100 | c:MI t:Montebello
  NL Molenstraat 12-hs, 1012 AB Duinveen → Molenstraat | 12-hs | 1012 AB | t:Duinveen
  NL Molenstraat 12 III, 1012AB Duinveen → Molenstraat | 12 | u:III | 1012 AB | t:Duinveen
  JP 〒123-0001 桜県桜町千草1-1 → 桜県桜町千草1-1 | – | 123-0001
  RU г. Липово, ул. Липовая, д. 12, кв. 3 → ул. Липовая | 12 | u:кв. 3 | t:Липово
  RU 601000, г. Липово, ул. Липовая, д. 12, корп. 2 → ул. Липовая | 12 | u:корп. 2 | 601000 | t:Липово
  DE Postfach 12 34, 24799 Hohnfelde → Postfach 12 34 | – | 24799 | t:Hohnfelde
  DE Mellendamm 3/5, 24799 Hohnfelde → Mellendamm | 3/5 | 24799 | t:Hohnfelde
  DE Mellendamm 3 Whg. 12, 24799 Hohnfelde → Mellendamm | 3 | u:Whg. 12 | 24799 | t:Hohnfelde
  DE Mellendamm 3, 2. OG links, 24799 Hohnfelde → Mellendamm | 3 | u:2. OG links | 24799 | t:Hohnfelde
  DE Straße der Einheit 14, Hohnfelde → Straße der Einheit | 14 | t:Hohnfelde
  AT Dorfplatz 7/2/14, 4020 Seewinkel → Dorfplatz | 7 | u:2/14 | 4020 | t:Seewinkel
  AT Dorfplatz 7 Top 4, 4020 Seewinkel → Dorfplatz | 7 | u:Top 4 | 4020 | t:Seewinkel
  CH Via Stazione 4, CH-6500 Montebello → Via Stazione | 4 | 6500 | t:Montebello
  FR ZA des Prés, 8 rue du Four, 35000 Val-sur-Mer → rue du Four | 8 | u:ZA des Prés | 35000 | t:Val-sur-Mer
  FR 3 ter impasse du Puits 35000 Val-sur-Mer → impasse du Puits | 3ter | 35000 | t:Val-sur-Mer
  FR 8 avenue du Parc - Apt 12 - 35000 Val-sur-Mer → avenue du Parc | 8 | u:Apt 12 | 35000 | t:Val-sur-Mer
  ES Plaza de España 1, bajo, 28005 Casas Altas → Plaza de España | 1 | u:bajo | 28005 | t:Casas Altas
  ES Avda. de la Paz, 23-25, 28005 Casas Altas, España → Avda. de la Paz | 23-25 | 28005 | t:Casas Altas
  ES Polígono Industrial El Prado, parcela 4, 28005 Casas Altas → Polígono Industrial El Prado | – | u:parcela 4 | 28005 | t:Casas Altas
  ES C. del Olmo 7 4ºA 28005 Casas Altas → C. del Olmo | 7 | u:4ºA | 28005 | t:Casas Altas
  IT Via dei Tigli 7 int. 4, 40100 Montebello (BO), Italia → Via dei Tigli | 7 | u:int. 4 | 40100 | c:BO t:Montebello
  IT Località Pian del Lago, 40100 Montebello → Località Pian del Lago | – | 40100 | t:Montebello
  IT Corso Italia, 5 bis, Montebello → Corso Italia | 5bis | t:Montebello
  GB 14a High Street, Marston, Tidewell TW3 4AB → High Street | 14a | TW3 4AB | t:Tidewell d:Marston
  GB Apartment 5, Harbour House, 2 Quay Road, Tidewell, TW3 4AB → Quay Road | 2 | u:Apartment 5, Harbour House | TW3 4AB | t:Tidewell
  GB Rose Cottage, Church Lane, Marston, TW3 4AB → Church Lane | – | TW3 4AB | t:Marston | n:Rose Cottage
  GB 2-4 Quay Road Tidewell TW3 4AB → Quay Road | 2-4 | TW3 4AB | t:Tidewell
  GB Unit 7, Marsh Business Park, Quay Road, Tidewell, TW3 4AB, UK → Quay Road | – | u:Unit 7, Marsh Business Park | TW3 4AB | t:Tidewell
  GB The Vicarage, Church Lane, Marston, Nr Tidewell, Northshire, TW3 4AB → Church Lane | – | TW3 4AB | c:Northshire t:Tidewell d:Marston | n:The Vicarage
  US 1200 W Oak St, Springvale, IL 62701 → W Oak St | 1200 | 62701 | r:Illinois t:Springvale
  US 1200 Oak Street Suite 300, Springvale IL 62701 → Oak Street | 1200 | u:Suite 300 | 62701 | r:Illinois t:Springvale
  US 12 5th Ave Fl 21, Springvale, NY 12345-0110 → 5th Ave | 12 | u:Fl 21 | 12345-0110 | r:New York t:Springvale
  US 1200 Oak St Springvale IL 62701 → Oak St | 1200 | 62701 | r:Illinois t:Springvale
  US 1200 County Road 12, Springvale, TX → County Road 12 | 1200 | r:Texas t:Springvale
  CA 12 Rue Principale, Val-Nord (Québec) J0K 1A0 → Rue Principale | 12 | J0K 1A0 | r:Québec t:Val-Nord
  CA 4-120 Lake St, Northford, ON K1A 0B1 → Lake St | 120 | u:4 | K1A 0B1 | r:Ontario t:Northford
  AU 3/45 Station Rd, Wattle Creek NSW 2650 → Station Rd | 45 | u:3 | 2650 | r:New South Wales t:Wattle Creek
  AU Shop 4, 12 Beach St, Wattle Creek QLD 4000 → Beach St | 12 | u:Shop 4 | 4000 | r:Queensland t:Wattle Creek
  NL Dorpsstraat 4-6, 1234 AB Duinveen → Dorpsstraat | 4-6 | 1234 AB | t:Duinveen
  NL Dorpsstraat 4 bis, 1234AB Duinveen → Dorpsstraat | 4bis | 1234 AB | t:Duinveen
  NL Dorpsstraat 4B-2, 1234 AB DUINVEEN, Nederland → Dorpsstraat | 4b-2 | 1234 AB | t:DUINVEEN
  BE Rue de la Gare 12 bte 4, 4000 Valmont → Rue de la Gare | 12 | u:bte 4 | 4000 | t:Valmont
  BE Kerkstraat 12 bus 3, 9000 Duinveen → Kerkstraat | 12 | u:bus 3 | 9000 | t:Duinveen
  SE Storgatan 12 lgh 1102, 111 22 Björkby → Storgatan | 12 | u:lgh 1102 | 111 22 | t:Björkby
  SE Björkvägen 3 B 2 tr, 111 22 Björkby → Björkvägen | 3b | u:2 tr | 111 22 | t:Björkby
  DK Møllevej 12, 2. tv., 8000 Nordlund → Møllevej | 12 | u:2. tv. | 8000 | t:Nordlund
  DK Møllevej 12 st. th, 8000 Nordlund → Møllevej | 12 | u:st. th | 8000 | t:Nordlund
  NO Bjørkeveien 3 H0201, 0150 Fjellvåg → Bjørkeveien | 3 | u:H0201 | 0150 | t:Fjellvåg
  PL ul. Szkolna 12 m. 3, 00-950 Brzozowo → ul. Szkolna | 12 | u:m. 3 | 00-950 | t:Brzozowo
  PL os. Słoneczne 4/12, 00-950 Brzozowo → os. Słoneczne | 4/12 | 00-950 | t:Brzozowo
  PL al. Lipowa 3A lok. 2, 00-950 Brzozowo → al. Lipowa | 3a | u:lok. 2 | 00-950 | t:Brzozowo
  CZ Lipová 123/4, 110 00 Březová → Lipová | 123/4 | 110 00 | t:Březová
  HU 1011 Tölgyes, Fő utca 12. II/3 → Fő utca | 12 | u:II/3 | 1011 | t:Tölgyes
  HU Tölgyes, Kossuth u. 4. → Kossuth u. | 4 | t:Tölgyes
  PT Rua do Mercado 12 3º Esq, 1000-100 Vila Nova → Rua do Mercado | 12 | u:3º Esq | 1000-100 | t:Vila Nova
  PT Largo da Igreja, s/n, 1000-100 Vila Nova → Largo da Igreja | – | 1000-100 | t:Vila Nova
  BR Av. Brasil, 1500 - Sala 302 - Centro, Campo Lindo - MG, 30000-000, Brasil → Av. Brasil | 1500 | u:Sala 302 | 30000-000 | r:Minas Gerais t:Campo Lindo d:Centro
  MX Calle Olmo 12, Col. Centro, 06000 Casas Altas, CDMX → Calle Olmo | 12 | 06000 | c:CDMX t:Casas Altas d:Col. Centro
  MX Av. Juárez No. 45 Int. 3, Centro, 06000 Casas Altas → Av. Juárez | 45 | u:Int. 3 | 06000 | t:Casas Altas d:Centro
  TR Çınar Mah. Gül Sok. No:12 D:4, 34000 Çamlıca → Çınar Mah. Gül Sok. | 12 | u:D:4 | 34000 | t:Çamlıca
  GR Πλατάνου 12, 104 31 Ελαιώνας → Πλατάνου | 12 | 104 31 | t:Ελαιώνας
  GR Οδός Πλατάνου 12, Ελαιώνας 10431 → Οδός Πλατάνου | 12 | 104 31 | t:Ελαιώνας
  RO Str. Teiului nr. 12, bl. A3, sc. 2, ap. 14, Stejaru → Str. Teiului | 12 | u:bl. A3, sc. 2, ap. 14 | t:Stejaru
  IN 12, MG Road, Indira Nagar, Palmpur - 560001 → MG Road | 12 | 560001 | t:Palmpur d:Indira Nagar
  IN Flat 4B, Rose Villa, 12 Lake Road, Palmpur 560001, India → Lake Road | 12 | u:Flat 4B, Rose Villa | 560001 | t:Palmpur
  UA вул. Липова, 12, кв. 4, м. Дубове, 20100 → вул. Липова | 12 | u:кв. 4 | 20100 | t:Дубове
  GB 12 Mill Lane, Tidewell, BS3 4NN → Mill Lane | 12 | BS3 4NN | t:Tidewell
  GB Flat 2, 12 Mill Lane, Tidewell, BS3 4NN → Mill Lane | 12 | u:Flat 2 | BS3 4NN | t:Tidewell
  AU 12 Mill Rd, Unit 3, Wattle Creek, VIC 3600, Australia → Mill Rd | 12 | u:Unit 3 | 3600 | r:Victoria t:Wattle Creek
  KZ улица Липовая, 12 → улица Липовая | 12
  UA 20100, Липове, вулиця Шкільна 7 → вулиця Шкільна | 7 | 20100 | t:Липове
  NL Harbour Row 12 → Harbour Row | 12
`;

/** One line as a row of a file that has nothing but it and a position. */
function asRow(line: string, country: string): string {
  const { row } = new RowReader({ columns: [{ meaning: "line" }, { meaning: "position" }], country }).read([
    line,
    "4.1, 3.2",
  ]);
  const { street, house, unit, postcode, areas = [], name } = row ?? {};
  const around = areas.map(({ kind, names }) => `${kind[0]}:${names[0].name}`).join(" ");
  const number = house ? `${house.number}${house.suffix}` : "–";
  const parts = [street?.names[0].name, number, unit && `u:${unit}`, postcode, around, name && `n:${name}`];
  return parts.filter(Boolean).join(" | ");
}

describe("a whole address in one text", () => {
  it("is read as people of its country write it", () => {
    const cases = LINES.trim()
      .split("\n")
      .map((row) => /^\s*(\w\w) (.*) → (.*)$/.exec(row)!);
    expect(cases.map(([, country, line]) => [line, asRow(line, country)])).toEqual(
      cases.map(([, , line, expected]) => [line, expected]),
    );
  });

  it("is read as it was, once it was written in the order of any country", () => {
    for (const profile of allProfiles()) {
      const [way = "Street"] = LANGUAGES.find(({ lang }) => lang === profile.langs[0].split("-")[0])?.ways ?? [];
      const named = `${way[0].toUpperCase()}${way.slice(1)}`;
      for (const street of [`${named} Alderan`, `Alderan ${named}`, "Alderan"])
        for (const number of ["12", "12a"])
          for (const unit of [undefined, "Flat 3"]) {
            const postcode = profile.postcode?.examples[0];
            const written: [PartName, string | undefined][] = [
              ["street", street],
              [profile.number.part, number],
              ["town", "Tidewell"],
              ["unit", unit],
              ["postcode", postcode],
            ];
            const parts: Parts = Object.fromEntries(
              written.flatMap(([part, name]) => (name ? [[part, { name }]] : [])),
            );
            const line = formatLine(parts, profile);
            const { house, ...found } = split(line, profile.code);
            expect([line, { ...found, number: house && `${house.number}${house.suffix}` }]).toEqual([
              line,
              {
                street,
                number,
                town: "Tidewell",
                ...(unit && line.includes(unit) ? { unit } : {}),
                ...(postcode ? { postcode } : {}),
              },
            ]);
          }
    }
  });

  it("loses no street and invents nothing, whatever stands there", () => {
    const pieces = fc.array(fc.string({ maxLength: 30 }), { minLength: 1, maxLength: 8 });
    const plain = (text: string) => text.replace(/[,;|()\s.\u2010-\u2015-]/gu, "");
    fc.assert(
      fc.property(pieces, fc.constantFrom("GB", "DE", "BR", "JP", "US", "RU"), (parts, country) => {
        const line = parts.join(", ");
        const { street, unit, name, town, district, county, region } = split(line, country);
        for (const part of [
          street,
          town,
          region,
          district,
          county,
          ...(unit ?? "").split(", "),
          ...(name ?? "").split(", "),
        ])
          if (part) expect(plain(line)).toContain(plain(part));
        if (line.replace(/[,;\s]/g, "")) expect(street).not.toBe("");
      }),
    );
  });
});

describe("a country", () => {
  it("is known by its codes and by its names in the languages that people use", () => {
    const codes = allProfiles()
      .map(({ code }) => code)
      .filter((code) => !code.startsWith("Q"));
    for (const lang of ["en", "de", "fr", "es", "it", "pt", "nl", "pl", "sv", "el", "ru", "ja"]) {
      const called = new Intl.DisplayNames(lang, { type: "region" });
      expect(codes.map((code) => countryCode(called.of(code)!.toUpperCase()))).toEqual(codes);
    }
    expect(["DEU", "usa", "U.S.A.", "UK", "us", "Great Britain", "ESPANA"].map(countryCode)).toEqual(
      "DE US US GB US GB ES".split(" "),
    );
    expect(["", "X", "Hohnfelde", "12", "x".repeat(5000)].map(countryCode)).toEqual(Array(5).fill(undefined));
  });
});
