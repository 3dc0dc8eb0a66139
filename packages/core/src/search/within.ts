import type { Lexicon, NumberRole, Token } from "../text/index.ts";

/** What a word is: of a number, the word for it, or part of no name. */
export interface Role {
  role?: NumberRole;
  isLabel?: boolean;
  /** True for what is part of no name. */
  isAside?: boolean;
}

/** Ordinals and Roman numbers of floors. */
const ROMAN = /^(?:i{1,3}|iv|vi{0,3}|ix|x)$/;
/** "2F1", as in Scotland; "H0201", as in Norway. */
const CODE = /^(?:\d+f\d+|[hukl]\d{4})$/;

/**
 * What stands behind a house's number, or between separators, and tells what of the house is meant, with words that mean
 * other things elsewhere: "9 Haus 3", "9 Hinterhaus", "17 3º B", "20 Mill Drive Rear". Read from the end of each stretch
 * on, for as long as every word can be taken so.
 */
export function readWithin(words: readonly Token[], roles: Role[], lexicon: Lexicon): void {
  const isNumber = (i: number) => words[i].kind === "number" && !words[i].sign && !roles[i].role;
  for (let from = 0, to = 0; from < words.length; from = to) {
    for (to = from + 1; to < words.length && !words[to].isParted; ) to++;
    const run = new Run(words, roles, lexicon, from, to);
    const { start } = run;
    if (start === to || !run.isNew) continue;
    // behind the number, or behind the street with the number before it
    const house = words.findIndex((_, i) => i >= from && i < start && isNumber(i));
    const isAfterComma = from > 0 && !words.slice(0, from).some((_, i) => isNumber(i));
    const isBehind = house >= 0 && (house > from || isAfterComma || (start > house + 1 && run.mayFollowStreet));
    const isApart = start === from && run.hasNumber && words.some((_, i) => (i < from || i >= to) && isNumber(i));
    if (isBehind || isApart)
      run.roles.forEach((role, i) => {
        roles[start + i] = role;
      });
  }
}

/** The longest run of such words at the end of a stretch. */
class Run {
  /** Where it begins. */
  start: number;
  /** What its words are. */
  readonly roles: Role[] = [];
  /** True where one of them had no role before. */
  isNew = false;
  /** True where a number or a letter identifies one of several. */
  hasNumber = false;
  /** True where it may stand behind a street's name as well, rather than behind the number. */
  mayFollowStreet = true;
  /** How many words at its beginning need something before them. */
  #pending = 0;

  /** @param from where the stretch begins; `to` is behind its last word */
  constructor(
    private readonly words: readonly Token[],
    private readonly given: readonly Role[],
    private readonly lexicon: Lexicon,
    private readonly from: number,
    to: number,
  ) {
    this.start = to;
    while (this.start > from) {
      if (this.#takeGiven() || this.#takeNumbered() || this.#takeFloor() || this.#takeAlone()) this.#pending = 0;
      else if (!this.#takeBehind()) break;
    }
    this.roles.splice(0, this.#pending);
    this.start += this.#pending;
  }

  /** The word before the run, or some words further back. */
  #before(back: number): Token | undefined {
    return this.start - back < this.from ? undefined : this.words[this.start - back];
  }

  #take(...roles: Role[]): true {
    this.start -= roles.length;
    this.roles.unshift(...roles);
    return true;
  }

  /** What has such a role by itself. */
  #takeGiven(): boolean {
    const given = this.given[this.start - 1];
    if (given.role !== "unit" && given.role !== "floor" && !given.isAside) return false;
    this.hasNumber ||= !given.isLabel;
    const isSecond = given.role === "unit" && !given.isLabel && this.#hasUnit();
    this.isNew ||= isSecond;
    return this.#take(isSecond ? { role: "unit", isLabel: true } : given);
  }

