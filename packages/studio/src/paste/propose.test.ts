import { describe, expect, it } from "vitest";
import { wordsOf } from "./phrases.ts";
import { fitting, propose } from "./propose.ts";
import type { FoundControl } from "./read-html.ts";

const control = (more: Partial<FoundControl>): FoundControl => ({
  name: "x",
  tag: "input",
  type: "text",
  autocomplete: "",
  label: "",
  help: "",
  placeholder: "",
  groups: [],
  options: [],
  required: false,
  ...more,
});
/** Codes of states, of which half are countries' by chance. */
const STATES = ["AL", "AK", "AZ", "AR", "CA", "NV", "NY", "WV"].map((value) => ({ value, label: `State ${value}` }));

/** What each control is bound to: its pattern, else its token, else nothing. */
const bound = (...controls: Partial<FoundControl>[]) =>
  propose(controls.map((one, i) => control({ name: `f${i}`, ...one }))).map(({ field, isAddress }) =>
    isAddress ? (field.binding ?? field.autofill ?? field.kind) : "",
  );

describe("propose", () => {
  it.each([
    [{ autocomplete: "section-a shipping postal-code" }, "{postcode}", 1],
    [{ label: "Postcode *" }, "{postcode}", 0.85],
    [{ label: "PLZ", name: "plz" }, "{postcode}", 0.95],
    [{ name: "user[address_attributes][zip_code]" }, "{postcode}", 0.75],
    [{ name: "billingCity" }, "{town}", 0.75],
    [{ placeholder: "Ville" }, "{town}", 0.5],
    [{ label: "Land", tag: "select" as const, options: [{ value: "QR", label: "Lorramere" }] }, "{country.code}", 0.6],
    [{ label: "Adresszusatz" }, "{unit}", 0.85],
    [{ label: "Ταχυδρομικός κώδικας" }, "{postcode}", 0.85],
    [{ label: "Województwo" }, "{region or county}", 0.85],
    [{ label: "郵便番号" }, "{postcode}", 0.85],
    [{ label: "도로명주소", name: "addr" }, undefined, 0.95],
    [{ label: "시군구" }, "{town}", 0.85],
    [{ label: "İlçe" }, "{county or region}", 0.85],
    [{ label: "Irányítószám" }, "{postcode}", 0.85],
    [{ label: "Kode Pos" }, "{postcode}", 0.85],
    [{ label: "Andar" }, "{floor}", 0.85],
    [{ label: "Find your address" }, "search", 0.85],
  ])("reads %j as %s", (given, binding, sureness) => {
    const [proposal] = propose([control(given)]);
    const { field } = proposal;
    expect(field.kind === "search" ? "search" : field.binding).toBe(binding);
    expect(proposal.sureness).toBeCloseTo(sureness, 2);
  });

  it.each([
    [{ label: "Email address" }],
    [{ label: "IP address" }],
    [{ label: "Country of birth" }],
    [{ label: "Phone number" }],
    [{ label: "Order number" }],
    [{ label: "Numer zamówienia" }],
    [{ label: "Număr comandă" }],
    [{ label: "Naslov knjige" }],
    [{ label: "Lokal wyborczy" }],
    [{ name: "order_number" }],
    [{ label: "Country code", type: "tel" }],
    [{ label: "Estado civil" }],
    [{ label: "Address", autocomplete: "email" }],
    [{ label: "Number of guests" }],
    [{ label: "Web address", type: "url" }],
    [{ label: "Your name" }],
    [{ label: "Name", name: "name" }],
    [{ label: "Last name", name: "last_name" }],
    [{ label: "Full name" }],
    [{ label: "Stock", name: "stock" }],
    [{ label: "Country of issue" }],
    [{ label: "Birth (town, region)" }],
    [{ label: "Status" }],
    [{ label: "Numéro de carte" }],
    [{ label: "State of the order" }],
    [{ label: "Street food preference" }],
    [{ label: "PIN of your card" }],
    [{ label: "Validation states", placeholder: "Valid state" }],
    [{ label: "Cedex", name: "postal-code" }],
    [{ label: "Where you were", tag: "select" as const, options: STATES }],
  ])("leaves %j alone", (given) => {
    expect(bound(given, { label: "Street" })[0]).toBe("");
  });

  it("takes a first line for a street where a number stands beside it", () => {
    expect(bound({ label: "Straße" }, { label: "Hausnummer" }, { label: "Ort" })).toEqual([
      "{street or block or place}",
      "{house or building}",
      "{town}",
    ]);
    expect(bound({ label: "Straße und Hausnummer" }, { label: "Ort" })).toEqual(["address-line1", "{town}"]);
    expect(bound({ label: "Street" })).toEqual(["address-line1"]);
    expect(bound({ label: "Number" })).toEqual([""]);
    expect(bound({ label: "Anschrift", tag: "textarea", type: "textarea" })).toEqual(["{lines}"]);
  });

  it("fills one field with all parts that its label names", () => {
    expect(bound({ label: "PLZ / Ort" }, { label: "Town and postcode" })).toEqual([
      "{postcode} {town}",
      "{town} {postcode}",
    ]);
    expect(bound({ label: "Building, floor, flat" }, { label: "Town" }, { label: "Street" })[0]).toBe("{unit}");
    expect(bound({ label: "Postcode or town" })[0]).not.toContain("} {");
  });

  it("takes what is of an address in few forms alone for none where nothing else is", () => {
    expect(bound({ label: "Unit" }, { label: "Region" }, { label: "Price" }, { label: "Level" })).toEqual([
      "",
      "",
      "",
      "",
    ]);
  });

  it("knows a PIN code beside an address as a postcode, and no name of a control is special", () => {
    expect(bound({ label: "Street" }, { label: "City" }, { label: "PIN code" })[2]).toBe("{postcode}");
    expect(bound({ name: "constructor", label: "Town" }, { name: "__proto__", label: "Postcode" })).toEqual([
      "{town}",
      "{postcode}",
    ]);
  });

  it.each([
    { label: "State of the order", name: "state" },
    { label: "State of the order", name: "order_state" },
    { label: "Street food preference", name: "street_food" },
    { label: "Order status", name: "status" },
  ])("leaves %j alone in a form that surely asks for an address", (given) => {
    const address = [{ label: "Street" }, { label: "City" }, { label: "Postcode" }, { label: "Country" }];
    expect(bound(given, ...address)[0]).toBe("");
    expect(bound(...address, given)[4]).toBe("");
  });

  it("believes weak words in a form that surely asks for an address", () => {
    expect(bound({ placeholder: "Address" }, { placeholder: "State" })).toEqual(["", ""]);
    expect(bound({ placeholder: "Address" }, { placeholder: "State" }, { label: "City" }, { label: "Zip" })).toEqual([
      "address-line1",
      "{region or county}",
      "{town}",
      "{postcode}",
    ]);
  });

  it("takes codes of countries for a country, and a third line for what is smaller than a town", () => {
    const countries = ["AT", "BE", "CH", "DK", "EE", "FI"].map((value) => ({ value, label: `Land ${value}` }));
    expect(bound({ tag: "select", options: countries })).toEqual(["{country.code}"]);
    expect(bound({ autocomplete: "address-line2" }, { autocomplete: "address-line3" })).toEqual([
      "{unit}",
      "{district}",
    ]);
  });

  it("keeps several addresses apart: by tokens, by names, by headings", () => {
    const sections = (...controls: Partial<FoundControl>[]) =>
      propose(controls.map((one, i) => control({ name: `f${i}`, ...one }))).map(({ field }) => field.address);
    expect(sections({ autocomplete: "billing postal-code" }, { autocomplete: "shipping postal-code" })).toEqual([
      "billing",
      "shipping",
    ]);
    expect(sections({ name: "billing_city" }, { name: "shipping_city" })).toEqual(["billing", "shipping"]);
    expect(
      sections({ label: "Ort", groups: ["Rechnungsadresse"] }, { label: "Ort", groups: ["Lieferadresse"] }),
    ).toEqual(["billing", "shipping"]);
    expect(sections({ label: "Town" }, { label: "Postcode" })).toEqual([undefined, undefined]);
  });

  it("keeps apart what asks for several addresses without a word that is known", () => {
    const sections = (...controls: Partial<FoundControl>[]) =>
      propose(controls.map((one, i) => control({ name: `f${i}`, ...one }))).map(({ field }) => field.address);
    const asking = (more: (label: string) => Partial<FoundControl>) =>
      ["Street", "City", "Postcode"].map((label) => ({ label, ...more(label) }));
    // by what they are under, whatever is above both
    expect(
      sections(
        ...asking(() => ({ groups: ["Applicant", "Membership"] })),
        ...asking(() => ({ groups: ["Second applicant", "Membership"] })),
      ),
    ).toEqual([...Array(3).fill("applicant"), ...Array(3).fill("second-applicant")]);
    // by the numbers in their names, in whatever order
    const numbered = asking((label) => ({ name: `people[0].${label}` })).flatMap((one, i) => [
      one,
      { ...one, name: `people[1].${["Street", "City", "Postcode"][i]}` },
    ]);
    expect(sections(...numbered)).toEqual([
      "address-1",
      "address-2",
      "address-1",
      "address-2",
      "address-1",
      "address-2",
    ]);
    // by turns
    expect(sections(...asking(() => ({})), ...asking(() => ({})))).toEqual([
      ...Array(3).fill("address-1"),
      ...Array(3).fill("address-2"),
    ]);
    // a postcode in two boxes is of one address
    expect(sections(...asking(() => ({})), { label: "Postcode" })).toEqual(Array(4).fill(undefined));
  });

  it("takes names over as ours have to be, each once, and leaves out what no field can be", () => {
    const names = propose([
      control({ name: "user[address][city]" }),
      control({ name: "user.address.city" }),
      control({ name: "1st" }),
      control({ name: "" }),
      control({ name: "pass", type: "password" }),
      control({ name: "agree", type: "checkbox" }),
    ]).map(({ field }) => field.name);
    expect(names).toEqual(["user-address-city", "user-address-city-2", "st"]);
  });

  it("names a control that has no name by its words", () => {
    const proposals = propose([
      control({ name: "", label: "Postal Code" }),
      control({ name: "", placeholder: "City" }),
      control({ name: "", label: "Πόλη" }),
    ]);
    expect(proposals.map(({ field }) => field.name)).toEqual(["Postal-Code", "City", "field"]);
    expect(proposals.map(({ field }) => field.binding)).toEqual(["{postcode}", "{town}", "{town}"]);
  });
});

