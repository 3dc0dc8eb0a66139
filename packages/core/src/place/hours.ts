import type { OpeningHours } from "./kinds.ts";

/** Days of the week as schema.org has them. */
export const WEEK = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** Days in two letters, which every language knows from tables. */
const SHORT = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];

/** Hours in one line, as tables write them: `Mo-Fr 09:00-17:00; Sa 10:00-12:00`. What {@link readHours} reads. */
export function hoursLine(hours: readonly OpeningHours[]): string {
  const short = (day: string) => SHORT[(WEEK as readonly string[]).indexOf(day)] ?? day;
  return hours
    .map(({ dayOfWeek, opens, closes }) => {
      const from = (WEEK as readonly string[]).indexOf(dayOfWeek[0]);
      const isRun = dayOfWeek.length > 2 && dayOfWeek.every((day, i) => WEEK[from + i] === day);
      const days = isRun
        ? `${short(dayOfWeek[0])}-${short(dayOfWeek[dayOfWeek.length - 1])}`
        : dayOfWeek.map(short).join(",");
      return `${days} ${opens}-${closes}`;
    })
    .join("; ");
}

/**
 * Hours of some days for people: `Monday–Friday 09:00–17:00`.
 * @param nameOf what a day is called; its English name when not given
 */
export function hoursText({ dayOfWeek, opens, closes }: OpeningHours, nameOf = (day: string) => day): string {
  const from = (WEEK as readonly string[]).indexOf(dayOfWeek[0]);
  const isRun = dayOfWeek.length > 2 && dayOfWeek.every((day, i) => WEEK[from + i] === day);
  const names = dayOfWeek.map(nameOf);
  const days = isRun ? `${names[0]}–${names[names.length - 1]}` : names.join(", ");
  return `${days} ${opens}–${closes}`;
}

/** Hours that were read; or nothing, and why, where that is more than that they have another form. */
export type ReadHours = { hours: OpeningHours[] } | { hours?: undefined; why?: string };

interface Span {
  opens: number;
  closes: number;
}

/**
 * Reads opening hours in the common ways of writing them: `Mo-Fr 09:00-17:00; Sa 10-12`, `Monday to Friday, 9 am – 5 pm`,
 * `lun.–ven. 9h-12h, 14h-18h30`, `24/7`, a JSON of schema.org. Hours that contradict each other are none.
 * @param langs languages whose words for days may stand there beside English ones, the likeliest first
 */
