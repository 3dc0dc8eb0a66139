import { readFileSync } from "node:fs";
import { defineConfig } from "vitepress";

const { version } = JSON.parse(readFileSync(new URL("../../packages/kit/package.json", import.meta.url), "utf8"));

/** Pages in the order in which somebody new needs them. */
const SIDEBAR = [
  {
    text: "Start",
    items: [
      { text: "Overview", link: "/" },
      { text: "The kit", link: "/kit" },
      { text: "The picker", link: "/picker" },
      { text: "Patterns", link: "/patterns" },
      { text: "Outside services", link: "/services" },
      { text: "Glossary", link: "/glossary" },
    ],
  },
  {
    text: "Reference",
    items: [
      { text: "HTTP API", link: "/api" },
      { text: "HTTP reference", link: "/api-reference" },
      { text: "Reference of the kit", link: "/kit-reference" },
    ],
  },
  {
    text: "Run your own",
    items: [
      { text: "Operations", link: "/operations" },
      { text: "From one machine to many", link: "/scale" },
      { text: "Security", link: "/security" },
      { text: "OWASP ASVS 5, level 2", link: "/asvs" },
    ],
  },
  {
    text: "How it works",
    items: [
      { text: "Architecture", link: "/architecture" },
      { text: "Index format", link: "/index-format" },
      { text: "Benchmarks", link: "/benchmarks" },
      { text: "Dependencies", link: "/dependencies" },
    ],
  },
];

/** Links to files of the clone, which are no pages: their words stay. */
function withoutFiles(markdown) {
  const usual = markdown.renderer.rules;
  let isFile = false;
  const open = usual.link_open;
  const close = usual.link_close;
  const plain = (tokens, i, options, _, self) => self.renderToken(tokens, i, options);
  usual.link_open = (tokens, i, ...rest) => {
    isFile = tokens[i].attrGet("href")?.startsWith("../") ?? false;
    return isFile ? "" : (open ?? plain)(tokens, i, ...rest);
  };
  usual.link_close = (tokens, i, ...rest) => {
    const wasFile = isFile;
    isFile = false;
    return wasFile ? "" : (close ?? plain)(tokens, i, ...rest);
  };
}

export default defineConfig({
  title: "Bibliotope",
  description: "Address and place search for application forms",
  lang: "en",
  base: "/docs/",
  srcDir: "../docs",
  outDir: "./dist",
  cacheDir: "./.vitepress/cache",
  metaChunk: true,
  markdown: { config: withoutFiles },
  themeConfig: {
    nav: [{ text: `Version ${version}`, link: "/" }],
    sidebar: SIDEBAR,
    outline: { level: [2, 3] },
    // what a section is called says more than that it is mentioned
    search: {
      provider: "local",
      options: {
        miniSearch: { searchOptions: { boost: { title: 6, titles: 4, text: 1 }, fuzzy: 0.1, combineWith: "AND" } },
        // somebody who searches for a call wants the guide first, which leads to the reference: its headings count as text
        _render: (source, env, markdown) => {
          const html = markdown.render(source, env);
          if (env.frontmatter?.search === false) return "";
          return env.relativePath === "api-reference.md" ? html.replace(/<(\/?)h3[^>]*>/g, "<$1p>") : html;
        },
      },
    },
    docFooter: { prev: "Before", next: "Next" },
  },
});
