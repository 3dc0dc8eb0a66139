import { defineConfig } from "vite";
import { noticesInChunks } from "../../scripts/lib/notices.mjs";

/** The command as one file: Node looks for each file of an import by itself, which would take most of the time of a lookup. */
export default defineConfig({
  plugins: [noticesInChunks()],
  resolve: { conditions: ["source", "node"] },
  ssr: { noExternal: true, resolve: { conditions: ["source", "node"] } },
  publicDir: false,
  build: {
    ssr: "src/main.ts",
    outDir: "dist-run",
    target: "node20",
    minify: false,
    rolldownOptions: { output: { entryFileNames: "bibliotope.js", codeSplitting: false } },
  },
});