export function readHours(text: string, langs: readonly string[] = []): ReadHours {
  const written = text.trim();
  if (/^[[{]/.test(written)) return readJson(written);
  if (/^24\s*\/\s*7$/.test(written)) return { hours: [{ dayOfWeek: [...WEEK], opens: "00:00", closes: "23:59" }] };
  const tokens = tokensOf(written, langs);
  return tokens ? readTokens(tokens) : {};
}

type Token =
  | { is: "day"; day: number }
  | { is: "days"; days: number[] }
  | { is: "time"; hour: number; minute: number; half?: "am" | "pm"; isBare: boolean }
  | { is: "to" | "and" | "end" | "shut" };

/** Words for days by language, Monday first: in full, and abbreviated in the usual ways. */
const DAY_WORDS: Readonly<Record<string, string>> = {
  en: "monday mon mo|tuesday tues tue tu|wednesday wed we|thursday thurs thur thu th|friday fri fr|saturday sat sa|sunday sun su",
  de: "montag mo|dienstag di|mittwoch mi|donnerstag do|freitag fr|samstag sonnabend sa|sonntag so",
  fr: "lundi lun lu|mardi mar ma|mercredi mer me|jeudi jeu je|vendredi ven ve|samedi sam sa|dimanche dim di",
  es: "lunes lun lu l|martes mar ma|miercoles mie mi x|jueves jue ju j|viernes vie vi v|sabado sab sa s|domingo dom do d",
  it: "lunedi lun lu|martedi mar ma|mercoledi mer me|giovedi gio gi|venerdi ven ve|sabato sab sa|domenica dom do",
  pt: "segunda segunda-feira seg 2a|terca terca-feira ter 3a|quarta quarta-feira qua 4a|quinta quinta-feira qui 5a|sexta sexta-feira sex 6a|sabado sab|domingo dom",
  nl: "maandag maa ma|dinsdag din di|woensdag woe wo|donderdag don do|vrijdag vrij vr|zaterdag zat za|zondag zon zo",
  pl: "poniedzialek pon pn|wtorek wt|sroda sr|czwartek czw cz|piatek pt pia|sobota sob so|niedziela niedz nd ndz",
  sv: "mandag man ma|tisdag tis ti|onsdag ons on|torsdag tors tor to|fredag fre fr|lordag lor lo|sondag son so",
  da: "mandag man ma|tirsdag tirs tir ti|onsdag ons on|torsdag tors tor to|fredag fre fr|lordag lor lo|sondag son so",
  nb: "mandag man ma|tirsdag tirs tir ti|onsdag ons on|torsdag tors tor to|fredag fre fr|lordag lor lo|sondag son so",
  cs: "pondeli po|utery ut|streda st|ctvrtek ct|patek pa|sobota so|nedele ne",
  el: "δευτερα δευ δε|τριτη τρι τρ|τεταρτη τετ τε|πεμπτη πεμ πε|παρασκευη παρ πα|σαββατο σαβ σα|κυριακη κυρ κυ",
};
const EVERY_DAY =
  /^(?:daily|everyday|taglich|quotidien|diario|diariamente|giornaliero|dagelijks|codziennie|dagligen|daglig|denne|καθημερινα)$/;
const SHUT =
  /^(?:closed|off|geschlossen|zu|ferme|fermee|cerrado|chiuso|fechado|encerrado|gesloten|zamkniete|stangt|lukket|stengt|zavreno|κλειστα|κλειστο)$/;
const TO = /^(?:to|till|until|through|thru|bis|au|jusqu'a|al|a|fino|ate|tot|t\/m|do|till|til|kl|az|εως|ως|μεχρι)$/;
const AND = /^(?:and|und|et|y|e|en|i|och|og|a|και|u)$/;
/** Words that say nothing: "from 9 to 17 o'clock", "open". */
const EMPTY =
  /^(?:from|von|ab|de|du|des|dalle|das|van|od|fran|fra|open|opened|opening|hours|geoffnet|ouvert|abierto|aperto|aberto|geopend|otwarte|oppet|aben|apent|otevreno|ανοικτα|uhr|h|hs|hrs|uur|o'clock|oclock|le|la|les|el|los|il|as|klo|kl|godz|horas|heures|ore|hodin|v|od)$/;

/** The day that a word is, by the languages that it may be of; undefined for none, or where they differ. */
function dayOf(word: string, langs: readonly string[]): number | undefined {
  const day = dayAmong(word, langs);
  if (day !== undefined) return day;
  const others = new Set(Object.keys(DAY_WORDS).flatMap((lang) => dayIn(word, lang) ?? []));
  // a word that is Saturday in one language and Sunday in another is neither
  return others.size === 1 ? [...others][0] : undefined;
}

/** The same by these languages and English alone. */
function dayAmong(word: string, langs: readonly string[]): number | undefined {
  const known = langs.map((lang) => lang.toLowerCase().split("-")[0]).filter((lang) => lang in DAY_WORDS);
  for (const lang of [...known, "en"]) {
    const day = dayIn(word, lang);
    if (day !== undefined) return day;
  }
  return undefined;
}

const tables = new Map<string, ReadonlyMap<string, number>>();
function dayIn(word: string, lang: string): number | undefined {
  let table = tables.get(lang);
  if (!table) {
    table = new Map(
      DAY_WORDS[lang].split("|").flatMap((words, day) => words.split(" ").map((one): [string, number] => [one, day])),
    );
    tables.set(lang, table);
  }
  return table.get(word);
}

/** @returns undefined where a text has neither days nor hours */
function tokensOf(text: string, langs: readonly string[]): Token[] | undefined {
  const plain = text
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/ł/g, "l")
    .replace(/ø/g, "o")
    .replace(/[\u2010-\u2015\u2212~]/g, "-")
    .replace(/’/g, "'")
    .replace(/\b(?:a|p)\.\s?m\.?/g, (half) => `${half[0]}m`)
    .replace(
      /\b(?:every day|jeden tag|tous les jours|todos los dias|todos os dias|tutti i giorni|elke dag|alle dage|alla dagar|hver dag)\b/g,
      "daily",
    )
    .replace(/\b(\p{L}+)\s*-\s*feira\b/gu, "$1-feira");
  const tokens: Token[] = [];
  const pattern =
    /(\d{1,2})(?:[:.hu](\d{2})|[hu])?(?:\s*(am|pm))?(?![\d:]|\p{L})|(\d{2})(\d{2})(?![\d:]|\p{L})|(t\/m|[\p{L}']+(?:-feira)?|[2-6]a)\.?|([-])|([,&+/])|([;|\n])|(:)|\s+/guy;
  let at = 0;
  while (at < plain.length) {
    pattern.lastIndex = at;
    const found = pattern.exec(plain);
    if (!found) return undefined;
    at = pattern.lastIndex;
    const [, hour, minutes, half, hours4, minutes4, word, dash, comma, end] = found;
    if (hour !== undefined || hours4 !== undefined) {
      const time = { hour: Number(hour ?? hours4), minute: Number(minutes ?? minutes4 ?? 0) };
      if (time.hour > 24 || time.minute > 59) return undefined;
      const isBare = minutes === undefined && minutes4 === undefined;
      tokens.push({ is: "time", ...time, ...(half ? { half: half as "am" | "pm" } : {}), isBare });
    } else if (dash) tokens.push({ is: "to" });
    else if (comma) tokens.push({ is: "and" });
    else if (end) tokens.push({ is: "end" });
    else if (word !== undefined) {
      const token = wordToken(word, langs, tokens.at(-1));
      if (!token) return undefined;
      if (token !== "nothing") tokens.push(token);
    }
  }
  return tokens;
}

function wordToken(word: string, langs: readonly string[], before: Token | undefined): Token | "nothing" | undefined {
  // "do" is Thursday after nothing, and "to" between two of a kind
  const isBetween = before?.is === "day" || before?.is === "time";
  const isAnd = word === "a" && /^(?:cs|sk)\b/.test(langs[0] ?? "");
  if (isBetween && !isAnd && TO.test(word) && (before.is === "time" || dayAmong(word, langs) === undefined))
    return { is: "to" };
  const day = dayOf(word, langs);
  if (day !== undefined) return { is: "day", day };
  if (EVERY_DAY.test(word)) return { is: "days", days: [0, 1, 2, 3, 4, 5, 6] };
  if (SHUT.test(word)) return { is: "shut" };
  if (EMPTY.test(word)) return "nothing";
  if (AND.test(word)) return { is: "and" };
  return undefined;
}

/** Days and then their hours, again and again. */
function readTokens(tokens: readonly Token[]): ReadHours {
  const open: Span[][] = WEEK.map(() => []);
  const said = new Set<number>();
  const hours: OpeningHours[] = [];
  let at = 0;
  const is = (kind: Token["is"]) => tokens[at]?.is === kind;
  const skip = (...kinds: Token["is"][]) => {
    while (kinds.some(is)) at++;
  };
  skip("end", "and");
  while (at < tokens.length) {
    const days = readDays();
    if (!days?.length) return {};
    skip("and");
    if (is("shut")) {
      at++;
      // "daily 9 to 17, closed on Tuesday"
      for (const day of days) {
        said.add(day);
        open[day] = [];
        for (const one of hours) one.dayOfWeek = one.dayOfWeek.filter((other) => other !== WEEK[day]);
      }
    } else {
      const spans = readSpans();
      if (!spans?.length) return {};
      for (const day of days) {
        const isClosed = said.has(day) && !open[day].length;
        if (isClosed || spans.some((span) => open[day].some((other) => overlap(span, other))))
          return contradiction(day);
        said.add(day);
        open[day].push(...spans);
      }
      for (const { opens, closes } of spans)
        hours.push({ dayOfWeek: days.map((day) => WEEK[day]), opens: clock(opens), closes: clock(closes) });
    }
    skip("end", "and");
  }
  const left = hours.filter(({ dayOfWeek }) => dayOfWeek.length);
  return left.length ? { hours: left } : {};

  function readDays(): number[] | undefined {
    const days: number[] = [];
    for (;;) {
      const token = tokens[at];
      if (token?.is === "days") days.push(...token.days);
      else if (token?.is !== "day") return days.length ? days : undefined;
      else if (tokens[at + 1]?.is === "to" && tokens[at + 2]?.is === "day") {
        const last = (tokens[at + 2] as Token & { is: "day" }).day;
        for (let day = token.day; ; day = (day + 1) % 7) {
          days.push(day);
          if (day === last) break;
        }
        at += 2;
      } else days.push(token.day);
      at++;
      if (new Set(days).size < days.length) return undefined;
      if (is("and") && (tokens[at + 1]?.is === "day" || tokens[at + 1]?.is === "days")) at++;
      else if (!is("day")) return days;
    }
  }

  function readSpans(): Span[] | undefined {
    const spans: Span[] = [];
    for (;;) {
      const [from, to, until] = [tokens[at], tokens[at + 1], tokens[at + 2]];
      if (from?.is !== "time") return spans;
      if (to?.is !== "to" || until?.is !== "time") return undefined;
      const span = spanOf(from, until);
      if (!span || spans.some((other) => overlap(span, other))) return undefined;
      spans.push(span);
      at += 3;
      if (is("and") && tokens[at + 1]?.is === "time") at++;
      else if (!is("time")) return spans;
    }
  }
}

const contradiction = (day: number): ReadHours => ({ why: `two things are said of ${WEEK[day]}` });

/** Minutes of a span; undefined for one of which nobody can say what is meant, such as 9 to 5. */
function spanOf(from: Token & { is: "time" }, until: Token & { is: "time" }): Span | undefined {
  let { half: first } = from;
  let { half: last } = until;
  if (last && !first) first = last === "pm" && from.hour < until.hour && until.hour !== 12 ? "pm" : "am";
  if (first && !last) last = "pm";
  if ((first && (from.hour < 1 || from.hour > 12)) || (last && (until.hour < 1 || until.hour > 12))) return undefined;
  const minutes = ({ hour, minute }: { hour: number; minute: number }, half: "am" | "pm" | undefined) =>
    (half ? (hour % 12) + (half === "pm" ? 12 : 0) : hour) * 60 + minute;
  const [opens, closes] = [minutes(from, first), minutes(until, last)];
  if (opens >= 24 * 60 || closes > 24 * 60 || opens === closes) return undefined;
  // into the night; what looks like the afternoon by another clock is not guessed at
  if (closes < opens && !first && opens < 15 * 60) return undefined;
  return { opens, closes };
}

/** Into the night a span goes on over the end of the day. */
const end = ({ opens, closes }: Span) => (closes < opens ? closes + 24 * 60 : closes);
const overlap = (a: Span, b: Span) => a.opens < end(b) && b.opens < end(a);

const two = (value: number) => String(value).padStart(2, "0");
/** A moment of the day; its end is its last minute. */
const clock = (minutes: number) =>
  minutes === 24 * 60 ? "23:59" : `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`;

/** A list of schema.org's `OpeningHoursSpecification`, or a text or list of texts of its `openingHours`. */
function readJson(text: string): ReadHours {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return {};
  }
  const list = (Array.isArray(value) ? value : [value]).slice(0, 100);
  if (list.every((one) => typeof one === "string")) return readHours(list.join("; "));
  const lines = list.map((one) => {
    const { dayOfWeek, opens, closes } = (one ?? {}) as Record<string, unknown>;
    const days = [dayOfWeek].flat().map((day) => String(day).replace(/^https?:\/\/schema\.org\//, ""));
    const isRead = days.every((day) => (WEEK as readonly string[]).includes(day)) && isClock(opens) && isClock(closes);
    return isRead ? `${days.join(",")} ${opens.slice(0, 5)}-${closes.slice(0, 5)}` : undefined;
  });
  return lines.some((line) => line === undefined) ? {} : readHours(lines.join("; "));
}

const isClock = (value: unknown): value is string => typeof value === "string" && /^\d{2}:\d{2}(:00)?$/.test(value);
