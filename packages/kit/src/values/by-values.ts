import {
  colourOfMean,
  MISSING_COLOUR,
  type ValueScale,
  type ValueSizes,
  valueScale,
  valueSizes,
} from "@bibliotope/core/map";
import type { Marker, OfGroup } from "../map/marker.ts";
import { say } from "../words/say.ts";

/** What is known of a marker, by the names of columns. */
export type Values = Readonly<Record<string, string | number | null | undefined>>;

/** Which columns style markers. */
export interface ByColumns {
  /** Colours: steps of numbers from light to dark, or a colour for each of the commonest words. */
  colour?: string | undefined;
  /** Sizes, of a column of numbers. */
  size?: string | undefined;
  /** What is written beside each marker. */
  label?: string | undefined;
  /** What is on a group: its count when not given, or the mean of the column that colours, else of the one of sizes. */
  groups?: "count" | "mean" | undefined;
}

/** What one of the columns means on the map. */
export interface LegendPart {
  by: "colour" | "size" | "label";
  column: string;
  steps: readonly { words: string; colour?: string; size?: number; count?: number }[];
  /** Of numbers, as it is read. */
  mean?: string;
  /** Why the column cannot say it. */
  trouble?: string;
}

/** Markers styled by their values, the styles of their groups, and the legend. */
export interface ShownByValues {
  markers: Marker[];
  ofGroup: OfGroup | undefined;
  legend: readonly LegendPart[];
}

/** The longest label. */
const LONGEST = 40;

/**
 * Gives markers the colours, sizes and labels of columns.
 * @param values of each marker, in the markers' order
 * @param lang in which numbers are written (BCP 47); the browser's when not given
 */
export function byValues(
  markers: readonly Marker[],
  values: readonly Values[],
  { colour, size, label, groups = "count" }: ByColumns,
  lang: string = navigator.language,
): ShownByValues {
  const column = (name: string | undefined) =>
    name === undefined ? undefined : values.map((one) => textOf(one[name]));
  const [colourOf, sizeOf, labelOf] = [column(colour), column(size), column(label)];
  const scale = colourOf && valueScale(colourOf, lang);
  const sizes = sizeOf && valueSizes(sizeOf);
  const isMeanOfColour = scale?.kind === "numbers";
  const numbers = isMeanOfColour ? scale.numbers : sizes?.numbers;
  const compact = compactWriter(lang);
  const ofGroup: OfGroup | undefined =
    numbers &&
    (({ mean }) => {
      if (mean === undefined) return isMeanOfColour ? { colour: MISSING_COLOUR } : {};
      return {
        ...(isMeanOfColour ? { colour: colourOfMean(scale, mean) } : {}),
        ...(groups === "mean" ? { words: compact(mean) } : {}),
      };
    });
  return {
    markers: markers.map((marker, i) => ({
      ...marker,
      ...(scale ? { colour: scale.steps[scale.of[i]]?.colour ?? MISSING_COLOUR } : {}),
      ...(sizes ? { size: sizes.of[i] } : {}),
      ...(labelOf?.[i] ? { label: shortened(labelOf[i]) } : {}),
      ...(numbers ? { value: numbers[i] } : {}),
    })),
    ofGroup,
    legend: [
      ...(scale ? [colourPart(colour!, scale, lang)] : []),
      ...(sizeOf ? [sizePart(size!, sizes, lang)] : []),
      ...(label === undefined ? [] : [{ by: "label" as const, column: label, steps: [] }]),
    ],
  };
}

/** Means that are kept written: every frame asks for those in sight again. */
const MOST_WRITTEN = 5000;

/** Writes numbers in a few characters. */
function compactWriter(lang: string): (value: number) => string {
  const format = new Intl.NumberFormat(lang, { notation: "compact", maximumSignificantDigits: 3 });
  const kept = new Map<number, string>();
  return (value) => {
    let words = kept.get(value);
    if (words === undefined) {
      if (kept.size >= MOST_WRITTEN) kept.clear();
      words = format.format(value);
      kept.set(value, words);
    }
    return words;
  };
}

const textOf = (value: Values[string]) => (typeof value === "number" ? String(value) : value);

const shortened = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text);

function colourPart(column: string, { steps, missing, mean }: ValueScale, lang: string): LegendPart {
  const nothing = { words: say("no value"), colour: MISSING_COLOUR, count: missing };
  return {
    ...{ by: "colour", column },
    steps: [...steps.map(({ words, colour, count }) => ({ words, colour, count })), ...(missing ? [nothing] : [])],
    ...(mean === undefined ? {} : { mean: written(mean, lang) }),
  };
}

function sizePart(column: string, sizes: ValueSizes | undefined, lang: string): LegendPart {
  if (!sizes) return { by: "size", column, steps: [], trouble: say("Only numeric columns can set the size.") };
  const { least, most, smallest, largest } = sizes;
  const ends = [
    { words: written(least, lang), size: smallest },
    { words: written(most, lang), size: largest },
  ];
  return { by: "size", column, steps: least === most ? [{ words: ends[0].words, size: 1 }] : ends };
}

const written = (value: number, lang: string) => value.toLocaleString(lang, { maximumSignificantDigits: 5 });
