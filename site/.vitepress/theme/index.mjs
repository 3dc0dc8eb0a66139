import "@fontsource-variable/commissioner";
import "@fontsource-variable/jetbrains-mono";
import "@fontsource-variable/literata";
import Theme from "vitepress/theme-without-fonts";
import { LivePiece } from "./live-piece.mjs";
import "./paper.css";

export default {
  extends: Theme,
  enhanceApp: ({ app }) => void app.component("LivePiece", LivePiece),
};
