import { defineElements } from "@bibliotope/kit/elements";
import { mount } from "svelte";
import App from "./App.svelte";

defineElements();
mount(App, { target: document.querySelector("#app") });
