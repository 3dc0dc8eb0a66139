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
 * Words by which forms call the parts of an address, without accents and in small letters; phrases before single words.
 * English, German, French, Spanish, Italian, Portuguese, Dutch, Swedish, Danish, Norwegian, Finnish, Polish, Czech, Greek.
 */
export const PHRASES: Readonly<Record<Purpose, string>> = {
  search:
    "find address, find your address, search address, address search, address lookup, look up address, start typing your address, adresse suchen, adresssuche, rechercher une adresse, buscar direccion",
  lines:
    "full address, postal address, mailing address, anschrift, adresse complete, direccion completa, adres korespondencyjny",
  line1:
    "street address, address line 1, address line one, address 1, addressline 1, addr 1, adr 1, line 1, street 1, street and number, street and house number, street name and number, street number and name, strasse und hausnummer, strasse und nr, strasse nr, strasse hausnummer, numero et voie, numero et nom de rue, numero et rue, calle y numero, via e numero, indirizzo, rua e numero, morada, endereco, straat en huisnummer, straat en nummer, gatuadress, vejnavn og nummer, adresselinje 1, katuosoite, lahiosoite, ulica i numer, ulice a cislo, οδος και αριθμος, διευθυνση, direccion, domicilio, adresse, adres, adresa, adress, address, osoite, addr",
  street:
    "street name, street, road, strasse, str, rue, voie, nom de la voie, calle, via, rua, straat, straatnaam, gata, gatunamn, gade, vej, vejnavn, gate, katu, ulica, ulice, οδος",
  house:
    "house number, house no, house nr, housenumber, street number, street no, streetnumber, building number, number, hausnummer, hausnr, hnr, nr, numero, num, numero de rue, numero civico, civico, n civico, huisnummer, gatunummer, husnummer, husnr, talonumero, numer domu, nr domu, cislo popisne, cislo domu, αριθμος",
  unit: "apartment, apartment number, appartement, apt, flat, flat number, unit, unit number, suite, address line 2, address line two, address 2, addressline 2, addr 2, adr 2, line 2, street 2, adresszusatz, zusatz, complement, complement d adresse, complemento, piso, puerta, interno, andar, toevoeging, lagenhet, lagenhetsnummer, lgh, lejlighed, leilighet, asunto, mieszkanie, numer mieszkania, nr lokalu, byt, διαμερισμα",
  floor: "floor, etage, stockwerk, planta, piano, verdieping, vaning, etasje, kerros, pietro, patro, οροφος",
  building: "building name, building, house name, batiment, immeuble, gebaude, edificio, bygning, budynek, κτιριο",
  district:
    "district, suburb, neighbourhood, neighborhood, quarter, stadtteil, ortsteil, quartier, barrio, colonia, quartiere, bairro, wijk, stadsdel, bydel, kaupunginosa, dzielnica, συνοικια",
  town: "city, town, town or city, city or town, locality, municipality, village, stadt, ort, wohnort, ville, commune, localite, ciudad, poblacion, localidad, municipio, citta, comune, localita, cidade, stad, plaats, woonplaats, gemeente, postort, ortnamn, by, poststed, kaupunki, postitoimipaikka, kunta, miasto, miejscowosc, mesto, obec, πολη, address level 2",
  county: "county, landkreis, kreis, departement, lan, amt, fylke, powiat, okres, δημος",
  region:
    "state, state or province, province, region, county or region, administrative area, bundesland, kanton, provincia, comunidad autonoma, estado, uf, regione, distrito, provincie, landskap, maakunta, wojewodztwo, kraj, νομος, περιφερεια, address level 1",
  postcode:
    "pin code, pincode, pin, zip, zipcode, zip code, zip or postal code, postcode, post code, postal code, postalcode, postal, plz, postleitzahl, code postal, cp, codigo postal, cap, cep, postnummer, postnr, postinumero, kod pocztowy, psc, ταχυδρομικος κωδικας, τκ",
  country: "country, country or region, country name, land, pays, pais, paese, nazione, maa, panstwo, zeme, stat, χωρα",
  lat: "latitude, lat, breitengrad, latitud, latitudine, szerokosc",
  lon: "longitude, lng, lon, long, laengengrad, langengrad, longitud, longitudine, dlugosc",
};

/** Words of what only looks like an address. */
export const OTHER_WORDS =
  "email, e mail, mail, ip, mac, web, website, url, link, wallet, bitcoin, birth, born, geburtsort, geburtsland, naissance, nacimiento, nascita, nationality, nationalitat, citizenship, staatsangehorigkeit, phone, telephone, telefon, mobile, fax, dial, dialling, calling, marital, civil, familienstand, language, sprache, country code, tax, vat, steuer, promo, coupon, voucher, gift, sort code, area code, security code, cedex, food, preference, preferences, state of the, status, progress, mind, card pin, new pin, pin of";

/** Words beside which a word that is said of many things still means a part of an address. */
export const BESIDE_WORDS =
  "your, the, my, of, a, please, enter, required, optional, address, adresse, user, customer, contact, person, member, client, profile, data, form, label, field, attributes, current, permanent, main, primary, postal, mailing, street, house, ihre, deine, votre, su, tu, de, la, du, twoj, din";

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
