import type { CountryProfile } from "../place/index.ts";
import { fold, lexiconOf } from "../text/index.ts";

/** What the words of a country's languages say of a piece of an address. */
export interface LineWords {
  /** True where one of the words is for a kind of street. */
  hasWay(text: string): boolean;
  /** True for a flat, a floor and the like: "Flat 3", "3rd floor", "кв. 3". */
  isUnit(text: string): boolean;
  /** The place in a text from which on it is of a part of a house; -1 where none does. */
  unitIn(text: string): number;
  /** The place in a text from which on it names a box of the post; -1 where none is. */
  boxIn(text: string): number;
  /** True for "Postfach" and the like without a number. */
  isBoxWord(text: string): boolean;
  /** What is written behind the kind of street: "Quay Road Tidewell". */
  townBehindWay(text: string): string | undefined;
  /** True for what is named as a town: "г. Липово". */
  isTown(text: string): boolean;
  withoutTownWord(text: string): string;
  /** True where people write what is broad before the street. */
  isBroadFirst: boolean;
}

/** Words before the number of a flat that the languages' packs have not, since they mean other things in questions. */
const MORE_UNITS: ReadonlySet<string> = new Set(
  `whg wohnung top tür lgh bte boite bus m lok lokal int interno interior fl floor ste apt apto ap et sc scara bl parcela nave local
  lote sala kat daire appt rm room`.split(/\s+/),
);
/** Words of languages that have no pack here, in the scripts that they are written in. */
const CYRILLIC = {
  letter: /[\u0400-\u04FF]/,
  way: /(?:^|\s)(?:ул|улица|пр|пр-т|просп|проспект|пер|переулок|пл|площадь|б-р|бульвар|наб|набережная|ш|шоссе|вул|вулиця|провулок|площа|көшесі|вуліца)(?:\.|\s|$)/iu,
  unit: /^(?:кв|квартира|оф|офис|офіс|корп|корпус|стр|строение|этаж|эт|пом|под|подъезд|к)\.?\s*\d/iu,
};
const TOWN_WORD = /^(?:г|гор|город|пос|поселок|посёлок|пгт|с|село|дер|деревня|м|місто|смт)\.?\s+(?=\p{Lu})/u;
/** A floor or a door by a sign alone: "3º B", "2.OG", "#4", "st. tv". */
const SIGNS =
  /^(?:(?:st|kl|\d{1,2})\.?\s?(?:tv|th|mf)\.?$|\d{1,3}\s?[ºª°]|#\s?\d|\d{1,2}\.\s?(?:og|ug|dg|stock|etage|st|th|tv|floor|piętro|patro)(?!\p{L}))/iu;
/** What is written before the word for a box: "PO Box", "Caixa Postal". */
const BOX_WORDS = new Set("p po post caixa casella boite case apartado correos bp cp".split(" "));
/** Countries that write what is broad first, as lists have it. */
const BROAD_FIRST: ReadonlySet<string> = new Set("RU UA KZ BY KG UZ TJ TM AM AZ GE MD CN JP KR TW HU IR".split(" "));

/** A word of a text, and where it begins. */
interface LineWord {
  said: Said;
  start: number;
}

/** What a word is, whatever is around it. */
interface Said {
  text: string;
  isWay: boolean;
  isUnit: boolean;
  /** The same behind a house's number, or at the beginning: "Calle del Portal 12" has no portal 12. */
  isWithin: boolean;
  isBox: boolean;
  /** True for a word behind its number, "3 izda", and for one behind any part of a house, "EG links". */
  isAfterNumber: boolean;
  isBehind: boolean;
  isNumber: boolean;
  /** True for what may begin the name of a part of a house. */
  mayBePart: boolean;
}

/** Words whose meaning is kept: the same come again in every row. */
const MOST_WORDS = 20_000;

/** Texts whose words are kept. */
const LATELY = 64;

const known = new Map<string, LineWords>();

/** The words by which addresses of a country are cut. */
export function lineWords(profile: CountryProfile): LineWords {
  const { code } = profile;
  let words = known.get(code);
  if (!words) {
    words = makeWords(profile);
    known.set(code, words);
  }
  return words;
}

function makeWords({ code, langs, line, number }: CountryProfile): LineWords {
  const lexicon = lexiconOf([...langs, "en"]);
  const sayings = new Map<string, Said>();
  const sayingOf = (word: string): Said => {
    let said = sayings.get(word);
    if (said) return said;
    const text = fold(word).text;
    const role = lexicon.roleBefore(text);
    said = {
      text,
      isWay: text.length > 1 && lexicon.isWay(text),
      isUnit: role === "unit" || role === "floor" || MORE_UNITS.has(text),
      isWithin: lexicon.isBeforeWithin(text),
      isBox: role === "box",
      isAfterNumber: ["unit", "floor"].includes(lexicon.roleAfter(text) ?? ""),
      isBehind: lexicon.isAfterWithin(text),
      isNumber: /^\d/.test(text),
      mayBePart: lexicon.beginsAlone(text) || CYRILLIC.letter.test(word),
    };
    if (sayings.size >= MOST_WORDS) sayings.clear();
    sayings.set(word, said);
    return said;
  };
  // pieces of one line are asked about several times
  const lately = new Map<string, LineWord[]>();
  const wordsOf = (text: string): readonly LineWord[] => {
    let words = lately.get(text);
    if (words) return words;
    words = [];
    for (const match of text.matchAll(/[\p{L}\p{N}]+/gu)) words.push({ said: sayingOf(match[0]), start: match.index });
    if (lately.size >= LATELY) lately.clear();
    lately.set(text, words);
    return words;
  };

  // "PO Box 12", "BP 30", "Caixa Postal 7"
  const isBoxAt = (words: readonly LineWord[], i: number) => {
    const [first, second, third] = [words[i], words[i + 1], words[i + 2]].map((word) => word?.said);
    if (first.isBox) return second !== undefined && /^\d/.test(second.text);
    return second?.isBox === true && third !== undefined && /^\d/.test(third.text) && BOX_WORDS.has(first.text);
  };
  const isUnitAt = (text: string, words: readonly LineWord[], i: number) => {
    const { start, said } = words[i];
    const count = words.length - i - 1;
    const isShort = count > 0 && count < 3;
    const mayBeWithin = said.isWithin && (i === 0 || words.slice(0, i).some((word) => word.said.isNumber));
    if ((said.isUnit || mayBeWithin) && isShort && /\d|^\p{L}$/u.test(words[i + 1].said.text)) return true;
    // "3rd floor", "2 izda"
    if (said.isNumber && isShort && words.slice(i + 1).every((word) => word.said.isAfterNumber)) return true;
    // "Lindenweg 5 links"
    const isDirect = i > 1 && number.stands !== "before" && words[i - 1].said.isNumber;
    if (isDirect && words.slice(i).every((word) => word.said.isBehind)) return true;
    if (!said.isNumber && !said.mayBePart && text[start - 1] !== "#") return false;
    const rest = text.slice(text[start - 1] === "#" ? start - 1 : start);
    return SIGNS.test(rest) || isAloneAt(words, i) || CYRILLIC.unit.test(rest);
  };
  /** "Hinterhaus", "bajo A", "ground floor flat": behind a street alone only where that is no part of its name. */
  const isAloneAt = (words: readonly LineWord[], i: number) => {
    const rest = words.slice(i).map(({ said }) => said.text);
    const isBehindNumber = number.stands !== "before" && words.slice(1, i).some(({ said }) => said.isNumber);
    return rest.some((last, l) => {
      const behind = words.slice(i + l + 1);
      return (
        behind.every(({ said }) => said.text.length === 1 || said.isBehind) &&
        lexicon
          .aloneWithin(last)
          .some(
            (phrase) =>
              phrase.length === l + 1 &&
              phrase.every((word, w) => rest[w] === word) &&
              (i === 0 || isBehindNumber || lexicon.mayFollowStreet(phrase)),
          )
      );
    });
  };
  /** Where the first word begins of which something is true, apart from what is in the midst of others. */
  const placeOf = (text: string, words: readonly LineWord[], is: (i: number) => boolean) => {
    for (let i = 0; i < words.length; i++) {
      const { start } = words[i];
      const before = text[start - 1];
      if ((start === 0 || before === " " || before === "#") && is(i)) return before === "#" ? start - 1 : start;
    }
    return -1;
  };
  return {
    hasWay: (text) =>
      (CYRILLIC.letter.test(text) && CYRILLIC.way.test(text)) || wordsOf(text).some(({ said }) => said.isWay),
    isUnit: (text) => {
      const words = wordsOf(text);
      return words.length > 0 && isUnitAt(text, words, 0);
    },
    unitIn: (text) => {
      const words = wordsOf(text);
      return placeOf(text, words, (i) => isUnitAt(text, words, i));
    },
    boxIn: (text) => {
      const words = wordsOf(text);
      return words.some(({ said }) => said.isBox) ? placeOf(text, words, (i) => isBoxAt(words, i)) : -1;
    },
    isBoxWord: (text) => {
      const words = wordsOf(text);
      return words.length === 1 && words[0].said.isBox;
    },
    townBehindWay: (text) => {
      const words = wordsOf(text);
      const last = words.findLastIndex(({ said }, i) => said.isWay && i > 0);
      return last < 0 || last === words.length - 1 ? undefined : text.slice(words[last + 1].start);
    },
    isTown: (text) => TOWN_WORD.test(text),
    withoutTownWord: (text) => text.replace(TOWN_WORD, ""),
    isBroadFirst: BROAD_FIRST.has(code) || line.indexOf("{town}") < line.indexOf("{street"),
  };
}
