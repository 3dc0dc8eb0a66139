import type { Random } from "@bibliotope/islands";

/**
 * How a country names and writes its addresses. All names are put together here from common words; where one of them is
 * also the name of a real place, that is chance.
 */
export interface Ways {
  code: string;
  lang: string;
  /** What the country is called in its own language and in English. */
  names: [own: string, english: string];
  /** West, south, east, north: its towns lie somewhere in there. */
  box: [number, number, number, number];
  regions: [name: string, code: string][];
  towns: { beginnings: string[]; ends: string[] };
  streets: {
    /** What streets are called after. */
    words: string[];
    /** Kinds of street as the authority writes them, each with the ways in which people shorten it. */
    kinds: [kind: string, ...short: string[]][];
    /** Where the kind stands; grown together with the word, or in front of it with a link ("Rue de la"). */
    kind: "glued" | "behind" | "before";
    links?: string[];
  };
  /** Where the number stands beside the street. */
  number: "before" | "after" | "after comma";
  suffixes: string[];
  postcode: (town: number, random: Random) => string;
  /** Postcode as people also write it, its parts put otherwise. */
  loosely: (postcode: string) => string;
  /** What stands behind the street: "{postcode} {town}" and the like. */
  tail: string;
  /** True where a line begins with the region. */
  isBroadestFirst?: boolean;
  units: string[];
  floors: string[];
  poBox: string;
  numberWord: string;
  /** Names in Latin letters by their own, where the script is another. */
  latin?: Readonly<Record<string, string>>;
}

const digits = (count: number, random: Random) => Array.from({ length: count }, () => random.integer(0, 9)).join("");
/** A number of a town, so that postcodes of one town begin alike. */
const ofTown = (town: number, length: number) => String(10 + ((town * 37) % 89)).padEnd(length, "0");
const spaced = (at: number) => (postcode: string) => `${postcode.slice(0, at)} ${postcode.slice(at)}`;
const unspaced = (postcode: string) => postcode.replace(/[ -]/g, "");

const ENGLISH_WORDS =
  "Maple Orchard Mill Chapel Station Meadow Willow Bridge Garden Hill Quarry Forge Juniper Heron Castle Market Pond Harvest Lantern Beacon".split(
    " ",
  );
const GERMAN = {
  words:
    "Linden Bahnhof Garten Mühlen Kirch Berg Wiesen Birken Schul Rosen Tannen Brunnen Wald Ziegel Markt Amsel Feld Linden Haupt Eichen".split(
      " ",
    ),
  kinds: [
    ["straße", "str.", "str", "strasse"],
    ["weg", "weg"],
    ["gasse", "g."],
    ["platz", "pl."],
  ] as Ways["streets"]["kinds"],
  kind: "glued" as const,
};

