import { describe, expect, it } from "vitest";
import { type Proposal, propose } from "./propose.ts";
import type { FoundControl } from "./read-html.ts";

/** Forms as countries word them, made up: of each control its label, its name, and what it is for; "-" for what is left alone. */
const FORMS: Readonly<Record<string, string>> = {
  us: `
    First name [fname] -
    Street Address [street1] line1
    Apt, suite, etc. (optional) [street2] unit
    City [city] town
    State [state] region
    ZIP [zip] postcode
    County [county] county
    Phone [phone] -`,
  us2: `
    Residence address [res_addr] line1
    Unit # [res_unit] unit
    City/Town [res_city] town
    State/Territory [res_state] region
    ZIP + 4 [res_zip] postcode`,
  uk: `
    House name or number [houseNameOrNumber] house
    Street [street] street
    Locality [locality] district
    Town [postTown] town
    County (optional) [county] county
    Postcode [postcode] postcode`,
  uk2: `
    Flat number [flat] unit
    Building name [building_name] building
    Address line 1 [addressLine1] line1
    Address line 2 (optional) [addressLine2] unit
    Town or city [addressTown] town
    Postcode [addressPostcode] postcode`,
  ie: `
    Eircode [eircode] postcode
    Address Line 1 [addr1] line1
    Address Line 2 [addr2] unit
    Address Line 3 [addr3] district
    County [county] county`,
  de: `
    Vorname [vorname] -
    Straße, Hausnummer [strasse] line1
    Adresszusatz (z. B. Hinterhaus) [zusatz] unit
    Postleitzahl [plz] postcode
    Wohnort [wohnort] town
    Bundesland [bundesland] region
    Staat [staat] country`,
  de2: `
    Strasse [str] street
    Nr. [hnr] house
    PLZ / Ort [plzort] together
    Ortsteil [ortsteil] district
    Geburtsort [gebort] -`,
  at: `
    Straße [strasse] street
    Hausnummer [hausnr] house
    Stiege [stiege] -
    Stock [stock] floor
    Tür [tuer] unit
    PLZ [plz] postcode
    Gemeinde [gemeinde] town`,
  ch: `
    Strasse / Nr. [strasse] line1
    Postfach [postfach] -
    PLZ [npa] postcode
    Ort [localite] town
    Kanton [kanton] region`,
  fr: `
    N° et libellé de la voie [voie] line1
    Bâtiment, résidence, étage [complement] unit
    Code postal [cp] postcode
    Commune [commune] town
    Pays [pays] country`,
  fr2: `
    Numéro [numero] house
    Type de voie [typeVoie] -
    Nom de la voie [nomVoie] street
    Lieu-dit [lieuDit] district
    Ville [ville] town
    Département [dept] county`,
  es: `
    Tipo de vía [tipo_via] -
    Nombre de la vía [nombre_via] street
    Número [numero] house
    Portal [portal] -
    Piso [piso] floor
    Puerta [puerta] unit
    C.P. [cp] postcode
    Municipio [municipio] town
    Provincia [provincia] region`,
  pt: `
    Morada [morada] street
    N.º de porta [porta] house
    Andar [andar] floor
    Código Postal [cod_postal] postcode
    Localidade [localidade] town
    Concelho [concelho] county
    Distrito [distrito] region`,
  br: `
    CEP [cep] postcode
    Logradouro [logradouro] street
    Número [numero] house
    Complemento [complemento] unit
    Bairro [bairro] district
    Cidade [cidade] town
    UF [uf] region`,
  it: `
    Indirizzo [indirizzo] street
    N. civico [civico] house
    Interno [interno] unit
    CAP [cap] postcode
    Comune [comune] town
    Provincia [prov] region
    Nazione [nazione] country`,
  nl: `
    Postcode [postcode] postcode
    Huisnummer [huisnummer] house
    Toevoeging [toevoeging] unit
    Straatnaam [straatnaam] street
    Woonplaats [woonplaats] town
    Land [land] country`,
  be: `
    Straat / Rue [straat] street
    Nummer [nr] house
    Bus [bus] unit
    Postcode [postcode] postcode
    Gemeente [gemeente] town`,
  pl: `
    Ulica [ulica] street
    Nr domu [nrDomu] house
    Nr mieszkania [nrMieszkania] unit
    Kod pocztowy [kodPocztowy] postcode
    Miejscowość [miejscowosc] town
    Gmina [gmina] -
    Województwo [wojewodztwo] region
    Kraj [kraj] country`,
  cz: `
    Ulice [ulice] street
    Číslo popisné [cp] house
    Obec [obec] town
    Část obce [castObce] -
    PSČ [psc] postcode
    Stát [stat] country`,
  sk: `
    Ulica a číslo [ulica] line1
    Mesto / obec [mesto] town
    PSČ [psc] postcode
    Okres [okres] county
    Krajina [krajina] country`,
  hu: `
    Irányítószám [irsz] postcode
    Település [telepules] town
    Közterület neve [kozterulet] street
    Házszám [hazszam] house
    Emelet [emelet] floor
    Ajtó [ajto] unit
    Megye [megye] region`,
  ro: `
    Strada [strada] street
    Număr [numar] house
    Bloc [bloc] building
    Scara [scara] -
    Etaj [etaj] floor
    Apartament [ap] unit
    Localitate [localitate] town
    Județ [judet] county
    Cod poștal [cod_postal] postcode`,
  se: `
    Gatuadress [gatuadress] line1
    Lägenhetsnummer [lgh] unit
    Postnummer [postnr] postcode
    Postort [postort] town
    Kommun [kommun] -
    Län [lan] county`,
  no: `
    Gateadresse [gateadresse] line1
    Postnummer [postnr] postcode
    Poststed [poststed] town
    Fylke [fylke] county`,
  dk: `
    Vejnavn [vejnavn] street
    Husnr. [husnr] house
    Etage [etage] floor
    Side/dør [doer] -
    Postnr. [postnr] postcode
    By [by] town`,
  fi: `
    Katuosoite [katuosoite] line1
    Postinumero [postinumero] postcode
    Postitoimipaikka [postitoimipaikka] town
    Kunta [kunta] -
    Maa [maa] country`,
  ee: `
    Tänav [tanav] street
    Maja number [maja] house
    Korter [korter] unit
    Linn [linn] town
    Maakond [maakond] county
    Sihtnumber [indeks] postcode`,
  lv: `
    Iela [iela] street
    Mājas numurs [maja] house
    Dzīvoklis [dzivoklis] unit
    Pilsēta [pilseta] town
    Novads [novads] county
    Pasta indekss [indekss] postcode`,
  lt: `
    Gatvė [gatve] street
    Namo nr. [namas] house
    Butas [butas] unit
    Miestas [miestas] town
    Savivaldybė [savivaldybe] -
    Pašto kodas [pk] postcode`,
  hr: `
    Ulica i kućni broj [ulica] line1
    Poštanski broj [pbr] postcode
    Mjesto [mjesto] town
    Županija [zupanija] county
    Država [drzava] country`,
  si: `
    Ulica [ulica] street
    Hišna številka [hisna_st] house
    Naselje [naselje] town
    Pošta [posta] -
    Poštna številka [postna] postcode
    Občina [obcina] -`,
  gr: `
    Οδός [odos] street
    Αριθμός [arithmos] house
    Τ.Κ. [tk] postcode
    Πόλη [poli] town
    Όροφος [orofos] floor
    Νομός [nomos] region`,
  bg: `
    Улица [ulica] street
    № [nomer] house
    Населено място [mesto] town
    Пощенски код [pk] postcode
    Област [oblast] region
    Община [obshtina] -`,
  ru: `
    Улица [street] street
    Дом [house] house
    Квартира [flat] unit
    Индекс [index] postcode
    Населённый пункт [locality] town
    Регион [region] region
    Страна [country] country`,
  ua: `
    Вулиця [vul] street
    Будинок [bud] house
    Квартира [kv] unit
    Місто [misto] town
    Область [obl] region
    Поштовий індекс [indeks] postcode`,
  tr: `
    Mahalle [mahalle] district
    Cadde/Sokak [sokak] street
    Bina No [binaNo] house
    Daire No [daireNo] unit
    İlçe [ilce] county
    İl [il] region
    Posta Kodu [pk] postcode`,
  jp: `
    郵便番号 [zip] postcode
    都道府県 [pref] region
    市区町村 [city] town
    町名・番地 [addr1] line1
    建物名・部屋番号 [addr2] building`,
  kr: `
    우편번호 [postcode] postcode
    도로명 주소 [roadAddress] line1
    상세주소 [detailAddress] unit
    시/도 [sido] region
    시/군/구 [sigungu] town`,
  tw: `
    郵遞區號 [zipcode] postcode
    縣市 [county] county
    鄉鎮市區 [district] town
    路名 [road] street
    門牌號碼 [no] house
    樓層 [floor] floor`,
  in: `
    Area, Street, Sector, Village [line2] unit
    Landmark [landmark] -
    Pincode [pincode] postcode
    Town/City [city] town
    State [state] region`,
  au: `
    Unit/Level [unit] unit
    Street number [st_no] house
    Street name [st_name] street
    Suburb [suburb] town
    State/Territory [state] region
    Postcode [pcode] postcode`,
  nz: `
    Street address [address] line1
    Suburb [suburb] district
    Town/City [town] town
    Postcode [pc] postcode`,
  za: `
    Street address [street] line1
    Complex or building [complex] building
    Suburb [suburb] district
    City / Town [city] town
    Province [province] region
    Postal code [code] postcode`,
  ca: `
    Civic number [civic] house
    Street name [street_nm] street
    City [mun] town
    Province/Territory [prov] region
    Postal code [postal] postcode`,
  mx: `
    Calle [calle] street
    Núm. ext. [num_ext] house
    Núm. int. [num_int] unit
    Colonia [colonia] district
    Municipio o alcaldía [municipio] town
    Estado [estado] region
    C.P. [cp] postcode`,
  cl: `
    Calle [calle] street
    Número [numero] house
    Depto. / Casa [depto] unit
    Comuna [comuna] town
    Región [region] region`,
  id: `
    Alamat [alamat] line1
    RT/RW [rtrw] -
    Kelurahan [kelurahan] district
    Kecamatan [kecamatan] district
    Kota/Kabupaten [kota] town
    Provinsi [provinsi] region
    Kode Pos [kodepos] postcode`,
  vn: `
    Số nhà [so_nha] house
    Tên đường [ten_duong] street
    Phường/Xã [phuong] district
    Quận/Huyện [quan] county
    Tỉnh/Thành phố [tinh] region`,
  usb: `
    Service address [svc_addr] line1
    Apartment, unit, suite or floor # [svc_apt] unit
    City [svc_city] town
    State [svc_state] region
    Zip code [svc_zip] postcode
    Account number [acct] -`,
  us2b: `
    Street [ADDRESS1] line1
     [ADDRESS2] unit
     [CITY] town
     [STATE] region
     [ZIP] postcode
    Country [COUNTRY] country`,
  ukb: `
    Property name [propertyName] building
    Property number [propertyNumber] house
    Street name [streetName] street
    Village [village] district
    Post town [postTown] town
    Post code [pc] postcode`,
  scotb: `
    Flat/House number [flat_house] house
    Address [address] street
    Town [town] town
    Council area [council] -
    Postcode [postcode] postcode
    National Insurance number [nino] -`,
  deb: `
    Name des Kindes [kind] -
    Anschrift (Straße und Hausnummer) [anschrift] line1
    PLZ, Ort [plzOrt] together
    Telefon [tel] -
    Geburtsdatum [geb] -`,
  de2b: `
    Straße [strasse] street
    Haus-Nr. [hausnr] house
    Zusatz [zusatz] unit
    PLZ [plz] postcode
    Stadt [stadt] town
    Landkreis [lk] county`,
  chb: `
    Adresse (rue, numéro) [adresse] line1
    NPA [npa] postcode
    Localité [localite] town
    Canton [canton] region
    N° AVS [avs] -`,
  ch2b: `
    Via e numero [via] line1
    NAP [nap] postcode
    Luogo [luogo] town
    Cantone [cantone] region`,
  frb: `
    Nom de famille [nom] -
    Adresse postale [adresse] line1
    Complément d'adresse [complement] unit
    CP [cp] postcode
    Ville [ville] town
    N° de sécurité sociale [nss] -`,
  fr2b: `
    N° de rue [num_rue] house
    Rue [rue] street
    Étage [etage] floor
    Appartement [appt] unit
    Code postal / Ville [cpville] together`,
  qcb: `
    Numéro civique [no_civique] house
    Rue [rue] street
    App. [app] unit
    Municipalité [mun] town
    Code postal [cp] postcode
    Province [prov] region`,
  esb: `
    Domicilio [domicilio] line1
    Código postal [cpostal] postcode
    Población [poblacion] town
    Provincia [provincia] region
    NIF [nif] -`,
  arb: `
    Calle y número [calle] line1
    Piso / Depto [piso] unit
    Localidad [localidad] town
    Código postal [cp] postcode
    Provincia [provincia] region`,
  cob: `
    Dirección de residencia [direccion] line1
    Barrio [barrio] district
    Ciudad [ciudad] town`,
  ptb: `
    Rua [rua] street
    Nº [n] house
    Andar/Lado [andar] floor
    Código-Postal [cp4] postcode
    Localidade [loc] town`,
  brb: `
    Rua / Avenida [rua] street
    Nº [num] house
    Apto / Bloco [apto] unit
    Bairro [bairro] district
    Município [mun] town
    Estado (UF) [uf] region
    CEP [cep] postcode`,
  itb: `
    Via/Piazza [via] street
    Numero civico [nciv] house
    Scala [scala] -
    Piano [piano] floor
    Interno [int] unit
    C.A.P. [cap] postcode
    Città [citta] town
    Prov. [pr] region`,
  it2b: `
    Codice fiscale [cf] -
    Indirizzo di residenza [indirizzo] line1
    Comune di residenza [comune] town
    CAP [cap] postcode
    Comune di nascita [comnas] -`,
  nlb: `
    Straat en huisnummer [adres] line1
    Postcode en plaats [pcplaats] together
    Geboorteplaats [gebpl] -`,
  nl2b: `
    Postcode [pc] postcode
    Huisnr. [hnr] house
    Huisletter [hl] unit
    Plaats [plaats] town
    Provincie [prov] region`,
  plb: `
    Adres zamieszkania [adres] street
    Numer domu / mieszkania [nr] house
    Poczta [poczta] -
    Kod pocztowy [kod] postcode
    Miasto [miasto] town
    Powiat [powiat] county`,
  czb: `
    Ulice a č. p. [ulice] line1
    Město [mesto] town
    PSČ [psc] postcode
    Rodné číslo [rc] -`,
  hub: `
    Utca, házszám [utca] line1
    Város [varos] town
    Irsz. [irsz] postcode
    Ország [orszag] country`,
  rob: `
    Str. [str] street
    Nr. [nr] house
    Bl. [bl] building
    Ap. [ap] unit
    Oraș/Comună [oras] town
    Județ/Sector [jud] county`,
  hrb: `
    Adresa prebivališta [adresa] line1
    Grad/mjesto [grad] town
    Poštanski br. [pbr] postcode`,
  rsb: `
    Улица [ulica] street
    Кућни број [broj] house
    Место [mesto] town
    Поштански број [pb] postcode
    Општина [opstina] -`,
  bgb: `
    Адрес [adres] line1
    Град/село [grad] town
    ПК [pk] postcode
    Държава [country] country`,
  uab: `
    Область [oblast] region
    Населений пункт [np] town
    Вулиця, будинок [addr] line1
    Індекс [idx] postcode`,
  rub: `
    Город [city] town
    Улица, дом, квартира [addr] line1
    Почтовый индекс [zip] postcode
    ИНН [inn] -`,
  grb: `
    Διεύθυνση [dieythynsi] line1
    Πόλη / Περιοχή [poli] town
    Ταχ. κώδικας [tk] postcode
    Χώρα [xwra] country
    ΑΦΜ [afm] -`,
  trb: `
    Adres [adres] line1
    Şehir [sehir] town
    Semt [semt] district
    Posta kodu [pk] postcode
    Ülke [ulke] country`,
  seb: `
    Adress [adress] line1
    C/o [co] -
    Postnr [postnr] postcode
    Ort [ort] town
    Personnummer [pnr] -`,
  nob: `
    Adresse [adresse] line1
    Postnr. [postnr] postcode
    Sted [sted] town
    Land [land] country`,
  dkb: `
    Vej og husnummer [vej] line1
    Postnummer og by [postby] together
    CPR-nummer [cpr] -`,
  fib: `
    Lähiosoite [osoite] line1
    Postinro [postinro] postcode
    Paikkakunta [kaupunki] town`,
  isb: `
    Heimilisfang [heimili] line1
    Póstnúmer [pnr] postcode
    Staður [stadur] town
    Kennitala [kt] -`,
  jpb: `
    〒 [zip] postcode
    都道府県 [pref] region
    市区町村 [city] town
    番地 [banchi] line1
    建物名 [bldg] building
    電話番号 [tel] -`,
  krb: `
    우편번호 [zip] postcode
    주소 [addr1] line1
    상세 주소 [addr2] unit`,
  cnb: `
    省份 [province] region
    城市 [city] town
    区/县 [district] district
    详细地址 [address] line1
    邮政编码 [zip] postcode`,
  ilb: `
    רחוב [street] street
    מספר בית [house] house
    עיר [city] town
    מיקוד [zip] postcode
    דירה [apt] unit`,
  sab: `
    الشارع [street] line1
    المدينة [city] town
    الرمز البريدي [zip] postcode
    الدولة [country] country`,
  idb: `
    Alamat lengkap [alamat] line1
    Kecamatan [kec] district
    Kabupaten/Kota [kab] town
    Provinsi [prov] region
    Kode pos [kp] postcode`,
  vnb: `
    Địa chỉ [dia_chi] line1
    Phường/Xã [phuong] district
    Quận/Huyện [quan] county
    Tỉnh/Thành [tinh] region`,
  shopb: `
    Product name [name] -
    Stock [stock] -
    Level [level] -
    Type [type] -
    Unit [unit] -
    Price [price] -`,
  jobb: `
    Position [position] -
    Department [department] -
    Region [region] -
    Start date [date] -
    Location [location] -
    Street cred [cred] -`,
  eventb: `
    Venue [venue] -
    Number of seats [seats] -
    Floor plan [plan] -
    House rules [rules] -
    State of health [health] -`,
  bankb: `
    Account holder [holder] -
    Sort code [sortcode] -
    Bank code (BLZ) [blz] -
    Country of issue [issue] -`,
  czc: `
    Město [m] town
    PSČ [psc] postcode
    Kraj [kraj] region
    Země [zeme] country`,
  huc: `
    Utca [u] street
    Házszám [hsz] house
    Emelet/ajtó [ea] unit
    Irányítószám [i] postcode
    Helység [h] town`,
  sic: `
    Ulica in hišna številka [u] line1
    Poštna številka [p] postcode
    Kraj [k] town
    Država [d] country`,
  bgc: `
    Улица [u] street
    Номер [n] house
    Етаж [e] floor
    Апартамент [a] unit
    Град [g] town
    Пощенски код [p] postcode`,
  ruc: `
    Регион [r] region
    Город [g] town
    Улица [u] street
    Дом [d] house
    Корпус [k] building
    Квартира [kv] unit
    Почтовый индекс [i] postcode`,
  ilc: `
    עיר [c] town
    רחוב [s] street
    מספר [n] house
    דירה [a] unit
    מיקוד [z] postcode`,
  czp: `
    Ulice [u] street
    Č. p. [cp] house
    Č. o. [co] house
    Obec [o] town
    PSČ [p] postcode`,
  tha: `
    บ้านเลขที่ [h] house
    ถนน [r] street
    ตำบล/แขวง [t] district
    อำเภอ/เขต [a] town
    จังหวัด [c] region
    รหัสไปรษณีย์ [z] postcode`,
  cnd: `
    省 [p] region
    市 [c] town
    区/县 [d] district
    详细地址 [a] line1
    邮政编码 [z] postcode`,
  noe: `
    Gateadresse [g] line1
    Bolignummer [b] unit
    Postnr [p] postcode
    Poststed [s] town`,
  phb: `
    House No. [h] house
    Street [s] street
    Barangay [b] district
    City/Municipality [c] town
    Province [p] region`,
  rsn: `
    Улица [u] street
    Број [b] house
    Стан [s] unit
    Поштански број [p] postcode
    Место [m] town`,
  ped: `
    Departamento [de] region
    Provincia [p] county
    Distrito [di] town
    Dirección [a] line1
    Referencia [r] -`,
  uyd: `
    Calle [c] line1
    Apto. [a] unit
    Localidad [l] town
    Departamento [d] region`,
  mxf: `
    Calle [c] street
    Número exterior [n] house
    Piso [p] floor
    Departamento [d] unit
    Municipio [m] town
    Código postal [cp] postcode`,
  sgl: `
    Postal code [p] postcode
    Block / House no. [b] house
    Street name [s] street
    Level [l] floor
    Unit no. [u] unit`,
  egy: `
    رقم المبنى [b] house
    الشارع [s] street
    الطابق [f] floor
    الشقة [u] unit
    المدينة [c] town
    المحافظة [g] region`,
  irn: `
    استان [r] region
    شهر [c] town
    خیابان [s] street
    پلاک [h] house
    واحد [u] unit
    کد پستی [p] postcode`,
  esn: `
    Tipo de vía [t] -
    Nombre de la vía [n] street
    Número [nu] house
    Piso [p] floor
    Puerta [pu] unit
    Código postal [cp] postcode
    Población [po] town`,
  mys: `
    Alamat [a] line1
    Poskod [p] postcode
    Bandar [b] town
    Negeri [n] region`,
  alb: `
    Rruga [r] street
    Numri [n] house
    Qyteti [q] town
    Kodi postar [k] postcode`,
  geo: `
    ქუჩა [s] street
    სახლის ნომერი [h] house
    ქალაქი [c] town
    საფოსტო ინდექსი [z] postcode`,
  arm: `
    Փողոց [s] street
    Շենք [h] house
    Բնակարան [u] unit
    Քաղաք [c] town`,
  gift: `
    Amount [amt] -
    Surname [s] -
    House name/number [hnn] house
    Postcode [pc] postcode`,
  hall: `
    Venue address [v] line1
    Venue city [vc] town
    Capacity [cap] -`,
  plot: `
    Property name or number [prop] house
    Street name [street] street
    Locality [loc] district
    Post town [town] town
    Postcode [pc] postcode`,
  cnz: `
    省 [p] region
    市 [c] town
    区 [d] district
    街道地址 [s] line1
    邮编 [z] postcode`,
  kaz: `
    Көше [s] street
    Үй [h] house
    Пәтер [u] unit
    Қала [c] town
    Облыс [r] region`,
};

