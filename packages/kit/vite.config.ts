import { defineConfig } from "vite";

/** The kit without a build step: one ES module, and the page that shows a form alone. */
export default defineConfig({
  resolve: { conditions: ["source"] },
  publicDir: "public",
  build: {
    outDir: "dist-web",
    target: "es2022",
    sourcemap: true,
    lib: { entry: { bibliotope: "src/index.ts", page: "src/page.ts" }, formats: ["es"] },
    rolldownOptions: { output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" } },
  },
  worker: { format: "es" },
});
