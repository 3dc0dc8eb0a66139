import "@fontsource-variable/commissioner";
import "@fontsource-variable/jetbrains-mono";
import "@fontsource-variable/literata";
import Theme from "vitepress/theme-without-fonts";
import "./paper.css";

export default Theme;
