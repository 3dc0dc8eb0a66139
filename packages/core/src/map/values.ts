/** A step of a scale of numbers, or one of the words; and how many values are in it. */
export interface ScaleStep {
  /** What it is called in a legend. */
  words: string;
  /** Of numbers: where it begins. */
  from?: number;
  colour: string;
  count: number;
}

/** How values become colours: their steps, and the step of each value; -1 for one that is missing. */
export interface ValueScale {
  kind: "numbers" | "words";
  steps: readonly ScaleStep[];
  of: readonly number[];
  /** Values that are missing. */
  missing: number;
  /** Of numbers: the value of each; their mean, and the least and the greatest. */
  numbers?: readonly (number | undefined)[];
  mean?: number;
  least?: number;
  most?: number;
}

/** From light to dark through one turn of hue: told apart by lightness alone, and so by everybody; by day and by night. */
const LADDER = ["#e3bd5b", "#dd9c5c", "#cf7d78", "#a96ba6", "#5867b8"];
/** Seven colours that people with any colour vision tell apart (Okabe and Ito, 2008), and one for all the others. */
const APART = ["#0072b2", "#e69f00", "#009e73", "#cc79a7", "#56b4e9", "#d55e00", "#8f8300"];
const OTHERS = "#7d7d78";
/** A value that is missing has this colour. */
export const MISSING_COLOUR = "#a9a59a";
/** Share of the values that are numbers from which all are taken for numbers. */
const MOST = 0.9;

/** A number as people write it: with spaces or points between thousands, a sign or a word of money around it. */
export function numberIn(text: string): number | undefined {
  const bare = text.replace(/[\s\u00a0\u202f']/g, "").replace(/^(?:[€$£¥]|[A-Z]{3})|(?:[€$£¥%]|[A-Z]{3})$/g, "");
  const plain = /^[+-]?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(bare)
    ? bare.replace(/,/g, "")
    : /^[+-]?\d{1,3}(?:\.\d{3})+(?:,\d+)?$/.test(bare) && bare.includes(",")
      ? bare.replace(/\./g, "").replace(",", ".")
      : bare.replace(",", ".");
  return /^[+-]?\d+(?:\.\d+)?(?:e[+-]?\d+)?$/i.test(plain) ? Number(plain) : undefined;
}

/**
 * A scale of colours for the values of a column: steps with as many values each where they are numbers, the commonest words
 * otherwise.
 * @param lang in which numbers are written in the legend (BCP 47)
 */
export function valueScale(values: readonly (string | null | undefined)[], lang = "en"): ValueScale {
  const given = values.map((value) => value?.trim() || undefined);
  const numbers = given.map((value) => (value === undefined ? undefined : numberIn(value)));
  const present = given.filter((value) => value !== undefined);
  const known = numbers.filter((value) => value !== undefined);
  return present.length && known.length >= MOST * present.length
    ? ofNumbers(numbers, known, lang)
    : ofWords(given, present);
}

function ofNumbers(numbers: readonly (number | undefined)[], known: readonly number[], lang: string): ValueScale {
  const sorted = [...known].sort((a, b) => a - b);
  const unlike = [...new Set(sorted)];
  const count = Math.min(LADDER.length, unlike.length);
  // where a step begins: equal numbers are of one step, however many they are
  const begins = [...new Set(Array.from({ length: count }, (_, i) => sorted[Math.floor((i * sorted.length) / count)]))];
  const stepOf = (value: number) => begins.findLastIndex((from) => value >= from);
  const of = numbers.map((value) => (value === undefined ? -1 : stepOf(value)));
  const written = (value: number) => value.toLocaleString(lang, { maximumSignificantDigits: 6 });
  const steps = begins.map((from, i): ScaleStep => {
    const own = sorted.filter((value) => stepOf(value) === i);
    const last = own[own.length - 1];
    const place = begins.length === 1 ? 2 : Math.round((i * (LADDER.length - 1)) / (begins.length - 1));
    return {
      words: from === last ? written(from) : `${written(from)} to ${written(last)}`,
      from,
      colour: LADDER[place],
      count: own.length,
    };
  });
  return {
    ...{ kind: "numbers", steps, of, numbers, missing: numbers.length - known.length },
    ...{ mean: known.reduce((sum, value) => sum + value, 0) / known.length },
    ...{ least: sorted[0], most: sorted[sorted.length - 1] },
  };
}

function ofWords(given: readonly (string | undefined)[], present: readonly string[]): ValueScale {
  const counts = new Map<string, number>();
  for (const value of present) counts.set(value, (counts.get(value) ?? 0) + 1);
  const all = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  const shown = all.length > APART.length ? all.slice(0, APART.length - 1) : all;
  const rest = all.slice(shown.length).reduce((sum, [, count]) => sum + count, 0);
  const places = new Map(shown.map(([word], i) => [word, i]));
  const steps: ScaleStep[] = shown.map(([words, count], i) => ({ words: words.slice(0, 60), colour: APART[i], count }));
  if (rest) steps.push({ words: `${all.length - shown.length} others`, colour: OTHERS, count: rest });
  const of = given.map((value) => (value === undefined ? -1 : (places.get(value) ?? shown.length)));
  return { kind: "words", steps, of, missing: given.length - present.length };
}

/** The colour of a mean of numbers that have a scale; undefined for words. */
export function colourOfMean({ kind, steps }: ValueScale, mean: number): string | undefined {
  if (kind === "words") return undefined;
  return (steps.findLast(({ from }) => from! <= mean) ?? steps[0])?.colour;
}

/** How numbers become sizes: by their area, from the least to the greatest. */
export interface ValueSizes {
  /** Of each value: its size beside others, 1 for one in the middle; of one that is missing, the smallest. */
  of: readonly number[];
  numbers: readonly (number | undefined)[];
  least: number;
  most: number;
  /** Sizes of the least and of the greatest. */
  smallest: number;
  largest: number;
}

/** The smallest and the largest marker, and steps between: few, so that pictures of them can be kept. */
const SMALLEST = 0.7;
const LARGEST = 1.6;
const SIZES = 8;

/** Sizes for a column of numbers; undefined where fewer than nine of ten are numbers. */
export function valueSizes(values: readonly (string | null | undefined)[]): ValueSizes | undefined {
  const given = values.map((value) => value?.trim() || undefined);
  const numbers = given.map((value) => (value === undefined ? undefined : numberIn(value)));
  const known = numbers.filter((value) => value !== undefined);
  const present = given.filter((value) => value !== undefined).length;
  if (!known.length || known.length < MOST * present) return undefined;
  const [least, most] = known.reduce(
    ([low, high], value) => [Math.min(low, value), Math.max(high, value)],
    [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY],
  );
  const sizeOf = (value: number | undefined) => {
    if (value === undefined) return SMALLEST;
    const share = most === least ? 0.5 : (value - least) / (most - least);
    const size = Math.sqrt(SMALLEST ** 2 + share * (LARGEST ** 2 - SMALLEST ** 2));
    const step = Math.round(((size - SMALLEST) / (LARGEST - SMALLEST)) * SIZES);
    return SMALLEST + (step / SIZES) * (LARGEST - SMALLEST);
  };
  return { of: numbers.map(sizeOf), numbers, least, most, smallest: SMALLEST, largest: LARGEST };
}