describe("fitting", () => {
  it("keeps what is of an address, and as many others as there is room for", () => {
    const labels = ["Colour", "Town", "Size", "Postcode", "Taste"];
    const proposals = propose(labels.map((label) => control({ name: label.toLowerCase(), label })));
    const kept = (room: number) => fitting(proposals, room).map(({ field }) => field.label);
    expect(kept(9)).toEqual(labels);
    expect(kept(3)).toEqual(["Colour", "Town", "Postcode"]);
    expect(kept(1)).toEqual(["Town"]);
  });
});

describe("wordsOf", () => {
  it("parts names as programs write them", () => {
    expect(wordsOf("billingAddress_street1")).toEqual(["billing", "address", "street", "1"]);
    expect(wordsOf("Code postal (obligatoire)")).toEqual(["code", "postal", "obligatoire"]);
    expect(wordsOf("Straße/Nr.")).toEqual(["strasse", "nr"]);
  });

  const AREAS = ["Antares", "Boyero", "Caldera", "Dorada", "Estrella", "Faro"].map((value) => ({
    value,
    label: value,
  }));
  it.each([
    [["Dirección", "Departamento", "Municipio", "Código postal"], "{region or county}"],
    [["Dirección", "Departamento", "Provincia", "Distrito"], "{region or county}"],
    [["Calle", "Número", "Piso", "Departamento", "Localidad", "Provincia"], "{unit}"],
    [["Calle", "Número exterior", "Departamento", "Colonia", "Ciudad", "Código postal"], "{unit}"],
  ])("a department is what lies around it, or a flat: %j", (labels, expected) => {
    const at = labels.indexOf("Departamento");
    expect(bound(...labels.map((label) => ({ label })))[at]).toBe(expected);
  });

  it("a department that is chosen from a long list is an area", () => {
    const list = { label: "Departamento", tag: "select" as const, options: AREAS };
    expect(bound({ label: "Dirección" }, list, { label: "Ciudad" })[1]).toBe("{region or county}");
  });

  it("a country alone is no address, and beside a line of one it is", () => {
    const others = [{ label: "Name" }, { label: "Email", type: "email" }];
    expect(bound(...others, { label: "Country" })).toEqual(["", "", ""]);
    expect(bound(...others, { label: "Street address" }, { label: "Country" })[3]).toBe("{country}");
  });
});
