/** Words that Ovarde's names are made of: many accents, long compounds. */
export const OVARDE_WORDS = {
  regions: ["Nörrland", "Sýderland", "Øståland"],
  counties: ["Kustlän", "Fjällmark", "Strömlän", "Høgmark", "Vintermark", "Sølvlän", "Tångmark"],
  firstTowns: ["Vårhamn", "Å", "Skëldvík", "Østerbrö"],
  townStarts: ["Brænn", "Ljös", "Grå", "Mørk", "Käll", "Tång", "Hvít", "Skæl", "Fýr", "Strøm", "Björn", "Rødd", "Hög", "Älv"],
  townEnds: ["hamn", "by", "vík", "næs", "sund", "fjäll", "bø", "torp", "mýr", "holm"],
  streets: ["Øster", "Väster", "Hamn", "Kyrk", "Strånd", "Fýr", "Brø", "Mølle", "Gråsten", "Ljung", "Älve", "Björk", "Hømmel", "Skär", "Tjäder", "Rønne", "Slätt", "Segel", "Ankar", "Torsk", "Sill", "Måse", "Tärn", "Ørn", "Gläntan", "Bokbinder", "Papper", "Läse", "Skrivare", "Blæk", "Fjäder", "Pränt", "Kapitel", "Pärm", "Klockar", "Smed", "Tunnbinder", "Repslager", "Sadelmakar", "Vävar"],
  streetKinds: ["gränd", "väg", "stræde", "torg", "bäcke", "gång", "brygga", "allé"],
  districts: ["Gammelkvarter", "Norrkvarn", "Sjösidan", "Kvarnås", "Højden"],
  waters: ["Vårsund", "Gråfjärd", "Lillfjärd"],
  parks: ["lund", "park", "äng"],
} as const;
