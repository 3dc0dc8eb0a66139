import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { defineConfig, type Plugin, type UserConfig } from "vite";
import { ELEMENTS } from "../../scripts/lib/kit-elements.mjs";
import { noticesInChunks } from "../../scripts/lib/notices.mjs";

const { version } = JSON.parse(readFileSync(new URL("package.json", import.meta.url), "utf8"));
const WEB = "dist-web";

/** Files of the kit that are built on their own, so that each is whole: by the end of what is imported. */
const APART: Record<string, string> = { "relief/relief-view.ts": "./relief.js", "web.ts": "./bibliotope.js" };

/** Leaves out what has a file of its own. */
function apart(except: string): Plugin {
  return {
    name: "kit-apart",
    enforce: "pre",
    resolveId(source, importer) {
      const language = /(?:^|\/)words\/(\w\w)\.ts$|^\.\/(\w\w)\.ts$/.exec(importer ? source : "");
      if (language) return { id: `./words/${language[1] ?? language[2]}.js`, external: true };
      const found = importer && Object.entries(APART).find(([end]) => source.endsWith(end));
      return found && found[1] !== except ? { id: found[1], external: true } : undefined;
    },
  };
}

/** The name of a module that no file has. */
const aloneOf = (name: string) => join(import.meta.dirname, "src", `${name}-alone.ts`);

/** An element alone: it makes itself known, in the language of the page. */
function piece(name: string): Plugin {
  const id = aloneOf(name);
  const from = (file: string) => JSON.stringify(join(import.meta.dirname, "src", file));
  const element = `${name[0].toUpperCase()}${name.slice(1)}Element`;
  return {
    name: "kit-piece",
    resolveId: (source) => (source === id ? id : undefined),
    load: (loaded) =>
      loaded === id
        ? `import { ${element} } from ${from(`elements/${name}-element.ts`)};
import { loadWords, setWords } from ${from("words/index.ts")};
export * from ${from(`elements/${name}-element.ts`)};
setWords(await loadWords(document.documentElement.lang).catch(() => undefined));
if (!customElements.get("bibliotope-${name}")) customElements.define("bibliotope-${name}", ${element});`
        : undefined,
  };
}

/** One script that imports no other but those that are apart. */
function script(name: string, input: string, plugins: Plugin[] = []): UserConfig {
  const isPage = name === "page" || name === "pick";
  return {
    base: "./",
    resolve: { conditions: ["source"] },
    plugins: [...plugins, apart(`./${name}.js`), noticesInChunks()],
    publicDir: isPage ? "public" : false,
    build: {
      outDir: WEB,
      emptyOutDir: false,
      target: "es2022",
      sourcemap: true,
      assetsInlineLimit: 0,
      chunkSizeWarningLimit: 800,
      modulePreload: false,
      // as a library, so that nothing of a page's loading is put around its imports
      ...(isPage ? {} : { lib: { entry: { [name]: input }, formats: ["es" as const] } }),
      rolldownOptions: {
        ...(isPage ? { input: { [name]: input } } : {}),
        preserveEntrySignatures: "strict",
        output: {
          entryFileNames: "[name].js",
          assetFileNames: "[name][extname]",
          codeSplitting: false,
          minify: true,
          banner: isPage ? "" : `/*! Bibliotope kit ${version} */`,
        },
      },
    },
    worker: { format: "es" },
  };
}

const LANGUAGES = readdirSync(join(import.meta.dirname, "src/words")).filter((file) => /^\w\w\.ts$/.test(file));

/** The kit's words, a script for each language. */
const words: UserConfig = {
  publicDir: false,
  build: {
    outDir: `${WEB}/words`,
    emptyOutDir: false,
    lib: { entry: LANGUAGES.map((file) => `src/words/${file}`), formats: ["es"], fileName: "[name]" },
    rolldownOptions: { output: { minify: true } },
  },
};

/** What the package offers by its names. */
const ENTRIES = {
  index: "src/index.ts",
  client: "src/client/index.ts",
  search: "src/search/index.ts",
  form: "src/form/index.ts",
  fill: "src/fill/index.ts",
  map: "src/map/index.ts",
  elements: "src/elements/index.ts",
  ...Object.fromEntries(
    ["map", "picker", "report", "search", "still"].map((name) => [
      `elements/${name}`,
      `src/elements/${name}-element.ts`,
    ]),
  ),
  react: "src/react/index.ts",
  vue: "src/vue/index.ts",
  lookup: "src/lookup/index.ts",
  server: "src/server/index.ts",
  testing: "src/testing/index.ts",
  playwright: "src/playwright/index.ts",
  words: "src/words/index.ts",
};

/** The relief with what it draws by is a file of its own: beside it, the package has a file for each of its modules. */
const RELIEF = "relief-view.js";

/** Leaves the relief to the file that it has of its own. */
const reliefApart: Plugin = {
  name: "kit-relief-apart",
  enforce: "pre",
  resolveId: (source) =>
    /\/relief-view(\.ts|\.js)$/.test(source) ? { id: `../../../${RELIEF}`, external: true } : undefined,
};

const pack: UserConfig = {
  resolve: { conditions: ["source"] },
  plugins: [reliefApart, noticesInChunks()],
  publicDir: false,
  build: {
    outDir: "dist-package",
    emptyOutDir: true,
    target: "es2022",
    sourcemap: true,
    minify: false,
    lib: { entry: ENTRIES, formats: ["es"] },
    rolldownOptions: {
      external: [/^react($|\/)/, "vue"],
      preserveEntrySignatures: "strict",
      // bundlers leave out whole modules with certainty, single names of one only where they see that nothing else comes of it
      output: {
        preserveModules: true,
        preserveModulesRoot: join(import.meta.dirname, ".."),
        entryFileNames: "modules/[name].js",
        chunkFileNames: "modules/[name].js",
      },
    },
  },
  // it comes as a text, which no bundler makes smaller later
  worker: { format: "es", rolldownOptions: { output: { minify: true } } },
};

/** The relief of the package, after all else of it. */
const packRelief: UserConfig = {
  resolve: { conditions: ["source"] },
  plugins: [noticesInChunks()],
  publicDir: false,
  build: {
    outDir: "dist-package",
    emptyOutDir: false,
    target: "es2022",
    minify: true,
    lib: { entry: { "modules/relief-view": "src/relief/relief-view.ts" }, formats: ["es"], fileName: "[name]" },
  },
};

/** The kit as one script, `--mode` its relief, an element alone, the page of a form alone, that of the picker, or the package that is installed. */
export default defineConfig(({ mode }) => {
  if (mode === "package") return pack;
  if (mode === "package-relief") return packRelief;
  if (mode === "relief") return script("relief", "src/relief/relief-view.ts");
  if (mode === "words") return words;
  if (mode === "page") return script("page", "src/page.ts");
  if (mode === "pick") return script("pick", "src/pick.ts");
  if (ELEMENTS.includes(mode)) return script(mode, aloneOf(mode), [piece(mode)]);
  return script("bibliotope", "src/web.ts");
});
