import { createHash } from "node:crypto";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { defineConfig, type Plugin, type UserConfig } from "vite";
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

/** Notes the Subresource Integrity value of each script, for pages that load it from here. */
function integrity(): Plugin {
  return {
    name: "kit-integrity",
    closeBundle() {
      const folder = join(import.meta.dirname, WEB);
      const digest = (file: string) =>
        `sha384-${createHash("sha384")
          .update(readFileSync(join(folder, file)))
          .digest("base64")}`;
      const files = ["bibliotope.js", "relief.js"].map((file) => [file, digest(file)]);
      writeFileSync(
        join(folder, "integrity.json"),
        JSON.stringify({ version, files: Object.fromEntries(files) }, null, 2),
      );
    },
  };
}

/** One script that imports no other but those that are apart. */
function script(name: string, input: string): UserConfig {
  const isPage = name === "page" || name === "pick";
  return {
    base: "./",
    resolve: { conditions: ["source"] },
    plugins: [apart(`./${name}.js`), noticesInChunks(), ...(name === "relief" ? [integrity()] : [])],
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
  react: "src/react/index.ts",
  vue: "src/vue/index.ts",
  lookup: "src/lookup/index.ts",
  server: "src/server/index.ts",
  testing: "src/testing/index.ts",
  playwright: "src/playwright/index.ts",
  words: "src/words/index.ts",
};

const pack: UserConfig = {
  resolve: { conditions: ["source"] },
  plugins: [noticesInChunks()],
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
      output: { entryFileNames: "[name].js", chunkFileNames: "parts/[name]-[hash].js" },
    },
  },
  worker: { format: "es" },
};

/** The kit as one script, `--mode` its relief, the page of a form alone, that of the picker, or the package that is installed. */
export default defineConfig(({ mode }) => {
  if (mode === "package") return pack;
  if (mode === "relief") return script("relief", "src/relief/relief-view.ts");
  if (mode === "words") return words;
  if (mode === "page") return script("page", "src/page.ts");
  if (mode === "pick") return script("pick", "src/pick.ts");
  return script("bibliotope", "src/web.ts");
});
