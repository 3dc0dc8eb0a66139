/**
 * Letters that Unicode decomposition leaves whole, and other scripts written in Latin letters.
 * Greek after ISO 843 (simplified to what people type), Cyrillic after ISO 9 without diacritics.
 * A table; read it as data.
 */
export const LETTERS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    // Latin letters that split or lose a stroke
    ß: "ss", ø: "o", æ: "ae", œ: "oe", ð: "d", þ: "th", ł: "l", đ: "d", ħ: "h", ı: "i", ŋ: "n", ŧ: "t", ĸ: "k",
    // Greek
    α: "a", β: "v", γ: "g", δ: "d", ε: "e", ζ: "z", η: "i", θ: "th", ι: "i", κ: "k", λ: "l", μ: "m", ν: "n",
    ξ: "x", ο: "o", π: "p", ρ: "r", σ: "s", ς: "s", τ: "t", υ: "y", φ: "f", χ: "ch", ψ: "ps", ω: "o",
    // Cyrillic
    а: "a", б: "b", в: "v", г: "g", д: "d", е: "e", ж: "zh", з: "z", и: "i", к: "k", л: "l", м: "m", н: "n",
    о: "o", п: "p", р: "r", с: "s", т: "t", у: "u", ф: "f", х: "h", ц: "ts", ч: "ch", ш: "sh", щ: "shch",
    ъ: "", ы: "y", ь: "", э: "e", ю: "yu", я: "ya", є: "ye", і: "i", ї: "i", ґ: "g",
  }),
);

/** Pairs of folded Greek letters that sound as one; applied before the single letters. */
export const PAIRS: ReadonlyMap<string, string> = new Map(Object.entries({ ου: "ou", ευ: "ev", αυ: "av", μπ: "b", ντ: "nt" }));
