/** Regions by the code that files have in place of their name (ISO 3166-2 without the country). Data, not code. */
const LISTS: Readonly<Record<string, string>> = {
  US: "AL Alabama|AK Alaska|AZ Arizona|AR Arkansas|CA California|CO Colorado|CT Connecticut|DE Delaware|DC District of Columbia|FL Florida|GA Georgia|HI Hawaii|ID Idaho|IL Illinois|IN Indiana|IA Iowa|KS Kansas|KY Kentucky|LA Louisiana|ME Maine|MD Maryland|MA Massachusetts|MI Michigan|MN Minnesota|MS Mississippi|MO Missouri|MT Montana|NE Nebraska|NV Nevada|NH New Hampshire|NJ New Jersey|NM New Mexico|NY New York|NC North Carolina|ND North Dakota|OH Ohio|OK Oklahoma|OR Oregon|PA Pennsylvania|RI Rhode Island|SC South Carolina|SD South Dakota|TN Tennessee|TX Texas|UT Utah|VT Vermont|VA Virginia|WA Washington|WV West Virginia|WI Wisconsin|WY Wyoming|PR Puerto Rico",
  CA: "AB Alberta|BC British Columbia|MB Manitoba|NB New Brunswick|NL Newfoundland and Labrador|NS Nova Scotia|NT Northwest Territories|NU Nunavut|ON Ontario|PE Prince Edward Island|QC Quebec|SK Saskatchewan|YT Yukon",
  AU: "ACT Australian Capital Territory|NSW New South Wales|NT Northern Territory|QLD Queensland|SA South Australia|TAS Tasmania|VIC Victoria|WA Western Australia",
  BR: "AC Acre|AL Alagoas|AP Amapá|AM Amazonas|BA Bahia|CE Ceará|DF Distrito Federal|ES Espírito Santo|GO Goiás|MA Maranhão|MT Mato Grosso|MS Mato Grosso do Sul|MG Minas Gerais|PA Pará|PB Paraíba|PR Paraná|PE Pernambuco|PI Piauí|RJ Rio de Janeiro|RN Rio Grande do Norte|RS Rio Grande do Sul|RO Rondônia|RR Roraima|SC Santa Catarina|SP São Paulo|SE Sergipe|TO Tocantins",
  DE: "BW Baden-Württemberg|BY Bayern|BE Berlin|BB Brandenburg|HB Bremen|HH Hamburg|HE Hessen|MV Mecklenburg-Vorpommern|NI Niedersachsen|NW Nordrhein-Westfalen|RP Rheinland-Pfalz|SL Saarland|SN Sachsen|ST Sachsen-Anhalt|SH Schleswig-Holstein|TH Thüringen",
  CH: "AG Aargau|AI Appenzell Innerrhoden|AR Appenzell Ausserrhoden|BE Bern|BL Basel-Landschaft|BS Basel-Stadt|FR Fribourg|GE Genève|GL Glarus|GR Graubünden|JU Jura|LU Luzern|NE Neuchâtel|NW Nidwalden|OW Obwalden|SG St. Gallen|SH Schaffhausen|SO Solothurn|SZ Schwyz|TG Thurgau|TI Ticino|UR Uri|VD Vaud|VS Valais|ZG Zug|ZH Zürich",
};

const REGIONS = new Map(
  Object.entries(LISTS).map(([country, list]) => {
    const named = list.split("|").map((one): [string, string] => {
      const at = one.indexOf(" ");
      return [one.slice(0, at), one.slice(at + 1)];
    });
    return [country, new Map(named)];
  }),
);

/**
 * What a country calls the region of a code.
 * @param country ISO 3166-1 alpha-2
 * @param code as files have it, "CA" or "US-CA", in any case
 * @returns undefined where nobody here knows it
 */
export function regionOf(country: string, code: string): { name: string; code: string } | undefined {
  const own = code.toUpperCase().replace(`${country}-`, "");
  const name = REGIONS.get(country)?.get(own);
  return name === undefined ? undefined : { name, code: own };
}

const plain = (name: string) => name.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

const namesOf = new Map<string, ReadonlySet<string>>();

/** True for the code of a region or a name of one, whatever the accents and capitals: "QC", "Québec". */
export function isRegion(country: string, text: string): boolean {
  const regions = REGIONS.get(country);
  if (!regions || !text) return false;
  let names = namesOf.get(country);
  if (!names) {
    names = new Set([...regions.values()].map(plain));
    namesOf.set(country, names);
  }
  return regionOf(country, text) !== undefined || names.has(plain(text));
}
