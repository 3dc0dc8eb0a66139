/** What lies around a country. */
export interface Continent {
  /** Of the UN's M49; of the made-up countries, one of ISO 3166's codes for users. */
  code: string;
  name: string;
}

/** Countries by what the UN's M49 puts them into: Africa, North America, South America, Asia, Europe, Oceania; the made-up ones last. */
const AROUND: Readonly<Record<string, string>> = {
  "002":
    "AO BF BI BJ BW CD CF CG CI CM CV DJ DZ EG EH ER ET GA GH GM GN GQ GW IO KE KM LR LS LY MA MG ML MR MU MW MZ NA NE NG RE RW SC SD SH SL SN SO SS ST SZ TD TF TG TN TZ UG YT ZA ZM ZW",
  "003":
    "AG AI AW BB BL BM BQ BS BZ CA CR CU CW DM DO GD GL GP GT HN HT JM KN KY LC MF MQ MS MX NI PA PM PR SV SX TC TT US VC VG VI",
  "005": "AR BO BR BV CL CO EC FK GF GS GY PE PY SR UY VE",
  "142":
    "AE AF AM AZ BD BH BN BT CN CY GE HK ID IL IN IQ IR JO JP KG KH KP KR KW KZ LA LB LK MM MN MO MV MY NP OM PH PK PS QA SA SG SY TH TJ TL TM TR TW UZ VN YE",
  "150":
    "AD AL AT AX BA BE BG BY CH CZ DE DK EE ES FI FO FR GB GG GI GR HR HU IE IM IS IT JE LI LT LU LV MC MD ME MK MT NL NO PL PT RO RS RU SE SI SJ SK SM UA VA XK",
  "009": "AS AU CC CK CX FJ FM GU HM KI MH MP NC NF NR NU NZ PF PG PN PW SB TK TO TV UM VU WF WS",
  QZ: "QR QV QY",
};
const OF_COUNTRY: ReadonlyMap<string, string> = new Map(
  Object.entries(AROUND).flatMap(([code, countries]) =>
    countries.split(" ").map((country): [string, string] => [country, code]),
  ),
);
/** What the made-up countries lie in, which no table of names has. */
const OWN: Readonly<Record<string, string>> = { QZ: "Southern Islands" };

const named = new Map<string, Continent>();
const MOST_NAMED = 1000;

/** The continent of a country, in the first of some languages; undefined for a country that lies in none. */
export function continentOf(country: string | undefined, langs: readonly string[] = []): Continent | undefined {
  const code = country && OF_COUNTRY.get(country);
  if (!code) return undefined;
  const lang = langs[0] ?? "en";
  const key = `${code} ${lang}`;
  let continent = named.get(key);
  if (!continent) {
    continent = { code, name: OWN[code] ?? nameIn(code, lang) };
    if (named.size > MOST_NAMED) named.clear();
    named.set(key, continent);
  }
  return continent;
}

function nameIn(code: string, lang: string): string {
  for (const one of [lang, "en"]) {
    try {
      const name = new Intl.DisplayNames(one, { type: "region", fallback: "none" }).of(code);
      if (name) return name;
    } catch {
      // no language at all: English has a name
    }
  }
  return code;
}
