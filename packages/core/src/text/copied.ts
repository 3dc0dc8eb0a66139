import { fold } from "./fold.ts";
import { withoutLeadIn } from "./lead-in.ts";
import { partNames } from "./part-names.ts";

/** What may be pasted beside an address: a slash with room around it before a postcode, a tag, a label before a colon. */
const SUSPECT = /[:<=]|\s\/\s/;
const TAG = /<\/?[a-z][^<>]{0,100}>/gi;
/** "21c / 10087 Birkenbronn": a number behind a slash is of the house only where it is short. */
const SLASH = /(?<=\s)\/(?=\s+(?:\d{4}|\d{2,3}[-\s]\d{2,4}))/g;
/** What forms and files call an address as a whole. */
const WHOLE =
  "address|street address|full address|postal address|adresse|anschrift|direccion|domicilio|indirizzo|endereco|morada|adres|adress|adresa|osoite|cim|naslov|adresas|aadress|alamat|διευθυνση|адрес|адреса|住所|주소|地址|location|no|nr|num|number";

let labels: ReadonlySet<string> | undefined;
const plain = (label: string) =>
  fold(label)
    .text.replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

function isLabel(label: string): boolean {
  labels ??= new Set([...Object.values(partNames).flat(), ...WHOLE.split("|")].map(plain));
  return labels.has(plain(label));
}