  /** "Bldg C", "Haus 3", "2F1". */
  #takeNumbered(): boolean {
    const [label, word] = [this.#before(2), this.words[this.start - 1]];
    const isCode = CODE.test(word.text);
    const isNumbered = label && this.lexicon.isBeforeWithin(label.text) && isIdentifier(word);
    if (!isCode && !isNumbered) return false;
    this.isNew = this.hasNumber = true;
    return isCode ? this.#take(this.#unit()) : this.#take({ role: "unit", isLabel: true }, this.#unit());
  }

  /** Of several the last is the unit: "scala B int. 4", "Building 4 Apt 12". */
  #unit(): Role {
    return this.#hasUnit() ? { role: "unit", isLabel: true } : { role: "unit" };
  }

  #hasUnit(): boolean {
    return this.roles.some(({ role, isLabel }) => role === "unit" && !isLabel);
  }

  /** "3º B", "4ºC", "first floor", "II piętro". */
  #takeFloor(): boolean {
    const [before, word] = [this.#before(2), this.words[this.start - 1]];
    const isLevel = ({ text, sign }: Token) =>
      sign === "º" || ROMAN.test(text) || this.lexicon.otherForms(text).some((form) => /^\d/.test(form));
    if (word.sign === "º" && word.kind === "number") this.#take({ role: "floor" });
    else if (before?.sign === "º" && before.kind === "number" && word.text.length === 1)
      this.#take({ role: "floor" }, this.#unit());
    else if (before && (isLevel(before) || this.#isSecond(this.start - 2)) && this.lexicon.isAfterWithin(word.text))
      this.#take({ role: "floor" }, { role: "floor", isLabel: true });
    else return false;
    this.isNew = this.hasNumber = true;
    return true;
  }

  /** "15 1. p.": a number behind another. */
  #isSecond(at: number): boolean {
    if (this.words[at].kind !== "number") return false;
    for (let i = this.from; i < at; i++) if (this.words[i].kind === "number" && !this.given[i].role) return true;
    return false;
  }

  /** "Hinterhaus", "fond de cour"; "bajo A". */
  #takeAlone(): boolean {
    const last = this.words[this.start - 1];
    const phrase = this.#phraseAt(this.start);
    const labels = (count: number) => Array.from({ length: count }, (): Role => ({ role: "unit", isLabel: true }));
    if (phrase) {
      this.isNew = true;
      return this.#take(this.#unit(), ...labels(phrase - 1));
    }
    const before = last.text.length === 1 ? this.#phraseAt(this.start - 1) : 0;
    if (!before) return false;
    this.isNew = this.hasNumber = true;
    return this.#take(...labels(before), this.#unit());
  }

  /** How many words before a place are such a phrase; 0 where none. */
  #phraseAt(end: number): number {
    if (end <= this.from) return 0;
    const isThere = (phrase: readonly string[]) =>
      phrase.length <= end - this.from && phrase.every((word, i) => this.words[end - phrase.length + i].text === word);
    const fitting = this.lexicon.aloneWithin(this.words[end - 1].text).filter(isThere);
    if (fitting.length) this.mayFollowStreet &&= fitting.some((phrase) => this.lexicon.mayFollowStreet(phrase));
    return Math.max(0, ...fitting.map(({ length }) => length));
  }

  /** "EG links", "Ground Floor Flat", "Apt. 12-C": a word behind what can be taken. */
  #takeBehind(): boolean {
    const word = this.words[this.start - 1];
    const isLetter = word.text.length === 1 && this.#before(2) && this.given[this.start - 2].role === "unit";
    if (!isLetter && !this.lexicon.isAfterWithin(word.text)) return false;
    this.#pending++;
    this.isNew = true;
    return this.#take({ role: "unit", isLabel: true });
  }
}

/** A number, a letter, or some characters with a digit: "4", "C", "B2". */
const isIdentifier = ({ kind, text, sign }: Token) =>
  (kind === "number" && !sign) || text.length === 1 || (text.length < 4 && /\d/.test(text));
