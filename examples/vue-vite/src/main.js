import { defineElements } from "@bibliotope/kit/elements";
import { createApp } from "vue";
import App from "./App.vue";

defineElements();
createApp(App).mount("#app");
