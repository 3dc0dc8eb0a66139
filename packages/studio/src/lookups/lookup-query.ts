import { PARTS } from "@bibliotope/core/place";

/** The kinds of lookup, by the word of the wire that each is called with. */
export const CALLS = ["suggest", "forward", "reverse", "records", "postcodes", "distance"] as const;
export type Call = (typeof CALLS)[number];

/** A lookup as it is requested: the call, what is in the path, and the words of the query string. */
export interface LookupQuery {
  call: Call;
  /** A ref, or a country. */
  of?: string;
  words: Readonly<Record<string, string>>;
}

/** The summary of each call, and the parameter for what is typed. */
export const ABOUT: Readonly<
  Record<Call, { name: string; main: string; of?: string; hint: string; example: LookupQuery }>
> = {
  suggest: {
    name: "Suggest",
    main: "q",
    hint: "The start of an address or place, as the user types it",
    example: { call: "suggest", words: { q: "12 harb" } },
  },
  forward: {
    name: "Forward",
    main: "q",
    hint: "An address or place, in any order and spelling",
    example: { call: "forward", words: { q: "12b the harbor rw tidewel HT9 29", gloss: "1" } },
  },
  reverse: {
    name: "Reverse",
    main: "at",
    hint: "LAT,LON, or click the map",
    example: { call: "reverse", words: { at: "-35.1841,-21.6253" } },
  },
  records: {
    name: "Record",
    main: "",
    of: "A ref, such as qr-t0613p",
    hint: "",
    example: { call: "records", of: "qr-t0613p", words: {} },
  },
  postcodes: {
    name: "Postcodes",
    main: "starts",
    of: "Country",
    hint: "A postcode, or the start of one",
    example: { call: "postcodes", of: "QR", words: { starts: "HT0" } },
  },
  distance: {
    name: "Distance",
    main: "from",
    hint: "LAT,LON",
    example: { call: "distance", words: { from: "-35.1841,-21.6253", to: "-36.6,-22.6" } },
  },
};

/** Words that narrow a call down or change its answer, in the order in which they are shown. */
export const NARROWING: Readonly<Record<Call, readonly string[]>> = {
  suggest: ["countries", "kinds", "inside", "box", "near", "lang", "limit"],
  forward: ["countries", "kinds", "inside", "box", "near", "lang", "facts", "height", "limit"],
  reverse: ["radius", "countries", "kinds", "inside", "lang", "facts", "height", "limit"],
  records: ["facts", "height", "lang"],
  postcodes: ["lang", "limit"],
  distance: [],
};

const hasPath = (call: Call) => call === "records" || call === "postcodes";

/** A lookup as it is behind `/v1/`: what is kept of it, and what the address of this view ends with. */
export function writeQuery({ call, of, words }: LookupQuery): string {
  const path = hasPath(call) ? `${call}/${encodeURIComponent(of ?? "")}` : call;
  const said = Object.entries(words).filter(([, value]) => value !== "");
  // a suggestion is always asked with a text, be it empty: what is inside a street, say
  const query = new URLSearchParams(call === "suggest" && !words.q ? [["q", ""], ...said] : said);
  // a comma means itself in a query string, and lists and positions are easier to read with it
  return `${path}?${String(query).replaceAll("%2C", ",")}`;
}

/** Reads what {@link writeQuery} wrote; undefined for what is no lookup. */
export function readQuery(text: string): LookupQuery | undefined {
  const [path, query = ""] = text.split("?", 2);
  const [name, of] = path.split("/", 2);
  const call = CALLS.find((known) => known === name);
  if (!call) return undefined;
  const { q = "", ...others } = Object.fromEntries(new URLSearchParams(query));
  const words = q === "" ? others : { q, ...others };
  return hasPath(call) ? { call, of: safelyDecoded(of ?? ""), words } : { call, words };
}

function safelyDecoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** True when there is something to ask with. */
export function canAsk({ call, of, words }: LookupQuery): boolean {
  if (call === "records") return Boolean(of?.trim());
  if (call === "postcodes") return Boolean(of && words.starts?.trim());
  if (call === "distance") return Boolean(words.from?.trim() && words.to?.trim());
  if (call === "reverse") return Boolean(words.at?.trim());
  return Boolean(words.q?.trim() || words.inside || PARTS.some((part) => words[part]?.trim()));
}

/** The same lookup with a word changed; an empty one is taken away. */
export function withWord(query: LookupQuery, name: string, value: string): LookupQuery {
  const { [name]: _, ...others } = query.words;
  return { ...query, words: value === "" ? others : { ...others, [name]: value } };
}

/** The lookup as another call: what it was called with goes along where the other call takes it too. */
export function asCall(query: LookupQuery, call: Call): LookupQuery {
  const kept = Object.entries(query.words).filter(
    ([name]) => NARROWING[call].includes(name) || (name === ABOUT[call].main && name === ABOUT[query.call].main),
  );
  const words: Record<string, string> = Object.fromEntries(kept);
  if (call === "forward") words.gloss = "1";
  if (call === "distance" && query.words.at) words.from = query.words.at;
  if (call === "reverse" && query.words.from) words.at = query.words.from;
  return { call, ...(call === "postcodes" ? { of: query.of?.length === 2 ? query.of : "QR" } : {}), words };
}

export type Code = "curl" | "fetch" | "kit";

/** The same request as code that works as pasted, once the key is put in. @param origin where the service is */
export function codeOf(query: LookupQuery, code: Code, origin: string): string {
  const url = `${origin}/v1/${writeQuery(query).replace(/\?$/, "")}`;
  if (code === "curl") return `curl -H "Authorization: Bearer $KEY" \\\n  '${url.replaceAll("'", "%27")}'`;
  if (code === "fetch") {
    return [
      `const response = await fetch(${JSON.stringify(url)}, {`,
      // biome-ignore lint/suspicious/noTemplateCurlyInString: code to copy, whose own string has the placeholder
      "  headers: { Authorization: `Bearer ${key}` },",
      "});",
      "if (!response.ok) throw new Error((await response.json()).detail);",
      "const answer = await response.json();",
    ].join("\n");
  }
  return [
    'import { Client } from "@bibliotope/kit/client";',
    "",
    `const client = new Client({ key, url: ${JSON.stringify(origin)} });`,
    `const answer = await client.${kitCall(query)};`,
  ].join("\n");
}

function kitCall({ call, of, words }: LookupQuery): string {
  const { q, at, ...narrowing } = words;
  const rest = Object.keys(narrowing).length ? `, ${JSON.stringify(narrowing)}` : "";
  if (call === "suggest") return `suggest(${JSON.stringify(q ?? "")}${rest})`;
  if (call === "forward") return `forward(${JSON.stringify(words)})`;
  if (call === "reverse") {
    const [lat, lon] = (at ?? "").split(",").map(Number);
    return `reverse(${JSON.stringify({ lat, lon })}${rest})`;
  }
  const path = JSON.stringify(of ?? "");
  if (call === "records") return `record(${path}${rest})`;
  if (call === "postcodes") return `postcodes(${path}, ${JSON.stringify(words)})`;
  const [from, to] = [words.from, words.to].map((text) => {
    const [lat, lon] = (text ?? "").split(",").map(Number);
    return JSON.stringify({ lat, lon });
  });
  return `distance(${from}, ${to})`;
}
