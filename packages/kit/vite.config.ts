import { defineConfig } from "vite";

/** The kit without a build step: one ES module, and the page that shows a form alone. */
export default defineConfig({
  base: "/kit/v1/",
  resolve: { conditions: ["source"] },
  build: {
    outDir: "dist-web",
    target: "es2022",
    sourcemap: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    modulePreload: false,
    rolldownOptions: {
      input: { bibliotope: "src/index.ts", page: "src/page.ts" },
      preserveEntrySignatures: "strict",
      output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js", assetFileNames: "[name][extname]" },
    },
  },
  worker: { format: "es" },
});
