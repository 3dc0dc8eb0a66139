/** Words that Thalmyra's names are made of, in its own letters; the Latin form is written from them. */
export const THALMYRA_WORDS = {
  country: "Θαλμύρα",
  regions: ["Βορεία", "Νοτία", "Μεσαία"],
  firstTowns: ["Πελανία", "Κορθέα", "Λεβάθος"],
  townStarts: ["Μυρσ", "Νησαρ", "Δροσ", "Ελαιν", "Αλμ", "Καλαθ", "Φωτερ", "Χαλικ", "Ψαρ", "Σπαρθ", "Ορμ", "Θυμαρ", "Γλαρ", "Βαθυρ"],
  townEnds: ["ιά", "ούσα", "ερός", "αία", "ώνα", "ίδα", "άκι", "ωτό"],
  districts: ["Άνω Λίμνα", "Κάτω Λίμνα", "Παλαιά Αγορά", "Νέος Μώλος", "Γλαρόπετρα", "Ανεμόμυλα"],
  block: "Τετράγωνο",
  blockAbbr: "Τετρ.",
  waters: ["Πέλαγος Θαλμύρας", "Όρμος Κορθέας"],
  parks: ["Άλσος", "Κήπος"],
} as const;
