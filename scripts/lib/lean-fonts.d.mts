export function leanFonts(): import("vite").Plugin;
