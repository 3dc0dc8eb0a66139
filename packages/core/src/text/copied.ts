import { fold } from "./fold.ts";
import { partNames } from "./part-names.ts";

/** What may be pasted beside an address: a slash with room around it before a postcode, a tag, a label before a colon. */
const SUSPECT = /[:<]|\s\/\s/;
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

/**
 * A text without what came with it where it was copied: tags, the labels of the parts ("Street: Mill Lane No: 12"), and the same
 * once more. They become separators and spaces, so that all else keeps its place.
 */
export function withoutLabels(pasted: string): string {
  const text = withoutRepeat(pasted);
  if (!SUSPECT.test(text)) return text;
  const blank = (found: string) => ",".padEnd(found.length);
  const bare = text.replace(TAG, blank).replace(SLASH, ",");
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
