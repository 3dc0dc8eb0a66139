import type { Random } from "../random.ts";

/** Sounds that a language makes its words of. */
interface Sounds {
  begin: readonly string[];
  middle: readonly string[];
  vowels: readonly string[];
  end: readonly string[];
}

const list = (text: string) => text.split(" ");

export const SOUNDS = {
  lorramere: {
    begin: list("b br c cl cr d dr f fl g gr h j k l m n p pl pr qu r s sh sk sl sp st t th tr v w wh y"),
    middle: list("b ck d dd ff g ll m mm n nd ng nt p r rr rk rl rn s ss st t tt th v x"),
    vowels: list("a a a e e e i i o o u ea oo ai"),
    end: list("ley ton ham ow er en el ock ard ing am and eth ick old ore ane ent ish oll"),
  },
  ovarde: {
    begin: list("b bj br d f fj g gr h hv j k kn kv l m n r s sk sl sn st t tj v"),
    middle: list("d ff g gg k kk l ll lk m n nd ng r rk rn rs sk st t tt v"),
    vowels: list("a a e e i o u å ä ö ø y ý é"),
    end: list("n r l d s ck nd rn sk st"),
  },
  thalmyra: {
    begin: list("β γ δ θ κ λ μ ν π ρ σ τ φ χ ψ"),
    middle: list("β γ δ θ κ λ λλ μ ν ρ σ τ φ χ"),
    vowels: list("α α ε η ι ο ω υ"),
    end: list("ος α ια ων ι άδα ίνα ούσα"),
  },
} satisfies Record<string, Sounds>;

/** Distinct words of a language with a capital, in an order of their own; the early ones are the shorter ones. */
export function makeWords(sounds: Sounds, count: number, random: Random): string[] {
  const words = new Set<string>();
  const short = (sounds.begin.length * sounds.end.length) / 4;
  while (words.size < count) {
    const syllables = words.size < short ? 1 : random.chance(0.7) ? 2 : 3;
    let word = random.pick(sounds.begin) + random.pick(sounds.vowels);
    for (let i = 1; i < syllables; i++) word += random.pick(sounds.middle) + random.pick(sounds.vowels);
    const ended = word.replace(/[aeiouyåäöøýéαεηιουω]+$/u, "") + random.pick(sounds.end);
    word = syllables === 1 || random.chance(0.6) ? ended : word + random.pick(sounds.middle);
    words.add(word[0].toUpperCase() + word.slice(1));
  }
  return [...words];
}

/** Picks places of a list by a Zipf law: the place k comes in proportion to 1 / (k + 1) ** exponent. */
export class Zipf {
  readonly #sums: Float64Array;

  constructor(count: number, exponent: number) {
    this.#sums = new Float64Array(count);
    let sum = 0;
    for (let k = 0; k < count; k++) this.#sums[k] = sum += 1 / (k + 1) ** exponent;
  }

  pick(random: Random): number {
    const wanted = random.next() * this.#sums[this.#sums.length - 1];
    let low = 0;
    let high = this.#sums.length - 1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (this.#sums[middle] < wanted) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}
