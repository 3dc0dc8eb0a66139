import { fold } from "./fold.ts";

/**
 * How people lead up to an address in a sentence, by language, in lower case without accents: `( … )?` may be missing, `~`
 * is any one word. What follows is the address.
 */
const LEADS: Readonly<Record<string, readonly string[]>> = {
  en: [
    "(and |so )?where (is|are|s)",
    "what is (at|the address of)",
    "how (do|can) (i|we|you) (get|go|come|drive|travel|walk)( to)?",
    "how to (get|go|come|drive|travel|walk) to",
    "(please |pls |kindly |can you |could you |i want to |we want to |i need to |i d like to |i would like to )?(send|ship|deliver|post|mail|bring|drive|go|come|navigate|take|move|return|forward)( it| this| that| them| me| us| everything| (the|my|our) ~)? (to|at)",
    "please (find|locate|search for)",
    "show me the way to",
    "(directions|route|way|taxi|ride) (to|from)",
    "map of",
    "(the )?address (is|of|for)",
    "(my|our|his|her|their|the|your)( ~)?( ~)? address is( now)?",
    "(i|we|they|you|he|she) (live|lives|stay|stays|work|works|am|are|is)( now)? (at|in|on)",
    "(i m|we re) (at|in|on)",
    "(pick|meet|drop)( me| us| it)?( up| off)? at",
    "let s meet at",
    "(~ )?(~ )?(~ )?~ (is|are|lives|live|located|based|situated) at",
  ],
  de: [
    "wo (genau )?(ist|liegt|sind|befindet sich|finde ich)",
    "wie (komme|komm|kommen|kommt) (ich|wir|man)( am besten)?( zu| zur| zum| nach)?",
    "(bitte )?(senden|schicken|liefern|versenden|bringen|sende|schicke|liefere)( sie)?( es| das| alles| das paket)?( bitte)? (an|nach|zu|zur|zum|in)",
    "(ich |wir |er |sie )(wohne|wohnen|wohnt|lebe|leben|lebt|arbeite|arbeiten)( jetzt)?",
    "(meine|unsere|die|deine|ihre|seine)( ~)? (adresse|anschrift) (ist|lautet)",
    "(route|weg|fahrt|anfahrt|taxi|lieferung|versand) (nach|zu|zur|zum|an|bis|von)",
    "navigiere( mich)? (nach|zu|zur|zum)",
    "zeige? mir( den weg (nach|zu|zur|zum))?",
  ],
  fr: [
    "ou (est|sont|se trouve|se situe)",
    "comment (aller|venir|se rendre)( au| a la| a)?",
    "(j habite|nous habitons|je travaille)( maintenant)?( au| a)?",
    "(mon|notre|votre|l|ma)( ~)? ?adresse est( le| au)?",
    "(veuillez |merci de )?(livrer|envoyer|expedier|livrez|envoyez)( le colis| ma commande)?( au| a)?",
    "itineraire (vers|pour|jusqu a|jusqu au|depuis)",
  ],
  es: [
    "donde (esta|queda|se encuentra|se ubica)",
    "como (llegar|llego|ir|se llega)( a| al| hasta)?",
    "(yo )?(vivo|vivimos|trabajo|estoy) en",
    "(mi|nuestra|la|su|tu) direccion es",
    "(por favor )?(enviar|envien|entregar|mandar|llevar)( el pedido| el paquete)? (a|en)",
    "(ruta|camino) (a|hasta)",
  ],
  pt: [
    "onde (fica|esta|e|se encontra)",
    "como (chegar|chego|ir)( a| ao| na| no| ate)?",
    "(eu )?(moro|moramos|trabalho|estou)( na| no| em)?",
    "(o )?(meu|nosso|seu) endereco e",
    "(por favor )?(enviar|entregar|mandar|envie|entregue) (para|em|na|no)( a| o)?",
  ],
  it: [
    "dov e",
    "dove (si trova|sta|e)",
    "come (arrivo|arrivare|si arriva|andare)( a| in| alla)?",
    "(abito|abitiamo|vivo|lavoro) (in|a)",
    "(il )?(mio|nostro|suo) indirizzo e",
    "(per favore )?(spedire|spedite|inviare|consegnare|consegnate) (a|in)",
    "indicazioni per",
  ],
  nl: [
    "waar (is|ligt|bevindt zich|vind ik)",
    "hoe kom (ik|je|we)( bij| naar| in| op)?",
    "(ik|wij|we) (woon|wonen|werk|werken)( nu)?( op| in| aan| bij)?",
    "(mijn|ons|het) adres is",
    "(graag |gelieve )?(bezorgen|leveren|versturen|verzenden|sturen) (naar|op|bij|aan)",
    "(route|weg) naar",
  ],
  pl: [
    "gdzie (jest|lezy|znajduje sie)",
    "jak (dojechac|dojsc|trafic)( do| na)?",
    "(mieszkam|pracuje) (przy|na|w)",
    "(moj|nasz) adres to",
    "(prosze )?(wyslac|dostarczyc|wyslij) (na|do|pod)",
    "dojazd do",
  ],
  sv: [
    "var (ar|ligger|finns)",
    "hur kommer (jag|man|vi) till",
    "(jag|vi) (bor|jobbar)( pa| i)?",
    "(min|var) adress ar",
    "(skicka|leverera)( det| paketet)? till",
  ],
  nordic: [
    "hvor (er|ligger)",
    "hvordan kommer (jeg|man|vi) til",
    "(jeg|vi) (bor|arbejder|jobber)( pa| i)?",
    "(min|vores|var) adresse er",
    "(send|lever)( det| pakken)? til",
  ],
  fi: ["missa (on|sijaitsee)", "(miten|kuinka) paasen", "asun( osoitteessa)?", "osoitteeni on"],
  cs: [
    "kde (je|lezi|se nachazi|sa nachadza)",
    "jak se dostanu( na| do| k)?",
    "(bydlim|pracuji|byvam) (v|na)",
    "(moje|nase) adresa (je)",
    "(prosim )?(poslat|dorucit|poslete) (na|do)",
  ],
  hu: ["hol (van|talalhato)", "hogyan jutok el", "a cimem"],
  ro: ["unde (este|e|se afla)", "cum ajung( la| pe)?", "(locuiesc|lucrez) (pe|in|la)", "adresa mea este"],
  el: [
    "που (ειναι|βρισκεται)",
    "πως παω( στη| στο| στην)?",
    "(μενω|μενουμε)( στη| στο| στην| στον)?",
    "η διευθυνση μου ειναι",
  ],
  ru: [
    "где (находится|расположен|расположена)?",
    "как (проехать|пройти|добраться|доехать)( до| на| к)?",
    "(я живу|мы живем|живу)( на| в| по)?",
    "(мои|наш) адрес",
    "(доставить|отправить)( по адресу| на)",
  ],
};

