import { cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import ts from "typescript";
import { root } from "./places.mjs";

const FROM = { kit: "packages/kit/dist", core: "packages/core/dist" };

/**
 * The types of the kit's package: our own declarations with what they name of the core, and the wire's types written
 * out, so that nobody who installs the kit needs the schemas that they come from.
 */
export function writeTypes(folder) {
  rmSync(folder, { recursive: true, force: true });
  for (const [name, from] of Object.entries(FROM))
    cpSync(join(root, from), join(folder, name), {
      recursive: true,
      filter: (path) => !/\.(js|map|tsbuildinfo)$/.test(path),
    });
  writeFileSync(join(folder, "wire.d.ts"), wireTypes(namesOfWire()));
  for (const file of filesIn(folder)) {
    const up = (to) => {
      const path = relative(dirname(file), join(folder, to));
      return path.startsWith(".") ? path : `./${path}`;
    };
    const text = readFileSync(file, "utf8")
      .replace(/"@bibliotope\/core\/(\w+)"/g, (_, floor) => `"${up(`core/${floor}/index.js`)}"`)
      .replace(/"@bibliotope\/wire"/g, () => `"${up("wire.js")}"`)
      .replace(/(from|import\()\s*"(\.[^"]+)\.tsx?"/g, '$1 "$2.js"')
      .replace(/import\("(\.[^"]+)\.tsx?"\)/g, 'import("$1.js")');
    writeFileSync(file, text);
  }
}

function filesIn(folder) {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith(".d.ts"))
    .map((entry) => join(entry.parentPath, entry.name));
}

/** The wire's types that the kit's declarations name. */
function namesOfWire() {
  const names = new Set();
  for (const file of filesIn(join(root, FROM.kit)))
    for (const [, list] of readFileSync(file, "utf8").matchAll(
      /import (?:type )?\{([^}]*)\} from "@bibliotope\/wire"/g,
    ))
      for (const name of list.split(",")) if (name.trim()) names.add(name.replace(/^\s*type\s+/, "").trim());
  return [...names].sort();
}

/** Types of the wire with everything in them written out. */
function wireTypes(names) {
  const file = join(root, "packages/wire/dist/index.d.ts");
  const program = ts.createProgram([file], {
    moduleResolution: ts.ModuleResolutionKind.NodeNext,
    module: ts.ModuleKind.NodeNext,
    strict: true,
    skipLibCheck: true,
  });
  const checker = program.getTypeChecker();
  const symbols = checker.getExportsOfModule(checker.getSymbolAtLocation(program.getSourceFile(file)));
  const flags =
    ts.TypeFormatFlags.NoTruncation | ts.TypeFormatFlags.InTypeAlias | ts.TypeFormatFlags.UseStructuralFallback;
  const lines = names.map((name) => {
    const symbol = symbols.find((one) => one.name === name);
    if (!symbol) throw new Error(`the wire has no type ${name}`);
    const type = checker.getDeclaredTypeOfSymbol(
      symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol,
    );
    return `export type ${name} = ${writtenOut(checker, type, flags, new Set())};`;
  });
  return `${lines.join("\n")}\n`;
}

/** A type with no name in it that is not the language's own. */
function writtenOut(checker, type, flags, within) {
  const again = (inner) => writtenOut(checker, inner, flags, new Set([...within, type]));
  if (within.has(type)) return "unknown";
  if (type.isUnion()) return type.types.map((one) => bracketed(again(one))).join(" | ");
  if (type.isIntersection() && !type.getProperties().length)
    return type.types.map((one) => bracketed(again(one))).join(" & ");
  if (checker.isTupleType(type)) {
    const { readonly } = type.target;
    return `${readonly ? "readonly " : ""}[${checker.getTypeArguments(type).map(again).join(", ")}]`;
  }
  if (checker.isArrayType(type)) return `${bracketed(again(checker.getTypeArguments(type)[0]))}[]`;
  const isObject = type.flags & ts.TypeFlags.Object || type.isIntersection();
  if (!isObject) return checker.typeToString(type, undefined, flags);
  const index = checker
    .getIndexInfosOfType(type)
    .map((info) => `[name: ${checker.typeToString(info.keyType)}]: ${again(info.type)}`);
  const properties = type.getProperties().map((property) => {
    const held = checker.getTypeOfSymbol(property);
    const isOptional = property.flags & ts.SymbolFlags.Optional;
    const comment = ts.displayPartsToString(property.getDocumentationComment(checker));
    const written = isOptional ? without(held, again) : again(held);
    return `${comment ? `/** ${comment.replace(/\*\//g, "")} */ ` : ""}${JSON.stringify(property.name)}${isOptional ? "?" : ""}: ${written}`;
  });
  return `{ ${[...index, ...properties].join("; ")} }`;
}

/** An optional property's type without the undefined that its question mark says. */
function without(type, again) {
  if (!type.isUnion()) return again(type);
  const rest = type.types.filter((one) => !(one.flags & ts.TypeFlags.Undefined));
  return rest.map((one) => bracketed(again(one))).join(" | ");
}

const bracketed = (text) => (/[|&]/.test(text) && !/^[{[]/.test(text) ? `(${text})` : text);
