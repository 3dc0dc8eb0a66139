/** A system in which a country writes positions in metres. */
export interface Grid {
  /** Number in the EPSG dataset. */
  epsg: number;
  /** What people call it. */
  name: string;
  /** ISO 3166-1 alpha-2. */
  countries: readonly string[];
  /** Its parameters, in the words of PROJ. */
  terms: string;
  /** True where x runs to the north, as its authority has it: the two are met in either order. */
  isXNorth?: boolean;
  /** True where it counts to the west and to the south. */
  isTurned?: boolean;
}

const tmerc = (lat: number, lon: number, k: number, x: number, y: number, datum = "+ellps=GRS80") =>
  `+proj=tmerc +lat_0=${lat} +lon_0=${lon} +k=${k} +x_0=${x} +y_0=${y} ${datum} +units=m`;
const lcc = (lat1: number, lat2: number, lat: number, lon: number, x: number, y: number, datum = "+ellps=GRS80") =>
  `+proj=lcc +lat_1=${lat1} +lat_2=${lat2} +lat_0=${lat} +lon_0=${lon} +x_0=${x} +y_0=${y} ${datum} +units=m`;

const GB = "+ellps=airy +towgs84=446.448,-125.157,542.06,0.15,0.247,0.842,-20.489";
const IE = "+ellps=mod_airy +towgs84=482.5,-130.6,564.6,-1.042,-0.214,-0.631,8.15";
const DE = "+ellps=bessel +towgs84=598.1,73.7,418.2,0.202,0.045,-2.455,6.7";
const AT = "+ellps=bessel +towgs84=577.326,90.129,463.919,5.137,1.474,5.297,2.4232";
const NL = "+ellps=bessel +towgs84=565.417,50.3319,465.552,-0.398957,0.343988,-1.8774,4.0725";
const BE = "+ellps=intl +towgs84=-106.8686,52.2978,-103.7239,0.3366,-0.457,1.8422,-1.2747";
const CH = "+ellps=bessel +towgs84=674.374,15.056,405.346";
const SE = "+ellps=bessel +towgs84=414.1,41.3,603.1,-0.855,2.141,-7.023,0";
const CZ = "+ellps=bessel +towgs84=589,76,480";
const IT = "+ellps=intl +towgs84=-104.1,-49.1,-9.9,0.971,-2.917,0.714,-11.68";
const HU = "+ellps=GRS67 +towgs84=52.17,-71.82,-14.9";
const RO = "+ellps=krass +towgs84=33.4,-146.6,-76.3,-0.359,-0.053,0.844,-0.84";
const GR = "+ellps=GRS80 +towgs84=-199.87,74.79,246.62";
const IL = "+ellps=GRS80 +towgs84=-24.0024,-17.1032,-17.8444,-0.33077,-1.85269,1.66969,5.4248";
const HK = "+ellps=intl +towgs84=-162.619,-276.959,-161.764,0.067753,-2.243649,-1.158827,-1.094246";
const LU = "+ellps=intl +towgs84=-189.6806,18.3463,-42.7695,-0.33746,-3.09264,2.53861,0.4598";

const swiss = (x: number, y: number) =>
  `+proj=somerc +lat_0=46.95240555555556 +lon_0=7.439583333333333 +k_0=1 +x_0=${x} +y_0=${y} ${CH} +units=m`;

/** Latitude and longitude of the origin of each of Japan's zones, in order. */
const JAPAN: readonly (readonly [lat: number, lon: number])[] = [
  [33, 129.5],
  [33, 131],
  [36, 132 + 10 / 60],
  [33, 133.5],
  [36, 134 + 20 / 60],
  [36, 136],
  [36, 137 + 10 / 60],
  [36, 138.5],
  [36, 139 + 50 / 60],
  [40, 140 + 50 / 60],
  [44, 140.25],
  [44, 142.25],
  [44, 144.25],
  [26, 142],
  [26, 127.5],
  [26, 124],
  [26, 131],
  [20, 136],
  [26, 154],
];

/** Countries whose surveyors call the way to the north x. */
const X_NORTH: ReadonlySet<string> = new Set(["PL", "CZ", "JP", "AT", "DE", "HU", "HR", "SI", "LT", "LV", "EE", "TR"]);

