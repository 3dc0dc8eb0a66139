import { describe, expect, it } from "vitest";
import { withoutLeadIn } from "./lead-in.ts";

const left = (text: string) => withoutLeadIn(text).trim();

describe("an address in a sentence", () => {
  it.each([
    ["Where is 12 Harbour Row, Tidewell?", "12 Harbour Row, Tidewell?"],
    ["Where's 12 Harbour Row?", "12 Harbour Row?"],
    ["how do I get to 12 Harbour Row", "12 Harbour Row"],
    ["Please deliver it to 12 Harbour Row", "12 Harbour Row"],
    ["Deliver to: 12 Harbour Row", "12 Harbour Row"],
    ["directions to Tidewell", "Tidewell"],
    ["I live at 12 Harbour Row", "12 Harbour Row"],
    ["I'm at 12 Harbour Row", "12 Harbour Row"],
    ["My new address is 12 Harbour Row", "12 Harbour Row"],
    ["The old shop is at 12 Harbour Row", "12 Harbour Row"],
    ["Let's meet at 12 Harbour Row", "12 Harbour Row"],
    ["Wo ist die Lindenstraße 5?", "die Lindenstraße 5?"],
    ["Wo liegt Birkenau", "Birkenau"],
    ["Wie komme ich zur Lindenstraße 5", "Lindenstraße 5"],
    ["Ich wohne in der Lindenstraße 5", "in der Lindenstraße 5"],
    ["Bitte liefern Sie an Lindenstraße 5", "Lindenstraße 5"],
    ["Meine Adresse lautet: Lindenstraße 5", "Lindenstraße 5"],
    ["Où se trouve 5 rue des Lilas ?", "5 rue des Lilas ?"],
    ["J’habite au 5 rue des Lilas", "5 rue des Lilas"],
    ["Mon adresse est 5 rue des Lilas", "5 rue des Lilas"],
    ["¿Dónde está la calle Mayor 5?", "la calle Mayor 5?"],
    ["Cómo llegar a Calle Mayor 5", "Calle Mayor 5"],
    ["Onde fica a Rua das Flores 5?", "a Rua das Flores 5?"],
    ["Moro na Rua das Flores 5", "Rua das Flores 5"],
    ["Dov'è via Roma 5?", "via Roma 5?"],
    ["Abito in via Roma 5", "via Roma 5"],
    ["Waar ligt Kerkstraat 5", "Kerkstraat 5"],
    ["Ik woon op Kerkstraat 5", "Kerkstraat 5"],
    ["Gdzie jest ulica Polna 5?", "ulica Polna 5?"],
    ["Jak dojechać do ulica Polna 5", "ulica Polna 5"],
    ["Var ligger Storgatan 5?", "Storgatan 5?"],
    ["Hvor er Havnegade 5", "Havnegade 5"],
    ["Missä on Koivukatu 5", "Koivukatu 5"],
    ["Kde je Lipová 5?", "Lipová 5?"],
    ["Hol van a Petőfi utca 5", "a Petőfi utca 5"],
    ["Unde este Strada Florilor 5", "Strada Florilor 5"],
    ["Πού βρίσκεται Ερμού 5;", "Ερμού 5;"],
    ["Где находится улица Садовая 5?", "улица Садовая 5?"],
    ["桜町3丁目5はどこですか？", "桜町3丁目5"],
    ["무궁화로 5 어디예요?", "무궁화로 5"],
    ["莲花路5号在哪里？", "莲花路5号"],
    ["Lale Sokak 5 nerede?", "Lale Sokak 5"],
  ])("%j is %j", (text, address) => {
    expect(left(text)).toBe(address);
    expect(withoutLeadIn(text)).toHaveLength(text.length);
  });

  it.each([
    "Where Street 5",
    "Post Lane 12, Tidewell",
    "Route de Dol 12",
    "12 Route Lane",
    "Show Me Hill 5",
    "Way Close 3",
    "Var Street 4",
    "Isle At Sea",
    "Wohnpark 5",
    "The Isis Road 4",
    "Live Oak Avenue 5",
    "In der Au 5",
    "Am Ort 3",
    "Como 5",
    "Ou 5",
    "Gde 5",
    "Direction Road",
  ])("stays as it is where it only looks like that: %s", (text) => {
    expect(withoutLeadIn(text)).toBe(text);
  });
});