const OF_BINDING: Readonly<Record<string, string>> = {
  "{lines}": "lines",
  "{street or block or place}": "street",
  "{house or building}": "house",
  "{county or region}": "county",
  "{region or county}": "region",
  "{country.code}": "country",
};

/** What a control was taken for. */
function takenFor({ field, isAddress }: Proposal): string {
  if (!isAddress) return "-";
  if (field.kind === "search") return "search";
  if (field.autofill?.endsWith("address-line1")) return "line1";
  if (field.binding?.includes("} {")) return "together";
  return OF_BINDING[field.binding ?? ""] ?? (field.binding ?? "").slice(1, -1);
}

const read = (form: string) =>
  form
    .trim()
    .split("\n")
    .map((row) => /^\s*(?<label>.*) \[(?<name>.*)\] (?<wanted>\S+)$/.exec(row)!.groups!);

const control = ({ label, name }: Partial<FoundControl>): FoundControl => ({
  name: name ?? "",
  label: label ?? "",
  ...{
    tag: "input",
    type: "text",
    autocomplete: "",
    help: "",
    placeholder: "",
    groups: [],
    options: [],
    required: false,
  },
});

describe("a form of another country", () => {
  it.each(Object.entries(FORMS))("%s is read by its own words", (_, form) => {
    const rows = read(form);
    const taken = propose(rows.map(control)).map(takenFor);
    expect(rows.map(({ label }, i) => `${label}: ${taken[i]}`)).toEqual(
      rows.map(({ label, wanted }) => `${label}: ${wanted}`),
    );
  });
});
