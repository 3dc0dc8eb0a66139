/** Words that Lorramere's names are made of. Order matters: early ones come oftener. */
export const LORRAMERE_WORDS = {
  regions: ["The Reaches", "The Holms", "The Uplands"],
  counties: ["Sallow", "Marram", "Cask", "Thrift", "Penhollow", "Orrin", "Quillet", "Brackwell Fold"],
  firstTowns: ["Tidewell", "Sandmouth", "Tidewick", "Lanternmouth"],
  townStarts: ["Gull", "Ket", "Marl", "Wrack", "Osier", "Cold", "Hob", "Samph", "Pell", "Tarn", "Eddy", "Fenn", "Larrow", "Skerr", "Withy", "Amber", "Rill", "Dunn"],
  townEnds: ["well", "mouth", "wick", "holme", "stead", "ness", "combe", "haven", "rigg", "thwaite", "by", "sley"],
  streets: ["Harbour", "Mill", "Church", "Lantern", "Bridge", "Market", "Chandler's", "Cooper's", "Kelp", "Anchor", "Sexton's", "Tern", "Gannet", "Orchard", "Bell", "Ropewalk", "Samphire", "Thrift", "Marram", "Candle", "Salt", "Ferry", "Beacon", "Weaver's", "Fuller's", "Tanner's", "Plover", "Curlew", "Sandpiper", "Quarry", "Hollow", "Heron", "Bramble", "Hazel", "Sallow", "Rowan", "Alder", "Osier", "Ash", "Elder", "Cockle", "Limpet", "Whelk", "Shingle", "Pebble", "Breakwater", "Mast", "Keel", "Halyard", "Spinnaker", "Tiller", "Capstan", "Bosun's", "Pilot", "Signal", "Compass", "Almanac", "Folio", "Quire", "Vellum", "Binder's", "Printer's", "Ink", "Quill", "Scrivener's", "Chapter", "Reader's", "Colophon", "Margin", "Octavo"],
  streetKinds: ["Street", "Road", "Lane", "Row", "Steps", "Hill", "Quay", "Walk", "Green", "Terrace", "Court", "Place"],
  abbreviations: { Street: "St", Road: "Rd", Lane: "Ln", Row: "Rw", Terrace: "Ter", Court: "Ct", Place: "Pl", Quay: "Qy" } as Record<string, string>,
  districts: ["Old Quay", "Upper Town", "Netherfield", "Sexton's Green", "Saltings", "The Ropewalks", "Mill End", "Eastwater"],
  waters: ["Cask Sound", "Marram Bay", "The Long Reach", "Skerry Roads"],
  parks: ["Green", "Gardens", "Common", "Meadow"],
} as const;
