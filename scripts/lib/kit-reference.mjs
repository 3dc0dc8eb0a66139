import { join } from "node:path";
import ts from "typescript";
import { root } from "./places.mjs";

/** Imports of the package, by their folder; the package itself at the end, for what no other has. */
const ENTRIES = [
  "client",
  "search",
  "fill",
  "form",
  "map",
  "elements",
  "lookup",
  "react",
  "vue",
  "server",
  "testing",
  "playwright",
  "words",
  "",
];
/** What is made known more than once is told where it comes first. */
const FLAGS = ts.TypeFormatFlags.NoTruncation | ts.TypeFormatFlags.UseAliasDefinedOutsideCurrentScope;

/** The reference of the kit, from the comments of its own declarations. @returns Markdown */
export function kitReference() {
  const files = ENTRIES.map((entry) => join(root, "packages/kit/dist", entry, "index.d.ts"));
  const program = ts.createProgram(files, {
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    jsx: ts.JsxEmit.ReactJSX,
    strict: true,
    skipLibCheck: true,
  });
  const checker = program.getTypeChecker();
  const told = new Set();
  const sections = ENTRIES.map((entry, i) => {
    const exported = checker
      .getExportsOfModule(checker.getSymbolAtLocation(program.getSourceFile(files[i])))
      .map((symbol) => (symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol))
      .filter((symbol) => !told.has(symbol) && told.add(symbol))
      .sort((a, b) => (a.name.toLowerCase() < b.name.toLowerCase() ? -1 : 1));
    return `## ${["@bibliotope/kit", entry].filter(Boolean).join("/")}\n\n${exported.map((symbol) => sectionOf(checker, symbol)).join("\n\n")}`;
  });
  return `# Reference of the kit

Made from the comments of its declarations; \`UPDATE_DOCS=1\` writes it anew. [What it is and how it is built](kit.md).

${sections.join("\n\n")}
`;
}

const docOf = (checker, symbol) =>
  ts
    .displayPartsToString(symbol.getDocumentationComment(checker))
    .replace(/\s*\n\s*/g, " ")
    .replace(/\{@link (\w+)\s*\}/g, "`$1`")
    .trim();

/** Tags of a comment that are read by people: what comes back, what is thrown, an example. */
function tagsOf(symbol, checker) {
  return symbol.getJsDocTags(checker).flatMap(({ name, text }) => {
    const words = ts.displayPartsToString(text).trim();
    if (name === "example") return [`\`\`\`ts\n${words}\n\`\`\``];
    if (name === "returns") return [`Returns ${words.replace(/\s+/g, " ")}.`];
    if (name === "throws") return [`Throws ${words.replace(/\s+/g, " ")}.`];
    return name === "param" ? [`\`${words.split(" ")[0]}\`: ${words.split(" ").slice(1).join(" ")}.`] : [];
  });
}

function sectionOf(checker, symbol) {
  const [declaration] = symbol.declarations;
  const doc = docOf(checker, symbol);
  const lines = [`### ${symbol.name}`, ...(doc ? [doc] : [])];
  if (ts.isFunctionDeclaration(declaration)) lines.push(code(signatureOf(checker, symbol, declaration)));
  else if (ts.isTypeAliasDeclaration(declaration))
    lines.push(
      code(
        declaration
          .getText()
          .replace(/^export (declare )?/, "")
          .replace(/\/\*\*[\s\S]*?\*\/\s*/g, ""),
      ),
    );
  else if (ts.isVariableDeclaration(declaration))
    lines.push(code(`${symbol.name}: ${checker.typeToString(checker.getTypeOfSymbol(symbol), declaration, FLAGS)}`));
  lines.push(...tagsOf(symbol, checker));
  if (ts.isInterfaceDeclaration(declaration) || ts.isClassDeclaration(declaration))
    lines.push(membersOf(checker, declaration));
  return lines.filter(Boolean).join("\n\n");
}

const code = (text) => `\`\`\`ts\n${text}\n\`\`\``;

function signatureOf(checker, symbol, declaration) {
  const [signature] = checker.getTypeOfSymbolAtLocation(symbol, declaration).getCallSignatures();
  return `${symbol.name}${checker.signatureToString(signature, declaration, FLAGS)}`;
}

/** What people use of a class or an interface: each member in a line, with its words. */
function membersOf(checker, declaration) {
  return [...declaration.members, ...inheritedMembers(checker, declaration)]
    .filter((member) => member.name && !ts.isPrivateIdentifier(member.name))
    .filter(
      (member) => !(ts.getCombinedModifierFlags(member) & (ts.ModifierFlags.Private | ts.ModifierFlags.Protected)),
    )
    .filter(
      (member) =>
        !/^(connected|disconnected|attributeChanged|form\w+)Callback$|^formAssociated$|^observedAttributes$/.test(
          member.name.getText(),
        ),
    )
    .filter((member) => !ts.isSetAccessor(member))
    .map((member) => {
      const symbol = checker.getSymbolAtLocation(member.name);
      const isCall = ts.isMethodDeclaration(member) || ts.isMethodSignature(member);
      const shown = isCall
        ? signatureOf(checker, symbol, member)
        : `${symbol.name}${symbol.flags & ts.SymbolFlags.Optional ? "?" : ""}: ${typeText(checker, symbol, member)}`;
      const doc = [docOf(checker, symbol), ...tagsOf(symbol, checker).filter((tag) => !tag.startsWith("```"))]
        .filter(Boolean)
        .join(" ");
      return `- \`${shown.replace(/\s+/g, " ")}\`${doc ? ` — ${doc}` : ""}`;
    })
    .join("\n");
}

/** What an interface takes over from others of ours; a page's own elements and attributes are known. */
function inheritedMembers(checker, declaration) {
  if (!ts.isInterfaceDeclaration(declaration)) return [];
  const properties = checker.getTypeAtLocation(declaration).getProperties();
  return properties
    .flatMap((property) => property.declarations?.[0] ?? [])
    .filter((member) => ts.isTypeElement(member) && member.parent !== declaration)
    .filter((member) => member.getSourceFile().fileName.includes("/packages/"));
}

/** A member's type as it is written, else as it is known. */
function typeText(checker, symbol, member) {
  return member.type
    ? member.type.getText().replace(/\/\*\*[\s\S]*?\*\/\s*/g, "")
    : checker.typeToString(checker.getTypeOfSymbol(symbol), member, FLAGS);
}
