import { svelte } from "@sveltejs/vite-plugin-svelte";
import { defineConfig } from "vite";

/** The page may know where the service is, and the web key. */
export default defineConfig({
  plugins: [svelte()],
  envPrefix: ["VITE_", "BIBLIOTOPE_URL", "BIBLIOTOPE_WEB_KEY"],
});
