import vue from "@vitejs/plugin-vue";
import { defineConfig } from "vite";

/** Tags of the kit are elements of the browser; the page may know where the service is, and the web key. */
export default defineConfig({
  plugins: [vue({ template: { compilerOptions: { isCustomElement: (tag) => tag.startsWith("bibliotope-") } } })],
  envPrefix: ["VITE_", "BIBLIOTOPE_URL", "BIBLIOTOPE_WEB_KEY"],
});
