/** HTML forms of different making, and what each address field of theirs is bound to: pattern, else token. */
export interface PastedForm {
  name: string;
  html: string;
  /** By the name that the field gets. */
  bound: Record<string, string>;
  /** Fields that only look like one of an address, or do not. */
  left: string[];
}

const LINE1 = "address-line1";
const STREET = "{street or block or place}";
const HOUSE = "{house or building}";
const REGION = "{region or county}";
const CODE = "{country.code}";

export const PASTED: readonly PastedForm[] = [
  {
    name: "by hand, with tokens",
    html: `<h1>Checkout</h1><form action="https://elsewhere.example/send">
      <label for="n">Name</label><input id="n" name="n" autocomplete="name">
      <label for="a">Address</label><input id="a" name="a" autocomplete="address-line1" required>
      <label for="b">Apartment</label><input id="b" name="b" autocomplete="address-line2">
      <label for="c">City</label><input id="c" name="c" autocomplete="address-level2">
      <label for="d">ZIP</label><input id="d" name="d" autocomplete="postal-code">
      <label for="e">Country</label><select id="e" name="e" autocomplete="country"><option value="QR">Lorramere</option></select>
      <label for="f">Email address</label><input id="f" type="email" name="f"></form>`,
    bound: { a: LINE1, b: "{unit}", c: "{town}", d: "{postcode}", e: CODE },
    left: ["n", "f"],
  },
  {
    name: "a server's template, labels in a table",
    html: `<table><tr><td>Vorname:</td><td><input name="vorname"></td></tr>
      <tr><td>Straße:</td><td><input name="strasse"></td><td>Hausnummer:</td><td><input name="hausnr" size=4></td></tr>
      <tr><td>PLZ:</td><td><input name="plz"></td><td>Ort:</td><td><input name="ort"></td></tr>
      <tr><td>Land:</td><td><select name="land"><option value="QV">Ovarde<option value="QR">Lorramere</select></td></tr>
      <tr><td>E-Mail-Adresse:</td><td><input name="mail"></td></tr>
      <tr><td>Geburtsort:</td><td><input name="geburtsort"></td></tr></table>`,
    bound: { strasse: STREET, hausnr: HOUSE, plz: "{postcode}", ort: "{town}", land: CODE },
    left: ["vorname", "mail", "geburtsort"],
  },
  {
    name: "a client framework, with labels by ARIA",
    html: `<div class="jss12"><span id=":r1:">Numéro et nom de rue</span><input aria-labelledby=":r1:" name="line1">
      <span id=":r2:">Complément d’adresse</span><input aria-labelledby=":r2:" name="line2">
      <span id=":r3:">Code postal</span><input aria-labelledby=":r3:" name="cp" inputmode="numeric">
      <span id=":r4:">Ville</span><input aria-labelledby=":r4:" name="ville">
      <span id=":r5:">Pays</span><input aria-labelledby=":r5:" name="pays">
      <span id=":r6:">Numéro de téléphone</span><input aria-labelledby=":r6:" name="tel"></div>`,
    bound: { line1: LINE1, line2: "{unit}", cp: "{postcode}", ville: "{town}", pays: "{country}" },
    left: ["tel"],
  },
  {
    name: "two addresses by tokens",
    html: `<form><fieldset><legend>Billing</legend>
      <input name="b1" autocomplete="section-bill billing street-address"><input name="b2" autocomplete="section-bill billing postal-code"></fieldset>
      <fieldset><legend>Shipping</legend>
      <input name="s1" autocomplete="section-ship shipping address-line1"><input name="s2" autocomplete="section-ship shipping address-level2"></fieldset></form>`,
    bound: { b1: "{lines}", b2: "{postcode}", s1: LINE1, s2: "{town}" },
    left: [],
  },
  {
    name: "nested names of a server framework",
    html: `<form class="new_user"><div class="field"><label for="user_name">Name</label><br><input id="user_name" name="user[name]"></div>
      <div class="field"><label for="u1">Street</label><br><input id="u1" name="user[address_attributes][street]"></div>
      <div class="field"><label for="u2">Town</label><br><input id="u2" name="user[address_attributes][town]"></div>
      <div class="field"><label for="u3">Postcode</label><br><input id="u3" name="user[address_attributes][postcode]"></div>
      <div class="field"><label for="u4">State</label><br><input id="u4" name="user[address_attributes][state]"></div>
      <div class="field"><label for="u5">Country of birth</label><br><input id="u5" name="user[birth_country]"></div>
      <input type="password" name="user[password]"><input type="checkbox" name="user[terms]"></form>`,
    bound: {
      "user-address_attributes-street": LINE1,
      "user-address_attributes-town": "{town}",
      "user-address_attributes-postcode": "{postcode}",
      "user-address_attributes-state": REGION,
    },
    left: ["user-name", "user-birth_country"],
  },
  {
    name: "placeholders alone",
    html: `<form><input name="q1" placeholder="Full name"><input name="q2" placeholder="Street address"><input name="q3" placeholder="City">
      <input name="q4" placeholder="State / Province"><input name="q5" placeholder="Postal code"><input name="q6" placeholder="IP address"></form>`,
    bound: { q2: LINE1, q3: "{town}", q4: REGION, q5: "{postcode}" },
    left: ["q1", "q6"],
  },
  {
    name: "two addresses by headings, in Swedish",
    html: `<section><h2>Faktura</h2><p><label>Gatuadress <input name="a1"></label></p><p><label>Postnummer <input name="a2"></label></p>
      <p><label>Postort <input name="a3"></label></p></section>
      <section><h2>Leverans</h2><p><label>Gatuadress <input name="a4"></label></p><p><label>Postnummer <input name="a5"></label></p>
      <p><label>Postort <input name="a6"></label></p></section><p><label>Telefon <input name="a7"></label></p>`,
    bound: { a1: LINE1, a2: "{postcode}", a3: "{town}", a4: LINE1, a5: "{postcode}", a6: "{town}" },
    left: ["a7"],
  },
  {
    name: "in Polish, labels before in a list of definitions",
    html: `<dl><dt>Ulica</dt><dd><input name="ulica"></dd><dt>Numer domu</dt><dd><input name="nr_domu"></dd><dt>Numer mieszkania</dt><dd><input name="lokal"></dd>
      <dt>Kod pocztowy</dt><dd><input name="kod"></dd><dt>Miejscowość</dt><dd><input name="miejscowosc"></dd><dt>Województwo</dt>
      <dd><select name="woj"><option>Północ<option>Południe</select></dd><dt>Numer zamówienia</dt><dd><input name="zam"></dd></dl>`,
    bound: { ulica: STREET, nr_domu: HOUSE, lokal: "{unit}", kod: "{postcode}", miejscowosc: "{town}", woj: REGION },
    left: ["zam"],
  },
  {
    name: "a textarea and hidden positions, in Spanish",
    html: `<form><p>Nombre<br><input name="nombre"></p><p>Dirección completa<br><textarea name="direccion"></textarea></p>
      <p>Código postal<br><input name="codigo_postal"></p><p>Estado civil<br><select name="estado_civil"><option>Soltero</select></p>
      <input type="hidden" name="latitude"><input type="hidden" name="longitude"><input type="hidden" name="csrf" value="1"></form>`,
    bound: { direccion: "{lines}", codigo_postal: "{postcode}", latitude: "{lat}", longitude: "{lon}" },
    left: ["nombre", "estado_civil", "csrf"],
  },
  {
    name: "in Greek, with scripts and pictures that must not come",
    html: `<body onload="window.hacked = 1"><img src="https://elsewhere.example/a.png" onerror="window.hacked = 2">
      <script src="https://elsewhere.example/b.js"></script><script>window.hacked = 3</script>
      <link rel="stylesheet" href="https://elsewhere.example/c.css"><iframe src="https://elsewhere.example/d"></iframe>
      <label>Οδός και αριθμός <input name="odos"></label><label>Πόλη <input name="poli" onfocus="window.hacked = 4" autofocus></label>
      <label>Τ.Κ. <input name="tk"></label><label>Νομός <input name="nomos"></label><label>Τηλέφωνο <input name="til" type="tel"></label></body>`,
    bound: { odos: LINE1, poli: "{town}", tk: "{postcode}", nomos: REGION },
    left: ["til"],
  },
  {
    name: "a client framework's own elements, between its blocks",
    html: `<form [formGroup]="place"><x-field><input x-input placeholder="Company" formControlName="company"></x-field>
      <x-field><textarea x-input placeholder="Address" formControlName="address"></textarea></x-field>
      @if (wantsUnit) { <x-field><input x-input placeholder="Address 2" formControlName="address2"></x-field> } @else { <button>+ Flat</button> }
      <x-field><input x-input placeholder="City" formControlName="city"></x-field>
      <x-field><x-select placeholder="State" formControlName="state">@for (one of states; track one) { <x-option>{{ one }}</x-option> }</x-select></x-field>
      <x-field><input #code type="number" placeholder="Postal code" formControlName="postalCode"></x-field></form>`,
    bound: { address: "{lines}", address2: "{unit}", city: "{town}", state: REGION, postalCode: "{postcode}" },
    left: ["company"],
  },
  {
    name: "a template before it is written out, labels with hints",
    html: `{% if member %}<form>{% endif %}<label for="n1">{{ 'form.street'|trans }}<span class="label-hint">as on the <b>sign</b></span></label><input id="n1">
      <label for="n2">{{ 'form.house_number'|trans }}</label><input id="n2"><label for="n3"><%= label(:postcode) %></label><input id="n3">
      <label for="n4">{{ 'form.town'|trans }} {# not the post town #}</label><input id="n4">
      <label for="n5">Numéro de carte</label><input id="n5"><label for="n6">Validation state</label><input id="n6"></form>`,
    bound: { n1: STREET, n2: HOUSE, n3: "{postcode}", n4: "{town}" },
    left: ["n5", "n6"],
  },
  {
    name: "own elements that have their labels themselves",
    html: `<x-text-field v-model="place.street" label="Street"></x-text-field><x-text-field v-model="place.city" label="City"></x-text-field>
      <x-text-field v-model="place.zip" label="Zip"></x-text-field><x-text-field v-model="place.note" label="Gate code"></x-text-field>`,
    bound: { "place-street": LINE1, "place-city": "{town}", "place-zip": "{postcode}" },
    left: ["place-note"],
  },
  {
    name: "two addresses under legends that say nothing else",
    html: `<form><fieldset><legend>Landlord</legend><label>Address <input name="l1"></label><label>Town <input name="l2"></label><label>Postcode <input name="l3"></label></fieldset>
      <fieldset><legend>Tenant</legend><label>Address <input name="t1"></label><label>Town <input name="t2"></label><label>Postcode <input name="t3"></label></fieldset></form>`,
    bound: { l1: LINE1, l2: "{town}", l3: "{postcode}", t1: LINE1, t2: "{town}", t3: "{postcode}" },
    left: [],
  },
  {
    name: "an office's form, several parts to a field",
    html: `<fieldset><legend>Angaben zur Person</legend><label for="g1">Name, Vorname</label><input id="g1"><label for="g2">Straße, Hausnr.</label><input id="g2">
      <label for="g3">PLZ, Wohnort</label><input id="g3"><label for="g4">Stock</label><input id="g4"><label for="g5">Staatsangehörigkeit</label><input id="g5"></fieldset>`,
    bound: { g2: LINE1, g3: "{postcode} {town}" },
    left: ["g1", "g5"],
  },
];
