import { isRightToLeft } from "./right-to-left.ts";

/**
 * Languages that write a length below a thousand alike: the number, a space, "m" or "km", with a comma or a point. They
 * need no format for it: the first that a page makes takes 40 ms, before its first map is drawn.
 */
const ALIKE = /^(?:(en(?:-(?:AU|CA|GB|IE|NZ|US))?)|da|de|es|it|nl|pl|pt|sv)$/;
const SIGNS = { meter: "m", kilometer: "km" } as const;

function plainly(value: number, unit: "meter" | "kilometer", digits: number, lang: string): string | undefined {
  const alike = ALIKE.exec(lang);
  if (!alike || !(value >= 0) || value >= 999.9) return undefined;
  const scale = 10 ** digits;
  const number = (Math.round(value * scale) / scale).toFixed(digits);
  return `${alike[1] ? number : number.replace(".", ",")} ${SIGNS[unit]}`;
}

/** Formats are dear to make, and every frame asks for the same ones. */
const formats = new Map<string, Intl.NumberFormat>();

function inUnit(value: number, unit: "meter" | "kilometer", digits: number, least: number, lang: string): string {
  const plain = digits === least || Number.isInteger(value) ? plainly(value, unit, least, lang) : undefined;
  if (plain) return plain;
  const name = `${lang} ${unit} ${digits} ${least}`;
  let format = formats.get(name);
  if (!format) {
    const fraction = { minimumFractionDigits: least, maximumFractionDigits: digits };
    format = new Intl.NumberFormat(lang, { style: "unit", unit, ...fraction });
    formats.set(name, format);
  }
  // the narrow space is in few fonts
  const text = format.format(value).replaceAll("\u202f", "\u00a0");
  // a map is painted from left to right: the mark keeps number and unit in the order in which they are read
  return isRightToLeft(lang) ? `\u200f${text}` : text;
}

/**
 * Metres as people write them in a language: "342 m", "12.4 km", "1,205 km"; "12,4 km" in German.
 * @param lang BCP 47
 * @param isExact to keep the fraction of a round length, without a zero: "0.5 km", "20 km"
 */
export function lengthText(metres: number, lang = "en", isExact = false): string {
  if (isExact)
    return metres < 1000 ? inUnit(metres, "meter", 3, 0, lang) : inUnit(metres / 1000, "kilometer", 3, 0, lang);
  if (metres < 999.5) return inUnit(Math.round(metres), "meter", 0, 0, lang);
  const kilometres = metres / 1000;
  if (kilometres < 99.95) return inUnit(kilometres, "kilometer", 1, 1, lang);
  return inUnit(kilometres, "kilometer", 0, 0, lang);
}
