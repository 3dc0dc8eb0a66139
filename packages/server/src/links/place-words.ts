import { isRightToLeft } from "@bibliotope/core/map";

/** The texts of a public page, in one language. */
interface PlaceWords {
  address: string;
  hours: string;
  phone: string;
  page: string;
  stepFree: string;
  yes: string;
  no: string;
  languages: string;
  position: string;
  open: string;
  elsewhere: string;
  /** Of the picture; {title} in it. */
  around: string;
  code: string;
  /** {day} in it. */
  until: string;
}

/** The texts of a page in the languages of the kit. */
const WORDS: Readonly<Record<string, PlaceWords>> = {
  en: {
    ...{ address: "Address", hours: "Opening hours", phone: "Telephone", page: "Web page" },
    ...{ stepFree: "Step-free access", yes: "Yes", no: "No", languages: "Languages", position: "Position" },
    open: "Open in a map app",
    elsewhere: "If none opens, enter the position below in one.",
    ...{ around: "Map around {title}", code: "QR code for this page" },
    until: "Anyone with this link can see this page until {day}.",
  },
  de: {
    ...{ address: "Adresse", hours: "Öffnungszeiten", phone: "Telefon", page: "Webseite" },
    ...{ stepFree: "Stufenloser Zugang", yes: "Ja", no: "Nein", languages: "Sprachen", position: "Position" },
    open: "In einer Karten-App öffnen",
    elsewhere: "Wenn keine antwortet, geben Sie die Position in eine ein: Sie steht unten.",
    ...{ around: "Karte um {title}", code: "Diese Seite als Code für Kameras" },
    until: "Diese Seite kann sehen, wer ihre Adresse hat, bis zum {day}.",
  },
  fr: {
    ...{ address: "Adresse", hours: "Horaires d’ouverture", phone: "Téléphone", page: "Page web" },
    ...{ stepFree: "Accès sans marche", yes: "Oui", no: "Non", languages: "Langues", position: "Position" },
    open: "Ouvrir dans une application de cartes",
    elsewhere: "Si aucune ne répond, saisissez-y la position indiquée ci-dessous.",
    ...{ around: "Carte autour de {title}", code: "Cette page sous forme de code pour appareil photo" },
    until: "Cette page est visible par quiconque a son adresse, jusqu’au {day}.",
  },
  es: {
    ...{ address: "Dirección", hours: "Horario", phone: "Teléfono", page: "Página web" },
    ...{ stepFree: "Acceso sin escalones", yes: "Sí", no: "No", languages: "Idiomas", position: "Posición" },
    open: "Abrir en una aplicación de mapas",
    elsewhere: "Si ninguna responde, escriba en una la posición que figura abajo.",
    ...{ around: "Mapa de los alrededores de {title}", code: "Esta página como código para cámaras" },
    until: "Puede ver esta página quien tenga su dirección, hasta el {day}.",
  },
  it: {
    ...{ address: "Indirizzo", hours: "Orari di apertura", phone: "Telefono", page: "Pagina web" },
    ...{ stepFree: "Accesso senza gradini", yes: "Sì", no: "No", languages: "Lingue", position: "Posizione" },
    open: "Apri in un'app di mappe",
    elsewhere: "Se nessuna risponde, inserisci in una la posizione scritta sotto.",
    ...{ around: "Mappa intorno a {title}", code: "Questa pagina come codice per fotocamere" },
    until: "Chi ha l'indirizzo di questa pagina può vederla, fino al {day}.",
  },
  nl: {
    ...{ address: "Adres", hours: "Openingstijden", phone: "Telefoon", page: "Webpagina" },
    ...{ stepFree: "Toegang zonder drempels", yes: "Ja", no: "Nee", languages: "Talen", position: "Positie" },
    open: "Openen in een kaarten-app",
    elsewhere: "Reageert er geen, voer dan de positie in die hieronder staat.",
    ...{ around: "Kaart rond {title}", code: "Deze pagina als code voor camera's" },
    until: "Wie het adres van deze pagina heeft, kan haar zien, tot {day}.",
  },
  pl: {
    ...{ address: "Adres", hours: "Godziny otwarcia", phone: "Telefon", page: "Strona internetowa" },
    ...{ stepFree: "Dostęp bez schodów", yes: "Tak", no: "Nie", languages: "Języki", position: "Położenie" },
    open: "Otwórz w aplikacji z mapami",
    elsewhere: "Jeśli żadna się nie otworzy, wpisz w niej położenie podane poniżej.",
    ...{ around: "Mapa okolicy: {title}", code: "Ta strona jako kod do aparatu" },
    until: "Tę stronę widzi każdy, kto ma jej adres, do {day}.",
  },
  pt: {
    ...{ address: "Endereço", hours: "Horário", phone: "Telefone", page: "Página web" },
    ...{ stepFree: "Acesso sem degraus", yes: "Sim", no: "Não", languages: "Línguas", position: "Posição" },
    open: "Abrir numa aplicação de mapas",
    elsewhere: "Se nenhuma responder, introduza nela a posição escrita abaixo.",
    ...{ around: "Mapa em volta de {title}", code: "Esta página como código para câmaras" },
    until: "Quem tiver o endereço desta página pode vê-la até {day}.",
  },
  el: {
    ...{ address: "Διεύθυνση", hours: "Ώρες λειτουργίας", phone: "Τηλέφωνο", page: "Ιστοσελίδα" },
    ...{ stepFree: "Πρόσβαση χωρίς σκαλοπάτια", yes: "Ναι", no: "Όχι", languages: "Γλώσσες", position: "Θέση" },
    open: "Άνοιγμα σε εφαρμογή χαρτών",
    elsewhere: "Αν δεν ανοίξει καμία, γράψτε σε μία τη θέση που φαίνεται παρακάτω.",
    ...{ around: "Χάρτης γύρω από: {title}", code: "Αυτή η σελίδα ως κωδικός για κάμερες" },
    until: "Αυτή τη σελίδα τη βλέπει όποιος έχει τη διεύθυνσή της, έως {day}.",
  },
  ar: {
    ...{ address: "العنوان", hours: "ساعات العمل", phone: "الهاتف", page: "صفحة الويب" },
    ...{ stepFree: "دخول بلا درج", yes: "نعم", no: "لا", languages: "اللغات", position: "الموقع" },
    open: "افتح في تطبيق خرائط",
    elsewhere: "إن لم يفتح أي تطبيق فأدخل الموقع المكتوب أدناه في أحدها.",
    ...{ around: "خريطة حول {title}", code: "هذه الصفحة كرمز للكاميرات" },
    until: "يرى هذه الصفحة كل من لديه عنوانها، حتى {day}.",
  },
};

/** The language of a page, its direction and its words. */
export interface PlaceLanguage {
  lang: string;
  dir: "ltr" | "rtl";
  words: PlaceWords;
}

/** @param wanted languages (BCP 47), the most wanted first; the first that is spoken, English when none is */
export function placeLanguage(wanted: readonly string[]): PlaceLanguage {
  const lang = wanted.map((one) => one.toLowerCase().split("-")[0]).find((one) => Object.hasOwn(WORDS, one)) ?? "en";
  return { lang, dir: isRightToLeft(lang) ? "rtl" : "ltr", words: WORDS[lang] };
}
