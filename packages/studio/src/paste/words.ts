import { NAMED_PARTS, partNames } from "@bibliotope/core/text";

/** What a control of a form may be for. */
export type Purpose =
  | "lines"
  | "line1"
  | "street"
  | "house"
  | "unit"
  | "floor"
  | "building"
  | "district"
  | "town"
  | "county"
  | "region"
  | "postcode"
  | "country"
  | "lat"
  | "lon"
  | "search";

/**
 * What forms call the parts of an address beside the names in the language packs, without accents and in lower case;
 * phrases before single words.
 */
const PHRASES: Readonly<Partial<Record<Purpose, string>>> = {
  search:
    "find address, find your address, search address, address search, address lookup, look up address, start typing your address, adresse suchen, adresssuche, rechercher une adresse, buscar direccion",
  lines:
    "full address, postal address, mailing address, anschrift, adresse complete, direccion completa, adres korespondencyjny",
  line1:
    "address line one, addressline 1, addr 1, adr 1, line 1, street 1, 詳細地址, 详细地址, 街道地址, 町名 番地, 番地, 住所, street and number, street and house number, street name and number, street number and name, strasse und nr, strasse nr, numero et nom de rue, straat en nummer, adresselinje 1, addr",
  house:
    "номер, број, broj, numri, altura, numeracion, מספר, property number, numero civique, house name or number, house number or name, house name number, house number name, property name or number, property number or name, building name or number, civic number, civic no, num ext, no ext, numero exterior, n exterior, housenumber, streetnumber, num, n civico, 門牌號碼, 門牌",
  unit: "кв, الشقة, شقة, رقم الشقة, bolignummer, bolignr, bruksenhetsnummer, toev, app, ap, apto, 상세 주소, num int, no int, numero interior, n interior, depto, dpto, bus, boite, bte, 상세주소, address line 2, address line two, address 2, addressline 2, addr 2, adr 2, line 2, street 2, adresszusatz, zusatz, complement, complement d adresse, complemento, toevoeging, lgh",
  street: "nombre de la via, nombre via",
  floor: "piso, planta, level, 樓層, 楼层, الطابق, طابق, الدور",
  building: "корпус, строение, property name, マンション名 部屋番号, bloco, bloc, bl",
  district:
    "quarter, barangay, brgy, 区 县, 区县, 区, address line 3, address line three, address 3, addressline 3, addr 3, line 3, street 3, lieu dit, hameau",
  town: "comuna, alcaldia, luogo, 시 군 구, 鄉鎮市區, town or city, city or town, address level 2",
  county: "δημος, lga, local government area",
  region:
    "emirate, المحافظة, محافظة, state or province, state territory, province territory, county or region, administrative area, provincia, uf, distrito, provincie, νομος, 시 도, prov, canton, cantone, tinh thanh pho, il, address level 1",
  postcode: "cpa, npa, nap, eircode, пк, pin code, pincode, pin, zipcode, zip or postal code, postalcode, postal",
  country: "country region, country or region, stat",
};

/** Each phrase by which forms call something, with what that is. */
export const CALLED: readonly (readonly [phrase: string, purpose: Purpose])[] = [
  ...(Object.entries(PHRASES) as [Purpose, string][]).flatMap(([purpose, list]) =>
    list.split(", ").map((phrase) => [phrase, purpose] as const),
  ),
  ...NAMED_PARTS.flatMap((part) => partNames[part].map((name) => [name, part === "line" ? "line1" : part] as const)),
];

/** Words of what only looks like an address. */
export const OTHER_WORDS =
  "price, preis, prix, precio, prezzo, gate code, door code, entry code, access code, promo code, issue, issuing, cred, money, email, e mail, mail, ip, mac, web, website, url, link, wallet, bitcoin, birth, born, geburtsort, geburtsland, naissance, nacimiento, nascita, nationality, nationalitat, citizenship, staatsangehorigkeit, phone, telephone, telefon, mobile, fax, dial, dialling, calling, marital, civil, familienstand, language, sprache, country code, tax, vat, steuer, promo, coupon, voucher, gift, sort code, area code, security code, cedex, food, preference, preferences, state of the, status, progress, mind, card pin, new pin, pin of";

/** Words beside which a word that is said of many things still means a part of an address. */
export const BESIDE_WORDS =
  "txt, ddl, cbo, cmb, sel, inp, fld, frm, tb, lbl, ctl, 00, 01, property, content, panel, input, select, value, residence, residential, home, service, registered, legal, correspondence, installation, your, the, my, of, a, please, enter, required, optional, address, adresse, user, customer, contact, person, member, client, profile, data, form, label, field, attributes, current, permanent, main, primary, postal, mailing, street, house, venue, event, site, job, project, school, shop, store, office, business, company, garage, risk, premises, insured, patient, tenant, landlord, owner, parent, guardian, employer, recipient, sender, meter, incident, accident, branch, practice, clinic, farm, hotel, ihre, deine, votre, su, tu, de, la, du, twoj, din";

/** Words that say which of several addresses a control is of, and what that is called. */
export const SECTIONS: readonly (readonly [words: string, name: string])[] = [
  [
    "billing, invoice address, rechnungsadresse, facturation, facturacion, fatturazione, faktura, fakturering, factuur, faktureringsadress",
    "billing",
  ],
  [
    "shipping, delivery, ship, lieferadresse, lieferung, livraison, envio, entrega, spedizione, consegna, leverans, levering, dostawa, dostawy, bezorging",
    "shipping",
  ],
  ["home, private, privat", "home"],
  ["work, office, business, arbeit", "work"],
  ["pickup, pick up, collection, abholung, from, origin", "from"],
  ["destination, ziel, dropoff, drop off", "to"],
];