/** The same behind an address. */
const ENDS = [
  "[はって]{0,2}どこ(?:ですか|にありますか)?",
  "(?:은|는|이|가)?\\s?어디(?:에\\s?있나요|예요|인가요|입니까|야)?",
  "在哪[里儿裡]?|怎么走|怎麼走",
  "\\s(?:nerede|nasıl gidilir)",
];

/** What stands for a plain character. */
const LIKE: Readonly<Record<string, string>> = {
  a: "aàáâãäåąă",
  c: "cçćč",
  e: "eéèêëęě",
  i: "iíìîï",
  j: "jй",
  l: "lł",
  n: "nñńň",
  o: "oóòôõöøő",
  r: "rř",
  s: "sśšș",
  t: "tť",
  u: "uúùûüů",
  y: "yý",
  z: "zźżž",
  α: "αά",
  ε: "εέ",
  η: "ηή",
  ι: "ιί",
  ο: "οό",
  υ: "υύ",
  ω: "ωώ",
  и: "ий",
  е: "её",
};
const GAP = "[\\s'’,:.]{1,3}";
const patternOf = (lead: string) =>
  [...lead]
    .map((letter) =>
      letter === "~" ? "[\\p{L}]{1,20}" : letter === " " ? GAP : LIKE[letter] ? `[${LIKE[letter]}]` : letter,
    )
    .join("");

/** The words that a lead can begin with. */
function firstsOf(lead: string): string[] {
  if (!lead.startsWith("("))
    return [lead.split(/[ (]/, 1)[0]].flatMap((word) => [word.replace("?", ""), word.replace(/.\?/, "")]);
  const end = lead.indexOf(")");
  const firsts = lead.slice(1, end).split("|").flatMap(firstsOf);
  return lead[end + 1] === "?" ? [...firsts, ...firstsOf(lead.slice(end + 2))] : firsts;
}

/** Leads by their first words; those of any word have none. */
let known: { firsts: ReadonlySet<string>; lead: RegExp } | undefined;
function leads(): NonNullable<typeof known> {
  if (known) return known;
  const all = Object.values(LEADS).flat();
  const pattern = `^[\\s¿¡"'(]*(?:${all.map(patternOf).join("|")})(?:[\\s:,]+)(?=[^\\s])`;
  const firsts = new Set(all.flatMap(firstsOf).map((word) => fold(word).text));
  known = { firsts, lead: new RegExp(pattern, "iu") };
  return known;
}

const FIRST = /^[\s¿¡"'(]*(\p{L}+)/u;
const ANY = /\p{L} at\s/iu;
const behind = new RegExp(`(?:${ENDS.join("|")})[\\s?？!。.]*$`, "iu");
const MAY_END = /[どこ어哪么麼]|nered|nasıl/u;

/**
 * A text that asks for an address, or tells of one in a sentence, with nothing left but the address: "Where is …?", "I live
 * at …". What goes becomes spaces.
 */
export function withoutLeadIn(text: string): string {
  const first = FIRST.exec(text)?.[1];
  const mayLead = first && (leads().firsts.has(fold(first).text) || ANY.test(text));
  const from = mayLead ? (leads().lead.exec(text)?.[0].length ?? 0) : 0;
  const end = MAY_END.test(text) ? behind.exec(text) : undefined;
  const rest = text.slice(from, end?.index);
  return from || end ? (" ".repeat(from) + rest).padEnd(text.length) : text;
}
