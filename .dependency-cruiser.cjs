/** Which package and which floor may import what: docs/architecture.md. */
const packages = (names) => `^packages/(${names.join("|")})/`;
const only = (from, allowed) => ({
  name: `${from}-imports-only-${allowed.join("-") || "nothing"}`,
  severity: "error",
  comment: `${from} may import ${allowed.join(", ") || "no package of ours"}`,
  // tests may ask the server that npm test starts
  from: { path: `^packages/${from}/src/`, pathNot: "\\.test\\.ts$" },
  to: { path: "^packages/", pathNot: packages([from, ...allowed]) },
});
/** The floors of the core: each may import those named. */
const FLOORS = {
  text: [],
  geo: [],
  geodesic: ["geo"],
  pattern: [],
  place: ["text", "geo", "pattern"],
  index: ["text", "geo", "pattern", "place"],
  search: ["text", "geo", "geodesic", "pattern", "place", "index"],
  service: ["pattern", "place"],
  form: ["text", "geo", "pattern", "place", "map"],
  formats: ["text", "geo", "place", "pattern"],
  import: ["text", "geo", "place"],
  map: ["geo", "geodesic"],
};
const floor = ([name, allowed]) => ({
  name: `core-${name}-floor`,
  severity: "error",
  comment: `core/${name} may import ${allowed.map((other) => `core/${other}`).join(", ") || "no other floor"}`,
  from: { path: `^packages/core/src/${name}/` },
  to: { path: "^packages/core/src/", pathNot: `^packages/core/src/(${[name, ...allowed].join("|")})/` },
});

module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    only("core", []),
    only("wire", ["core"]),
    only("kit", ["core", "wire"]),
    only("islands", ["core"]),
    only("standins", ["core", "islands"]),
    only("server", ["core", "wire", "islands"]),
    only("studio", ["core", "wire", "kit"]),
    only("cli", ["core", "wire", "kit"]),
    ...Object.entries(FLOORS).map(floor),
    {
      name: "core-is-pure",
      severity: "error",
      comment: "the core has no I/O and no dependency",
      from: { path: "^packages/core/src/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core", "npm", "npm-dev", "npm-peer", "npm-optional"] },
    },
    {
      name: "kit-takes-types-only-from-the-wire",
      severity: "error",
      comment: "no Zod in users' pages",
      from: { path: "^packages/kit/src/", pathNot: "\\.test\\.tsx?$" },
      to: { path: "^packages/wire/", dependencyTypesNot: ["type-only"] },
    },
    {
      name: "kit-takes-only-these-floors",
      severity: "error",
      comment: "what the kit costs in bytes is counted; types of places are free",
      from: { path: "^packages/kit/src/", pathNot: "\\.test\\.ts$" },
      to: { path: "^packages/core/src/(index|search|formats|import|text|place)/", dependencyTypesNot: ["type-only"] },
    },
    {
      name: "no-unresolvable",
      severity: "error",
      from: {},
      // svelte/elements has types alone
      to: { couldNotResolve: true, pathNot: ["\\?worker&inline$", "^svelte/elements$"] },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "(^|/)(dist|dist-types|dist-package|dist-run|dist-web|node_modules)/|vite\\.config\\.ts$" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.tests.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["source", "import", "default"],
      extensions: [".ts", ".tsx", ".js", ".mjs", ".json", ".css"],
    },
  },
};
