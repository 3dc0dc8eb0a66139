import { defineConfig } from "vite";

/** Settings of the environment that the page may know: where the service is, and the web key. */
export default defineConfig({
  envPrefix: ["VITE_", "BIBLIOTOPE_URL", "BIBLIOTOPE_WEB_KEY"],
});