/** What is not to be seen, and part of no word: it keeps all else in its place. */
export const NOTHING = "\u2060";
/** Bytes as an address of the web has them, and the names of its values. */
const BYTES = /(?:%[\da-f]{2})+/gi;
const WEB = /^\s*https?:\/\/[^\s?#/]+(?:[^\s?#]*(?=\?\S*=)|\/)/i;
const NAMES = /(?:^|[?&])[\p{L}\d_.[\]-]{1,40}=/gu;
/** A place of a list, and a position behind an address: "3) …", "1. 12 Mill Lane", "… (51.50142, -0.14189)". */
const PLACE = /^\s*(?:\(?\d{1,3}\)|\d{1,2}\.(?=\s+\d+\p{L}?\s))\s+(?=\S.*\p{L})/u;
const DEGREES = /\d\.\d{4}/;
const POSITION = /(?<=\p{L}.*)[\s,;([|]+[-+]?\d{1,2}\.\d{4,}°?\s*[,;/ ]\s*[-+]?\d{1,3}\.\d{4,}°?[)\]\s]*$/u;

/** "3.º andar"; "nº16". */
const DEGREE = /[ºª°]/;
const ORDINAL = /(\d)\.([ºª])/g;
const NUMBER = /(?<![\p{L}\d])(n|nr|num)\.?[º°](?=\s?\d)/giu;
/** UTF-8 that a program took for Latin-1 or Windows-1252: "StraÃŸe". */
const MISREAD =
  /[\u00C2-\u00C5][\u0080-\u00BF\u0152\u0153\u0160\u0161\u0178\u017D\u017E\u0192\u02C6\u02DC\u2013-\u203A\u20AC\u2122]|[\u00E1-\u00E3][\u0080-\u00BF\u0152\u0153\u0160\u0161\u0178\u017D\u017E\u0192\u02C6\u02DC\u2013-\u203A\u20AC\u2122]{2}/gu;
/** What Windows-1252 has for the bytes from 80 to 9F. */
const WINDOWS = "€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008DŽ\u008F\u0090‘’“”•–—˜™š›œ\u009DžŸ";
/** A letter that a program did not know: "Stra?e". */
const LOST = /(?<=\p{L})[?\uFFFD](?=\p{L})/gu;
const ASKED = /[?？!！…]+\s*$/u;

const MAY_BE_MISREAD = /[\u00C2-\u00C5\u00E1-\u00E3?\uFFFD]./u;

/** The character that two or three bytes are. */
function asRead(bytes: string): string {
  let code = bytes.charCodeAt(0) & (bytes.length > 2 ? 0x0f : 0x1f);
  for (const byte of bytes.slice(1)) {
    const at = WINDOWS.indexOf(byte);
    code = (code << 6) | ((at < 0 ? byte.charCodeAt(0) : at) & 0x3f);
  }
  return String.fromCharCode(code).padEnd(bytes.length, NOTHING);
}

const asSpaces = (found: string) => " ".repeat(found.length);

/**
 * What of a text is an address: without how it was asked for, and without what came with it where it was copied. All else
 * keeps its place: what goes becomes spaces, separators and signs that are not to be seen.
 */
export function addressIn(pasted: string): string {
  let text = pasted;
  if (text.includes("%") || WEB.test(text)) text = decoded(text);
  if (MAY_BE_MISREAD.test(text)) text = text.replace(MISREAD, asRead).replace(LOST, NOTHING);
  if (text.includes("\\n")) text = text.replace(/\\r\\n|\\n/g, (found) => "\n".padEnd(found.length));
  text = withoutLabels(withoutLeadIn(text)).replace(PLACE, asSpaces);
  if (DEGREES.test(text)) text = text.replace(POSITION, (found) => ",".padEnd(found.length));
  if (DEGREE.test(text)) text = text.replace(ORDINAL, `$1${NOTHING}$2`).replace(NUMBER, asSpaces);
  return text.replace(ASKED, asSpaces);
}

/** The content of an address of the web, its bytes as characters. */
function decoded(text: string): string {
  if (/\s/.test(text.trim())) return text;
  const characters = text.replace(BYTES, (bytes) => {
    try {
      return decodeURIComponent(bytes).padEnd(bytes.length, NOTHING);
    } catch {
      return bytes;
    }
  });
  return characters.replace(WEB, asSpaces);
}

/**
 * A text without tags, the labels of the parts ("Street: Mill Lane No: 12"), and the same once more. They become separators
 * and spaces.
 */
function withoutLabels(pasted: string): string {
  const text = withoutRepeat(pasted);
  if (!SUSPECT.test(text)) return text;
  const blank = (found: string) => ",".padEnd(found.length);
  const bare = text.replace(TAG, blank).replace(SLASH, ",").replace(NAMES, blank);
  let labelled = "";
  let [from, isLabelled] = [0, false];
  for (let colon = bare.indexOf(":"); colon >= 0; colon = bare.indexOf(":", from)) {
    const label = labelBefore(bare.slice(from, colon), isLabelled);
    isLabelled ||= label > 0 && from === 0;
    const end = colon + 1;
    labelled +=
      label > 0 ? bare.slice(from, colon - label) + blank(bare.slice(colon - label, end)) : bare.slice(from, end);
    from = end;
  }
  return labelled + bare.slice(from);
}

/** Words of a label at most. */
const MOST_WORDS = 4;

/**
 * How long the label is that a text ends with; 0 where it ends with none.
 * @param isLabelled it may follow a value with nothing in between, as all texts do that begin with a label
 */
function labelBefore(text: string, isLabelled: boolean): number {
  const stretch = text.slice(Math.max(...[...SEPARATORS].map((mark) => text.lastIndexOf(mark))) + 1);
  const starts = [...stretch.matchAll(/(?<![\p{L}\d])\p{L}/gu)].map(({ index }) => index).slice(-MOST_WORDS);
  const isAtStart = /^[\s"']*$/.test(stretch.slice(0, starts[0] ?? 0));
  for (const [i, start] of starts.entries()) {
    const words = stretch.slice(start);
    const isOwn = i === 0 && isAtStart;
    // "12th Street No": the street is of the value before
    const isAfterValue = !isOwn && i < starts.length - 1 && partNames.street.includes(plain(words.split(/\s/)[0]));
    if ((isOwn || (isLabelled && !isAfterValue)) && isLabel(words)) return stretch.length - start;
  }
  return 0;
}

const SEPARATORS = ",;|{(>\n";

/** Characters of an address at least that is taken for pasted twice. */
const SHORTEST_TWICE = 10;

/** A text that is an address twice, with only the first of them left; "Oak Grove, Oak Grove" is no address with a number. */
function withoutRepeat(text: string): string {
  for (let mark = 1; mark <= 3; mark++) {
    const length = (text.length - mark) / 2;
    if (!Number.isInteger(length) || length < SHORTEST_TWICE) continue;
    const first = text.slice(0, length);
    if (text.endsWith(first) && /\d/.test(first) && /^[\s,;]+$/.test(text.slice(length, length + mark)))
      return first + ",".padEnd(text.length - length);
  }
  return text;
}
