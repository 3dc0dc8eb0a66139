/** The kit without a build step: everything, in the language of the page, and the elements are made known at once. */
import { defineElements } from "./elements/index.ts";
import { loadWords, setWords } from "./words/index.ts";

export * from "./index.ts";

// without the words the kit speaks English
setWords(await loadWords(document.documentElement.lang).catch(() => undefined));
defineElements();
