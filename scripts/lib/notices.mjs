import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { root } from "./places.mjs";

/** The file in which notices stand, beside what was built. */
const NOTICES = "THIRD-PARTY-NOTICES.txt";

/**
 * What somebody else has made and is shipped within our packages.
 * @typedef {{ name: string, version: string, license: string, text: string }} Shipped
 */

const read = (file) => JSON.parse(readFileSync(file, "utf8"));

/** The folder in which a package is found from another one, as Node looks for it. */
function folderOf(name, from) {
  for (let folder = from; folder.length >= root.length; folder = join(folder, "..")) {
    const found = join(folder, "node_modules", name);
    if (existsSync(join(found, "package.json"))) return found;
  }
  return undefined;
}

/** @returns {Shipped} */
function shippedFrom(folder) {
  const { name, version, license, licenses } = read(join(folder, "package.json"));
  const files = readdirSync(folder).filter((file) => /^(licen[cs]e|copying|notice)(\.|-|$)/i.test(file));
  const text = files
    .sort()
    .map((file) => readFileSync(join(folder, file), "utf8").replaceAll("\r\n", "\n").trim())
    .join("\n\n");
  return { name, version, license: license ?? licenses?.map(({ type }) => type).join(" OR ") ?? "", text };
}

/**
 * All packages of others that some of ours need to run, each once, by name.
 * @param {readonly string[]} names of packages of ours
 * @returns {Shipped[]}
 */
export function shippedWith(names) {
  const found = new Map();
  const walk = (folder) => {
    const { dependencies = {}, optionalDependencies = {} } = read(join(folder, "package.json"));
    for (const name of Object.keys({ ...dependencies, ...optionalDependencies })) {
      const next = name.startsWith("@bibliotope/")
        ? join(root, "packages", name.split("/")[1])
        : folderOf(name, folder);
      // an optional one for another system is not there
      if (!next || found.has(next)) continue;
      found.set(next, name.startsWith("@bibliotope/") ? undefined : shippedFrom(next));
      walk(next);
    }
  };
  for (const name of names) walk(join(root, "packages", name));
  return [...found.values()].filter(Boolean).sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
}

const isCopyright = (line) => /^\s*(\(c\)|©|copyright\b)/i.test(line) && !/copyright (notice|holder|owner)/i.test(line);

/**
 * The notices of some packages as a text: licences that say the same are written once, below all whom they name.
 * @param {readonly Shipped[]} shipped
 */
export function noticesOf(shipped) {
  const groups = new Map();
  for (const one of shipped) {
    const lines = (one.text || `Licence: ${one.license}`).split("\n");
    const body = lines.filter((line) => !isCopyright(line)).join("\n");
    const key = body.replace(/[\s"'“”]+/g, " ").trim();
    const group = groups.get(key) ?? { body, names: [] };
    const owners = [...new Set(lines.filter(isCopyright).map((line) => line.trim()))];
    group.names.push(
      [`${one.name} ${one.version} (${one.license})`, ...owners.map((owner) => `  ${owner}`)].join("\n"),
    );
    groups.set(key, group);
  }
  return [...groups.values()]
    .map(({ names, body }) => `${names.join("\n")}\n\n${body.replace(/\n{3,}/g, "\n\n").trim()}`)
    .join(`\n\n${"-".repeat(78)}\n\n`);
}

/** Writes the notices of what our packages need beside what was built of them. */
export function writeNotices(folder, names) {
  writeFileSync(join(folder, NOTICES), fileOf(shippedWith(names)));
}

/** The notices as a file. */
export const fileOf = (shipped) =>
  `Bibliotope contains work of others, who ask for these notices.\n\n${"=".repeat(78)}\n\n${noticesOf(shipped)}\n`;

/** For Vite: puts the notices of the packages that a chunk is made of at its end, where a copy of it takes them along. */
export function noticesInChunks() {
  return {
    name: "notices-in-chunks",
    generateBundle(_options, bundle) {
      for (const chunk of Object.values(bundle)) {
        if (chunk.type !== "chunk") continue;
        const folders = new Set(chunk.moduleIds.map(packageFolder).filter(Boolean));
        if (!folders.size) continue;
        const text = noticesOf([...folders].sort().map(shippedFrom)).replaceAll("*/", "* /");
        chunk.code += `\n/*! Contains work of others:\n\n${text}\n*/\n`;
      }
    },
  };
}

/** The folder of the package that a module is of, or undefined for our own. */
function packageFolder(id) {
  const at = id.lastIndexOf("/node_modules/");
  const name = at < 0 ? undefined : /^(?:@[^/]+\/)?[^/?]+/.exec(id.slice(at + "/node_modules/".length))?.[0];
  const folder = name && join(id.slice(id.startsWith("\0") ? 1 : 0, at), "node_modules", name);
  return folder && existsSync(join(folder, "package.json")) ? folder : undefined;
}
