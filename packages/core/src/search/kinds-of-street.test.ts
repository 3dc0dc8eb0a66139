import { expect, it } from "vitest";
import { Segment, SegmentBuilder } from "../index/index.ts";
import { Engine } from "./index.ts";

/** Countries with towns, of which each has streets with the houses 1 to 9. */
type Lands = Readonly<Record<string, { lang: string; towns: Readonly<Record<string, readonly string[]>> }>>;

function engineOf(lands: Lands): Engine {
  const builder = new SegmentBuilder();
  let identity = 1;
  Object.entries(lands).forEach(([code, { lang, towns }], c) => {
    const country = identity++;
    const base = { lat: 40 + c * 3, lon: 10 + c * 3 };
    const names = (name: string) => [{ lang, name }];
    const common = { at: base, importance: 0.5 };
    builder.addArea({
      ...common,
      identity: country,
      kind: "country",
      parent: null,
      code,
      names: names(code),
      rings: [],
    });
    Object.entries(towns).forEach(([town, streets], t) => {
      const at = { lat: base.lat + t * 0.3, lon: base.lon };
      const area = identity++;
      builder.addArea({
        identity: area,
        kind: "town",
        parent: country,
        names: names(town),
        at,
        importance: 0.3,
        rings: [],
      });
      streets.forEach((name, s) => {
        const street = identity++;
        const of = { lat: at.lat + s * 0.01, lon: at.lon };
        builder.addStreet({ identity: street, kind: "street", area, names: names(name), at: of, importance: 0.2 });
        for (let number = 1; number < 10; number++)
          builder.addAddress({
            identity: identity++,
            street,
            number,
            suffix: "",
            postcode: null,
            at: { lat: of.lat, lon: of.lon + number * 1e-4 },
          });
      });
    });
  });
  return new Engine(new Segment(builder.finish({ name: "lands", sources: [] })));
}

const asked = (engine: Engine, q: string) => {
  const { outcome, candidates } = engine.forward({ q });
  return `${outcome}: ${candidates[0]?.line}`;
};

const WITHOUT = engineOf({
  GR: { lang: "el", towns: { "Κάτω Πλατανιά": ["Πλατάνου", "Ελιάς"], "Νέα Πηγή": ["Πλατάνου", "Μύλου"] } },
  SK: { lang: "sk", towns: { Lipová: ["Lipová", "Mlynská"], Brezina: ["Lipová", "Školská"] } },
  SI: { lang: "sl", towns: { Lipovica: ["Lipova ulica", "Šolska cesta"] } },
});

it.each([
  ["Οδός Πλατάνου 3, Κάτω Πλατανιά", "matched: Πλατάνου 3, Κάτω Πλατανιά"],
  ["οδός Μύλου 3", "matched: Μύλου 3, Νέα Πηγή"],
  ["ul. Lipová 3, Lipová", "matched: Lipová 3, Lipová"],
  ["ulica Lipová 3, Brezina", "matched: Lipová 3, Brezina"],
  ["Lipová ul. 3, Brezina", "matched: Lipová 3, Brezina"],
  ["ul. Mlynská 3, Lipová", "matched: Mlynská 3, Lipová"],
  ["Lipová 3, Lipová", "matched: Lipová 3, Lipová"],
  ["Lipova ul. 3, Lipovica", "matched: Lipova ulica 3, Lipovica"],
])("a kind of street that its register leaves out: %s", (q, expected) => {
  expect(asked(WITHOUT, q)).toBe(expected);
});

const ALIKE = engineOf({
  FR: {
    lang: "fr",
    towns: {
      Fontenelle: ["Rue des Lilas"],
      "Fontenelle-sur-Lise": ["Avenue de Fontenelle-sur-Lise", "Rue des Lilas"],
      Villeneuve: ["Avenue de Fontenelle", "Rue du Moulin"],
    },
  },
});

it.each([
  ["3 Avenue de Fontenelle-sur-Lise, Fontenelle", "differs: 3 Avenue de Fontenelle-sur-Lise, Fontenelle-sur-Lise"],
  [
    "3 Avenue de Fontenelle-sur-Lise, Fontenelle-sur-Lise",
    "matched: 3 Avenue de Fontenelle-sur-Lise, Fontenelle-sur-Lise",
  ],
  ["3 Avenue de Fontenelle, Villeneuve", "matched: 3 Avenue de Fontenelle, Villeneuve"],
  ["3 Avenue de Fontenelle, Fontenelle", "differs: 3 Avenue de Fontenelle, Villeneuve"],
])("a town that the street is called after is not taken for it: %s", (q, expected) => {
  expect(asked(ALIKE, q)).toBe(expected);
});

const MENDED = engineOf({
  SK: { lang: "sk", towns: { Lipovo: ["Mlynská"], Lipova: ["Školská"], Brezina: ["Hlavná"] } },
});

it.each([
  ["Mlynská 3, Lipova", "differs: Mlynská 3, Lipovo"],
  ["Mlynská 3, Lipovo", "matched: Mlynská 3, Lipovo"],
  ["Školská 3, Lipova", "matched: Školská 3, Lipova"],
  ["Hlavná 3, Brezyna", "matched: Hlavná 3, Brezina"],
])("a town that another one's name is a slip of: %s", (q, expected) => {
  expect(asked(MENDED, q)).toBe(expected);
});

const COMPOUNDS = engineOf({ SE: { lang: "sv", towns: { Berga: ["Pärmgränd", "Åsgång"], Sjöby: ["Vallgatan"] } } });

it.each([
  ["Pärmgränd 4, Berga", "matched: Pärmgränd 4, Berga"],
  ["Parmgrand 4 Berga", "matched: Pärmgränd 4, Berga"],
  // a small word tells nothing of a street, though its name begins and ends like that
  ["Berga 4 Pä", "none: undefined"],
])("a name that ends with a kind of street is more than that: %s", (q, expected) => {
  expect(asked(COMPOUNDS, q)).toBe(expected);
});

const MIXED = engineOf({
  PT: {
    lang: "pt",
    towns: { "Ribeira Fria": ["Avenida da Ponte"], "Monte Fria": ["Rua do Moinho"], "Vila Nova": ["Rua do Monte"] },
  },
  CZ: { lang: "cs", towns: { "Staré Sedlice": ["Polní"], "Dolní Sedlice": ["Lesní"] } },
});

it.each([
  ["Avenida do Fonte 3, Monte Fria", "differs: Avenida da Ponte 3, Ribeira Fria"],
  ["Avenida da Ponte 3, Ribeira Fria", "matched: Avenida da Ponte 3, Ribeira Fria"],
  ["Rua do Monte 3, Vila Nova", "matched: Rua do Monte 3, Vila Nova"],
  ["Dolní Sedlice 3, Staré Sedlice", "differs: Polní 3, Staré Sedlice"],
  ["Polní 3, Staré Sedlice", "matched: Polní 3, Staré Sedlice"],
  ["Polni Stare Sedlice 3, CZ", "matched: Polní 3, Staré Sedlice"],
])("a town's whole name is not shared between street and town: %s", (q, expected) => {
  expect(asked(MIXED, q)).toBe(expected);
});

it("a compound typed in two words is the street, though the first of them also names what it lies in", () => {
  const engine = engineOf({ SE: { lang: "sv", towns: { Björkhamra: ["Segränd", "Lindgränd"] } } });
  expect(asked(engine, "Se gränd 3, Björkhamra")).toBe("matched: Segränd 3, Björkhamra");
});