/** National grids by their public parameters, as the EPSG dataset has them; good to some metres where a datum is shifted. */
const GRIDS: readonly Grid[] = [
  [27700, "British National Grid", ["GB"], tmerc(49, -2, 0.9996012717, 400_000, -100_000, GB)],
  [2157, "Irish Transverse Mercator", ["IE", "GB"], tmerc(53.5, -8, 0.99982, 600_000, 750_000)],
  [29903, "Irish Grid", ["IE", "GB"], tmerc(53.5, -8, 1.000035, 200_000, 250_000, IE)],
  [2154, "Lambert-93", ["FR"], lcc(49, 44, 46.5, 3, 700_000, 6_600_000)],
  ...[42, 43, 44, 45, 46, 47, 48, 49, 50].map(
    (lat) =>
      [
        3900 + lat,
        `Conique conforme, zone ${lat}`,
        ["FR"],
        lcc(lat - 0.75, lat + 0.75, lat, 3, 1_700_000, (lat - 41) * 1e6 + 200_000),
      ] as const,
  ),
  [
    28992,
    "Rijksdriehoek",
    ["NL"],
    `+proj=sterea +lat_0=52.15616055555555 +lon_0=5.38763888888889 +k=0.9999079 +x_0=155000 +y_0=463000 ${NL} +units=m`,
  ],
  [
    31370,
    "Lambert 72",
    ["BE"],
    lcc(51.16666723333333, 49.8333339, 90, 4.367486666666666, 150_000.013, 5_400_088.438, BE),
  ],
  [
    3812,
    "Lambert 2008",
    ["BE"],
    lcc(49.83333333333334, 51.16666666666666, 50.797815, 4.359215833333333, 649_328, 665_262),
  ],
  [2169, "LUREF", ["LU"], tmerc(49.83333333333334, 6.166666666666667, 1, 80_000, 100_000, LU)],
  ...[2, 3, 4, 5].map(
    (zone) =>
      [31464 + zone, `Gauß-Krüger, zone ${zone}`, ["DE"], tmerc(0, 3 * zone, 1, zone * 1e6 + 500_000, 0, DE)] as const,
  ),
  [4647, "UTM 32N with the zone in front", ["DE"], tmerc(0, 9, 0.9996, 32_500_000, 0)],
  [5650, "UTM 33N with the zone in front", ["DE"], tmerc(0, 15, 0.9996, 33_500_000, 0)],
  [31287, "Lambert", ["AT"], lcc(49, 46, 47.5, 13.33333333333333, 400_000, 400_000, AT)],
  [3416, "Lambert, ETRS89", ["AT"], lcc(49, 46, 47.5, 13.33333333333333, 400_000, 400_000)],
  [31254, "Gauß-Krüger west", ["AT"], tmerc(0, 10.33333333333333, 1, 0, -5_000_000, AT)],
  [31255, "Gauß-Krüger central", ["AT"], tmerc(0, 13.33333333333333, 1, 0, -5_000_000, AT)],
  [31256, "Gauß-Krüger east", ["AT"], tmerc(0, 16.33333333333333, 1, 0, -5_000_000, AT)],
  [31257, "Gauß-Krüger M28", ["AT"], tmerc(0, 10.33333333333333, 1, 150_000, -5_000_000, AT)],
  [31258, "Gauß-Krüger M31", ["AT"], tmerc(0, 13.33333333333333, 1, 450_000, -5_000_000, AT)],
  [31259, "Gauß-Krüger M34", ["AT"], tmerc(0, 16.33333333333333, 1, 750_000, -5_000_000, AT)],
  [2056, "LV95", ["CH", "LI"], swiss(2_600_000, 1_200_000)],
  [21781, "LV03", ["CH", "LI"], swiss(600_000, 200_000)],
  [3003, "Gauss-Boaga west", ["IT"], tmerc(0, 9, 0.9996, 1_500_000, 0, IT)],
  [3004, "Gauss-Boaga east", ["IT"], tmerc(0, 15, 0.9996, 2_520_000, 0, IT)],
  [3763, "PT-TM06", ["PT"], tmerc(39.66825833333333, -8.133108333333334, 1, 0, 0)],
  [2180, "PL-1992", ["PL"], tmerc(0, 19, 0.9993, 500_000, -5_300_000)],
  ...[5, 6, 7, 8].map(
    (zone) =>
      [2171 + zone, `PL-2000, zone ${zone}`, ["PL"], tmerc(0, 3 * zone, 0.999923, zone * 1e6 + 500_000, 0)] as const,
  ),
  [
    5514,
    "S-JTSK, Krovak",
    ["CZ", "SK"],
    `+proj=krovak +lat_0=49.5 +lon_0=24.83333333333333 +alpha=30.28813972222222 +k=0.9999 +x_0=0 +y_0=0 ${CZ} +units=m`,
  ],
  [
    5513,
    "S-JTSK, Krovak, to the west and south",
    ["CZ", "SK"],
    `+proj=krovak +lat_0=49.5 +lon_0=24.83333333333333 +alpha=30.28813972222222 +k=0.9999 +x_0=0 +y_0=0 ${CZ} +units=m`,
    true,
  ],
  [3021, "RT 90 2.5 gon V", ["SE"], tmerc(0, 15.80827777777778, 1, 1_500_000, 0, SE)],
  [3301, "L-EST97", ["EE"], lcc(59.33333333333334, 58, 57.51755393055556, 24, 500_000, 6_375_000)],
  [3059, "LKS-92", ["LV"], tmerc(0, 24, 0.9996, 500_000, -6_000_000)],
  [3346, "LKS-94", ["LT"], tmerc(0, 24, 0.9998, 500_000, 0)],
  [3794, "D96/TM", ["SI"], tmerc(0, 15, 0.9999, 500_000, -5_000_000)],
  [3765, "HTRS96/TM", ["HR"], tmerc(0, 16.5, 0.9999, 500_000, 0)],
  [
    23700,
    "EOV",
    ["HU"],
    `+proj=somerc +lat_0=47.14439372222222 +lon_0=19.04857177777778 +k_0=0.99993 +x_0=650000 +y_0=200000 ${HU} +units=m`,
  ],
  [3844, "Stereo 70", ["RO"], `+proj=sterea +lat_0=46 +lon_0=25 +k=0.99975 +x_0=500000 +y_0=500000 ${RO} +units=m`],
  [2100, "GGRS87", ["GR"], tmerc(0, 24, 0.9996, 500_000, 0, GR)],
  [7801, "BGS2005", ["BG"], lcc(42, 43.33333333333334, 42.66787568333333, 25.5, 500_000, 4_725_824.3591)],
  [2193, "New Zealand Transverse Mercator", ["NZ"], tmerc(0, 173, 0.9996, 1_600_000, 10_000_000)],
  [2039, "Israeli TM", ["IL"], tmerc(31.73439361111111, 35.20451694444445, 1.0000067, 219_529.584, 626_907.39, IL)],
  [3826, "TWD97, 121°", ["TW"], tmerc(0, 121, 0.9999, 250_000, 0)],
  [3825, "TWD97, 119°", ["TW"], tmerc(0, 119, 0.9999, 250_000, 0)],
  [3057, "Lambert 1993", ["IS"], lcc(64.25, 65.75, 65, -19, 500_000, 500_000)],
  [2326, "Hong Kong 1980", ["HK"], tmerc(22.31213333333334, 114.1785555555556, 1, 836_694.05, 819_069.8, HK)],
  [3414, "SVY21", ["SG"], tmerc(1.366666666666667, 103.8333333333333, 1, 28_001.642, 38_744.572)],
  [6372, "Cónica conforme", ["MX"], lcc(17.5, 29.5, 12, -102, 2_500_000, 0)],
  [9377, "Origen nacional", ["CO"], tmerc(4, -73, 0.9992, 5_000_000, 2_000_000)],
  [5179, "Unified CS", ["KR"], tmerc(38, 127.5, 0.9996, 1_000_000, 2_000_000)],
  [5186, "Central Belt 2010", ["KR"], tmerc(38, 127, 1, 200_000, 600_000)],
  [5187, "East Belt 2010", ["KR"], tmerc(38, 129, 1, 200_000, 600_000)],
  ...JAPAN.map(
    ([lat, lon], i) => [6669 + i, `Plane rectangular ${i + 1}`, ["JP"], tmerc(lat, lon, 0.9999, 0, 0)] as const,
  ),
  [
    5070,
    "Conus Albers",
    ["US"],
    "+proj=aea +lat_0=23 +lon_0=-96 +lat_1=29.5 +lat_2=45.5 +x_0=0 +y_0=0 +ellps=GRS80 +units=m",
  ],
].map(
  ([epsg, name, countries, terms, isTurned]) =>
    ({
      epsg,
      name,
      countries,
      terms,
      ...(isTurned ? { isTurned } : {}),
      ...(X_NORTH.has((countries as readonly string[])[0]) ? { isXNorth: true } : {}),
    }) as Grid,
);

const BY_CODE = new Map(GRIDS.map((grid) => [grid.epsg, grid]));

/** The grids in which positions of a country may be written. @param country ISO 3166-1 alpha-2 */
export const gridsOf = (country: string): Grid[] => GRIDS.filter(({ countries }) => countries.includes(country));

/** A grid by number in the EPSG dataset. */
export const gridOf = (epsg: number): Grid | undefined => BY_CODE.get(epsg);