export const COUNTRIES: readonly Ways[] = [
  {
    code: "US",
    lang: "en",
    names: ["United States", "United States"],
    box: [-110, 33, -85, 45],
    regions: [
      ["Ohana", "OA"],
      ["Westmark", "WK"],
      ["North Prairie", "NP"],
    ],
    towns: {
      beginnings: "Cedar Spring Fair Clear Stone Oak Green Silver Rock Eagle".split(" "),
      ends: ["ville", " Falls", "field", " Grove", "burg", " Heights", "ton"],
    },
    streets: {
      words: [...ENGLISH_WORDS, "North Maple", "12th", "3rd", "101st", "Old Mill"],
      kinds: [
        ["Street", "St", "St."],
        ["Avenue", "Ave", "Av"],
        ["Road", "Rd"],
        ["Drive", "Dr"],
        ["Boulevard", "Blvd"],
        ["Lane", "Ln"],
      ],
      kind: "behind",
    },
    number: "before",
    suffixes: [" 1/2", "A", "B"],
    postcode: (town, random) => `${ofTown(town, 3)}${digits(2, random)}`,
    loosely: (postcode) => `${postcode}-0001`,
    tail: "{town}, {code} {postcode}",
    units: ["Apt {n}B", "Unit {n}", "Suite {n}00", "#{n}"],
    floors: ["{n}th Floor", "Floor {n}"],
    poBox: "PO Box {n}",
    numberWord: "No. ",
  },
  {
    code: "GB",
    lang: "en",
    names: ["United Kingdom", "United Kingdom"],
    box: [-2.5, 51.2, -0.5, 53.5],
    regions: [
      ["Marlshire", "MLS"],
      ["Eastholm", "EHM"],
    ],
    towns: {
      beginnings: "Ash Thorn Hart Wen Brack Stam Pent Mel Lid Cran".split(" "),
      ends: ["bury", "ford", "ham", "worth", "combe", "ley Green", "stead"],
    },
    streets: {
      words: ENGLISH_WORDS,
      kinds: [
        ["Road", "Rd"],
        ["Street", "St"],
        ["Lane", "Ln"],
        ["Close", "Cl"],
        ["Avenue", "Ave"],
        ["Gardens", "Gdns"],
      ],
      kind: "behind",
    },
    number: "before",
    suffixes: ["a", "b"],
    postcode: (town, random) =>
      `${"ABEHLNRSTW"[town % 10]}${"CDFGHMPQRV"[Math.floor(town / 10) % 10]}${1 + (town % 9)} ${random.integer(1, 9)}${"ABDEFGHJLN"[random.integer(0, 9)]}${"PQRSTUWXYZ"[random.integer(0, 9)]}`,
    loosely: unspaced,
    tail: "{town}, {region}, {postcode}",
    units: ["Flat {n}", "Apartment {n}"],
    floors: ["{n}nd Floor", "First Floor"],
    poBox: "PO Box {n}",
    numberWord: "No. ",
  },
  {
    code: "IE",
    lang: "en",
    names: ["Ireland", "Ireland"],
    box: [-8.6, 52.2, -6.7, 53.9],
    regions: [
      ["County Derrin", "DRN"],
      ["County Carrow", "CRW"],
    ],
    towns: {
      beginnings: "Bally Kil Drum Clon Rath Knock".split(" "),
      ends: ["marra", "corran", "shane", "dreen", "lough", "beg"],
    },
    streets: {
      words: ENGLISH_WORDS,
      kinds: [
        ["Road", "Rd"],
        ["Street", "St"],
        ["Park", "Pk"],
        ["Terrace", "Tce"],
      ],
      kind: "behind",
    },
    number: "before",
    suffixes: ["A"],
    postcode: (town, random) =>
      `${"ACDEFHKNPRTVWXY"[town % 15]}${10 + (town % 89)} ${"ACDE"[random.integer(0, 3)]}${digits(3, random)}`,
    loosely: unspaced,
    tail: "{town}, {region}, {postcode}",
    units: ["Apartment {n}", "Flat {n}"],
    floors: ["Ground Floor"],
    poBox: "PO Box {n}",
    numberWord: "No. ",
  },
  {
    code: "DE",
    lang: "de",
    names: ["Deutschland", "Germany"],
    box: [8, 48, 13, 53],
    regions: [
      ["Oberwaldland", "OW"],
      ["Nordheide", "NH"],
    ],
    towns: {
      beginnings: "Birken Alten Stein Grün Neu Mühl Wolfs Hasel Erlen Kalten".split(" "),
      ends: ["furt", "hausen", "bronn", "rode", "kirchen", "see"],
    },
    streets: GERMAN,
    number: "after",
    suffixes: ["a", "b", "c"],
    postcode: (town, random) => `${ofTown(town, 3)}${digits(2, random)}`,
    loosely: spaced(2),
    tail: "{postcode} {town}",
    units: ["Whg. {n}", "Wohnung {n}"],
    floors: ["{n}. OG", "EG links", "{n}. Stock"],
    poBox: "Postfach {n}",
    numberWord: "Nr. ",
  },
  {
    code: "AT",
    lang: "de",
    names: ["Österreich", "Austria"],
    box: [13.7, 47, 15.9, 48.3],
    regions: [["Hochalmen", "HA"]],
    towns: {
      beginnings: "Sankt Ober Unter Bad Groß Klein".split(" ").map((one) => `${one} `),
      ends: ["Almdorf", "Griesbach", "Hollern", "Kehrwang", "Tannegg"],
    },
    streets: { ...GERMAN, words: GERMAN.words.filter((_, i) => i % 2 === 0) },
    number: "after",
    suffixes: ["/3", "a", "/1"],
    postcode: (town, random) => `${ofTown(town, 2)}${digits(2, random)}`,
    loosely: (postcode) => `A-${postcode}`,
    tail: "{postcode} {town}",
    units: ["Top {n}", "Tür {n}"],
    floors: ["{n}. Stock", "Stiege {n}"],
    poBox: "Postfach {n}",
    numberWord: "Nr. ",
  },
  {
    code: "NL",
    lang: "nl",
    names: ["Nederland", "Netherlands"],
    box: [4.5, 51.5, 6.8, 53],
    regions: [["Waterland-Oost", "WO"]],
    towns: {
      beginnings: "Oud Nieuw Wester Zand Veen Heu Lange".split(" "),
      ends: ["dijk", "hoven", "wolde", "meer", "schans", "broek"],
    },
    streets: {
      words: "Kerk Dorps Molen Linden Wilgen Stations Haven Kastanje Rozen Burgemeester Noord Zwaluw Tuin Berken".split(
        " ",
      ),
      kinds: [
        ["straat", "str.", "str"],
        ["laan", "ln"],
        ["weg", "weg"],
        ["plein", "pln"],
        ["kade", "kd"],
      ],
      kind: "glued",
    },
    number: "after",
    suffixes: ["a", "-hs", "-2", " bis"],
    postcode: (town, random) =>
      `${ofTown(town, 2)}${digits(2, random)} ${"ABCDEGHJKL"[random.integer(0, 9)]}${"MNPRSTVWXZ"[random.integer(0, 9)]}`,
    loosely: unspaced,
    tail: "{postcode} {town}",
    units: ["app. {n}", "kamer {n}"],
    floors: ["{n}e verdieping", "{n} hoog"],
    poBox: "Postbus {n}",
    numberWord: "nr. ",
  },
  {
    code: "BE",
    lang: "nl",
    names: ["België", "Belgium"],
    box: [3.7, 50.6, 5.5, 51.1],
    regions: [["Zandkempen", "ZK"]],
    towns: { beginnings: "Ber Lok Mol Wes Zoe Hal".split(" "), ends: ["kerke", "zele", "gem", "beke", "rode"] },
    streets: {
      words: "Kerk Molen School Nieuw Beuken Kapel Leeuwerik Zonne Brug Veld".split(" "),
      kinds: [
        ["straat", "str.", "str"],
        ["laan", "ln"],
        ["steenweg", "stwg"],
      ],
      kind: "glued",
    },
    number: "after",
    suffixes: ["A", "B"],
    postcode: (town, random) => `${ofTown(town, 2)}${random.integer(0, 9)}0`,
    loosely: (postcode) => `B-${postcode}`,
    tail: "{postcode} {town}",
    units: ["bus {n}", "bte {n}"],
    floors: ["{n}de verdieping"],
    poBox: "Postbus {n}",
    numberWord: "nr. ",
  },
  {
    code: "FR",
    lang: "fr",
    names: ["France", "France"],
    box: [0, 44, 6, 49],
    regions: [
      ["Haute-Brenne", "HB"],
      ["Val-de-Coure", "VC"],
    ],
    towns: {
      beginnings: ["Saint-Aubert", "Montclair", "Villeneuve", "La Roche", "Beauval", "Fontenelle", "Pré"],
      ends: ["-sur-Lise", "-les-Ormes", "-en-Brenne", "-la-Forêt", ""],
    },
    streets: {
      words:
        "Moulin Église Gare Lilas Tilleuls Fontaine Marché Peupliers Château École Vergers Hirondelles Forge Pont".split(
          " ",
        ),
      kinds: [
        ["Rue", "r.", "R"],
        ["Avenue", "Av.", "av"],
        ["Boulevard", "Bd", "Blvd"],
        ["Chemin", "Ch.", "Che"],
        ["Place", "Pl."],
      ],
      kind: "before",
      links: ["du", "de la", "des", "de l'"],
    },
    number: "before",
    suffixes: [" bis", " ter", "B"],
    postcode: (town, random) => `${ofTown(town, 2)}${random.integer(1, 9)}${digits(1, random)}0`,
    loosely: spaced(2),
    tail: "{postcode} {town}",
    units: ["Apt {n}", "Bât. {l}", "Porte {n}"],
    floors: ["{n}e étage", "RDC"],
    poBox: "BP {n}",
    numberWord: "n° ",
  },
  {
    code: "ES",
    lang: "es",
    names: ["España", "Spain"],
    box: [-5.5, 38, -1.5, 42],
    regions: [
      ["Sierra Honda", "SH"],
      ["Vegamar", "VM"],
    ],
    towns: {
      beginnings: ["Villa", "Fuente", "Torre", "Alda", "Monte", "Casas de"],
      ends: ["rrubia", "lverde", "clara", " Olmo", "hermosa"].map((one) => one),
    },
    streets: {
      words: "Mayor Iglesia Olmos Fuente Molino Ronda Naranjos Estación Rosales Herrería Alameda Valverde".split(" "),
      kinds: [
        ["Calle", "C/", "Cl.", "c."],
        ["Avenida", "Avda.", "Av."],
        ["Plaza", "Pza.", "Pl."],
        ["Carretera", "Ctra."],
        ["Paseo", "Pº"],
      ],
      kind: "before",
      links: ["de la", "del", "de los", ""],
    },
    number: "after comma",
    suffixes: [" bis", "A"],
    postcode: (town, random) => `${ofTown(town, 2)}${digits(3, random)}`,
    loosely: spaced(2),
    tail: "{postcode} {town}",
    units: ["2º izq", "{n}º {l}", "puerta {n}"],
    floors: ["piso {n}", "{n}ª planta", "bajo"],
    poBox: "Apartado {n}",
    numberWord: "nº ",
  },
  {
    code: "PT",
    lang: "pt",
    names: ["Portugal", "Portugal"],
    box: [-8.4, 38.2, -7.4, 41.3],
    regions: [["Beiralva", "BV"]],
    towns: { beginnings: ["Vila ", "Monte ", "Alde", "Ribeira "], ends: ["Nova da Serra", "Alvim", "Fria", "Redonda"] },
    streets: {
      words: "Igreja Fonte Moinho Flores Escola Liberdade Oliveiras Mercado Ponte Sobreiros".split(" "),
      kinds: [
        ["Rua", "R."],
        ["Avenida", "Av."],
        ["Travessa", "Tv."],
        ["Largo", "Lg."],
      ],
      kind: "before",
      links: ["da", "do", "das", "dos"],
    },
    number: "after",
    suffixes: ["A", "B"],
    postcode: (town, random) => `${ofTown(town, 4)}-${digits(3, random)}`,
    loosely: unspaced,
    tail: "{postcode} {town}",
    units: ["{n}º Esq", "{n}º Dto"],
    floors: ["r/c", "{n}º andar"],
    poBox: "Apartado {n}",
    numberWord: "nº ",
  },
  {
    code: "BR",
    lang: "pt",
    names: ["Brasil", "Brazil"],
    box: [-52, -24, -47.5, -16],
    regions: [
      ["Serra Azul", "SZ"],
      ["Rio Claro do Norte", "RN"],
    ],
    towns: {
      beginnings: ["Nova ", "Santa ", "Porto ", "Campo "],
      ends: ["Aurélia", "Palmira", "Belmonte", "Iraí", "Jacuí"],
    },
    streets: {
      words: "Palmeiras Ipês Bandeira Jacarandás Mangueiras Coqueiros Sabiás Laranjeiras Ouro Amazonas".split(" "),
      kinds: [
        ["Rua", "R."],
        ["Avenida", "Av."],
        ["Travessa", "Tv."],
        ["Alameda", "Al."],
      ],
      kind: "before",
      links: ["das", "dos", "do", ""],
    },
    number: "after comma",
    suffixes: ["A"],
    postcode: (town, random) => `${ofTown(town, 2)}${digits(3, random)}-${digits(3, random)}`,
    loosely: unspaced,
    tail: "{town} - {code}, {postcode}",
    units: ["apto {n}", "bloco {l}"],
    floors: ["{n}º andar"],
    poBox: "Caixa Postal {n}",
    numberWord: "nº ",
  },
  {
    code: "IT",
    lang: "it",
    names: ["Italia", "Italy"],
    box: [8, 44.7, 11.9, 45.6],
    regions: [
      ["Valmorra", "VR"],
      ["Pontelago", "PL"],
    ],
    towns: {
      beginnings: ["Castel", "Monte", "Borgo", "Pieve"],
      ends: ["lungo", "fiorito", "valdo", "vetusto", "chiaro", "sereno"],
    },
    streets: {
      words: "Roma Mulino Chiesa Garibaldina Fontana Stazione Olmi Tigli Vigna Molini Ponte Fornace".split(" "),
      kinds: [
        ["Via", "V."],
        ["Viale", "V.le"],
        ["Piazza", "P.zza", "P.za"],
        ["Corso", "C.so"],
        ["Vicolo", "Vic."],
      ],
      kind: "before",
      links: ["della", "del", "dei", ""],
    },
    number: "after comma",
    suffixes: ["/A", "bis", "/B"],
    postcode: (town, random) => `${ofTown(town, 3)}${digits(2, random)}`,
    loosely: spaced(3),
    tail: "{postcode} {town} ({code})",
    units: ["int. {n}", "scala {l}"],
    floors: ["{n}° piano", "piano terra"],
    poBox: "Casella Postale {n}",
    numberWord: "n. ",
  },
  {
    code: "PL",
    lang: "pl",
    names: ["Polska", "Poland"],
    box: [16, 50, 22, 53.5],
    regions: [["Pojezierze Górne", "PG"]],
    towns: {
      beginnings: "Biało Czarno Stary Nowy Zielono Kamien".split(" "),
      ends: ["brzeg", "las", "gród", "wola", "dół"],
    },
    streets: {
      words: "Lipowa Ogrodowa Młyńska Szkolna Polna Kościelna Dębowa Słoneczna Wiśniowa Źródlana Łąkowa".split(" "),
      kinds: [["ulica", "ul.", "ul"]],
      kind: "before",
      links: [""],
    },
    number: "after",
    suffixes: ["a", "/4", "/12"],
    postcode: (town, random) => `${ofTown(town, 2)}-${digits(3, random)}`,
    loosely: unspaced,
    tail: "{postcode} {town}",
    units: ["m. {n}", "lok. {n}"],
    floors: ["{n} piętro", "parter"],
    poBox: "skr. poczt. {n}",
    numberWord: "nr ",
  },
  {
    code: "SE",
    lang: "sv",
    names: ["Sverige", "Sweden"],
    box: [13.6, 57, 16, 60.8],
    regions: [["Västerskog", "VS"]],
    towns: { beginnings: "Björk Lång Öster Sten Grön".split(" "), ends: ["köping", "hamra", "torp", "viken", "sjö"] },
    streets: {
      words: "Kyrko Skol Björk Strand Kvarn Ängs Hassel Trädgårds Stations Tall".split(" "),
      kinds: [
        ["gatan", "g.", "g"],
        ["vägen", "v.", "v"],
        ["gränd", "gr."],
      ],
      kind: "glued",
    },
    number: "after",
    suffixes: [" A", " B"],
    postcode: (town, random) => `${ofTown(town, 3)} ${digits(2, random)}`,
    loosely: unspaced,
    tail: "{postcode} {town}",
    units: ["lgh 1{n}01", "lgh {n}"],
    floors: ["{n} tr", "{n} trappor"],
    poBox: "Box {n}",
    numberWord: "nr ",
  },
  {
    code: "CZ",
    lang: "cs",
    names: ["Česko", "Czechia"],
    box: [13.7, 49.3, 17.4, 50.1],
    regions: [["Podhorský kraj", "PK"]],
    towns: {
      beginnings: "Horní Dolní Nové Staré".split(" ").map((one) => `${one} `),
      ends: ["Lipno", "Borovany", "Sedlice", "Javor"],
    },
    streets: {
      words: "Školní Zahradní Nádražní Lipová Mlýnská Květná Luční Polní Sadová".split(" "),
      kinds: [["", ""]],
      kind: "behind",
    },
    number: "after",
    suffixes: ["/12", "a", "/3"],
    postcode: (town, random) => `${ofTown(town, 3)} ${digits(2, random)}`,
    loosely: unspaced,
    tail: "{postcode} {town}",
    units: ["byt {n}"],
    floors: ["{n}. patro", "přízemí"],
    poBox: "P. O. Box {n}",
    numberWord: "č. p. ",
  },
];
