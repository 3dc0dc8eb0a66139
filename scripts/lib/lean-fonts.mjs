import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import subsetFont from "subset-font";
import { home, makeFolder } from "./places.mjs";

/** ASCII, and the signs that our own words use: all that most pages show. */
const COMMON = [[0x20, 0x7e], 0xa0, 0xb0, 0xb7, 0xd7, [0x2013, 0x2014], [0x2018, 0x201d], 0x2026];
const RANGE = COMMON.map((one) => [one].flat().map((code) => code.toString(16).toUpperCase()))
  .map((ends) => `U+${ends.join("-")}`)
  .join(",");
const TEXT = COMMON.map((one) => (Array.isArray(one) ? one : [one, one]))
  .flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i)))
  .join("");

/** From which weight to which our words are. */
const WEIGHTS = { min: 400, max: 700 };
const FACE = /@font-face\s*\{[^}]*url\(\.\/files\/([\w-]+-latin-(?!ext)[\w-]+\.woff2)\)[^}]*\}/g;

/**
 * For Vite: gives each face of Latin letters a small file for what most pages show. A browser takes the last face that has a
 * letter, so the whole file is only loaded by pages that show others.
 * @returns {import("vite").Plugin}
 */
export function leanFonts() {
  return {
    name: "lean-fonts",
    enforce: "pre",
    async transform(css, id) {
      if (!/\/@fontsource[\w-]*\/.*\.css$/.test(id)) return undefined;
      let lean = css;
      for (const [face, file] of css.matchAll(FACE)) {
        const path = await leanFile(join(dirname(id), "files", file));
        const small = face
          .replace(/src:[^;]*;/, `src: url(${path}) format('woff2');`)
          .replace(/unicode-range:[^;}]*/, `unicode-range: ${RANGE}`);
        lean += `\n${small}\n`;
      }
      return { code: lean, map: null };
    },
  };
}

/** The file of a font with the common letters alone; made once for each font. @returns its path */
async function leanFile(path) {
  const font = readFileSync(path);
  const digest = createHash("sha256").update(font).update(TEXT).digest("hex").slice(0, 12);
  const lean = join(makeFolder(join(home, "fonts")), `${basename(path, ".woff2")}-common-${digest}.woff2`);
  if (existsSync(lean)) return lean;
  const how = {
    targetFormat: "woff2",
    // signs of two letters of a font for code are no use in addresses; other fonts keep their figures of one width
    noLayoutClosure: path.includes("mono"),
    ...(path.includes("-wght-") ? { variationAxes: { wght: WEIGHTS } } : {}),
  };
  writeFileSync(lean, await subsetFont(font, TEXT, how));
  return lean;
}
