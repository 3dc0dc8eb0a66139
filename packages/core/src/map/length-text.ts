import { isRightToLeft } from "./right-to-left.ts";

/**
 * Languages that write a length below a thousand alike: the number, a space, "m" or "km", with a comma or a point. They
 * need no format for it: the first that a page makes takes 40 ms, before its first map is drawn.
 */
const ALIKE = /^(da|de|en|es|it|nl|pl|pt|sv)$/;

function plainly(value: number, unit: "meter" | "kilometer", digits: number, lang: string): string | undefined {
  if (value >= 999.9 || !ALIKE.test(lang)) return undefined;
  const scale = 10 ** digits;
  const number = (Math.round(value * scale) / scale).toFixed(digits);
  return `${lang === "en" ? number : number.replace(".", ",")} ${unit === "meter" ? "m" : "km"}`;
}

/** Formats are dear to make, and every frame asks for the same ones. */
const formats: Record<string, Intl.NumberFormat> = {};

/**
 * Metres as people write them in a language: "342 m", "12.4 km", "1,205 km"; "12,4 km" in German.
 * @param lang BCP 47
 * @param isExact to keep the fraction of a round length, without a zero: "0.5 km", "20 km"
 */
export function lengthText(metres: number, lang = "en", isExact = false): string {
  const unit = metres < (isExact ? 1000 : 999.5) ? "meter" : "kilometer";
  const inUnit = unit === "meter" ? metres : metres / 1000;
  const least = unit === "meter" || isExact || inUnit >= 99.95 ? 0 : 1;
  const most = isExact ? 3 : least;
  const plain = most === least || Number.isInteger(inUnit) ? plainly(inUnit, unit, least, lang) : undefined;
  if (plain) return plain;
  const name = lang + unit + most + least;
  formats[name] ??= new Intl.NumberFormat(lang, {
    style: "unit",
    unit,
    minimumFractionDigits: least,
    maximumFractionDigits: most,
  });
  // the narrow space is in few fonts
  const text = formats[name].format(inUnit).replaceAll("\u202f", "\u00a0");
  // a map is painted from left to right: the mark keeps number and unit in the order in which they are read
  return isRightToLeft(lang) ? `\u200f${text}` : text;
}
