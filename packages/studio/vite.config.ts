import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { compression } from "vite-plugin-compression2";
import { leanFonts } from "../../scripts/lib/lean-fonts.mjs";
import { noticesInChunks } from "../../scripts/lib/notices.mjs";

/** Scripts and styles beside themselves, as small as can be: the server has no time for that. */
const compressed = compression({ algorithms: ["brotliCompress"], include: /\.(js|css)$/, threshold: 1024 });

/** The workbench. `npm run dev` serves it beside a server that npm start runs. */
export default defineConfig({
  // the server puts in the path that it is served under
  base: "./",
  plugins: [leanFonts(), react(), tailwindcss(), noticesInChunks(), compressed],
  resolve: { conditions: ["source"] },
  build: { outDir: "dist-web", target: "es2022", assetsInlineLimit: 0, chunkSizeWarningLimit: 800 },
  worker: { format: "es" },
  server: {
    proxy: {
      "/api": "http://localhost:4870",
      "/v1": "http://localhost:4870",
      "/f": "http://localhost:4870",
      "/kit": "http://localhost:4870",
    },
  },
});
