/** A control that was read from HTML, and what is around it. */
export interface FoundControl {
  /** Its name, else its id; empty when it has neither. */
  name: string;
  tag: "input" | "select" | "textarea";
  type: string;
  autocomplete: string;
  /** Words of the label. */
  label: string;
  /** What explains it. */
  help: string;
  placeholder: string;
  /** Words of the headings and legends it is under, the nearest first. */
  groups: string[];
  options: { value: string; label: string }[];
  required: boolean;
}

/** Characters that a label has at most. */
const LONGEST_LABEL = 120;

/**
 * Reads the controls of pasted HTML, a page or a fragment. Nothing of it is run and nothing is fetched: a document that
 * the parser makes has no window.
 */
export function readHtml(html: string): { title: string; controls: FoundControl[] } {
  const page = new DOMParser().parseFromString(html, "text/html");
  for (const element of page.querySelectorAll("script, style, template, noscript")) element.remove();
  const title = [...page.querySelectorAll("h1, legend, h2, title")].map(textOf).find(Boolean) ?? "";
  const labels = labelsById(page);
  const controls = [...page.querySelectorAll("*")].filter(isControl).map((element): FoundControl => {
    const of = (name: string) => element.getAttribute(name)?.trim() ?? "";
    const tag = isOwnKind(element) ? "input" : (element.localName as FoundControl["tag"]);
    return {
      name: of("name") || modelOf(element) || element.id,
      tag,
      type: isOwnKind(element) || tag !== "input" ? element.localName : of("type").toLowerCase() || "text",
      autocomplete: of("autocomplete"),
      label: labelOf(element, labels),
      help: helpOf(element, labels),
      placeholder: plain(of("placeholder")),
      groups: groupsOf(element),
      options: [...element.querySelectorAll("option")].map((option) => ({
        value: (option.getAttribute("value") ?? textOf(option)).slice(0, 200),
        label: textOf(option).slice(0, 80) || "–",
      })),
      required: element.hasAttribute("required") || of("aria-required") === "true",
    };
  });
  return { title: title.slice(0, 80), controls };
}

/** Attributes by which client frameworks say what value of their own a control holds. */
const MODELS = ["formcontrolname", "v-model", "ng-model", "x-model", "wire:model", "data-model"];

const modelOf = (element: Element) =>
  MODELS.map((name) => element.getAttribute(name)?.trim() ?? "").find(Boolean) ?? "";

/** True for a framework's own element in place of an input, such as a select with a list of its own. */
const isOwnKind = (element: Element) => element.localName.includes("-");

function isControl(element: Element): boolean {
  if (element.matches("input, select, textarea")) return true;
  return isOwnKind(element) && modelOf(element) !== "" && !element.querySelector("input, select, textarea");
}

const textOf = (node: Node | null | undefined) => plain(node?.textContent ?? "");

/** Text without the marks of a template's language; the names in what it writes out stay, since they often tell. */
function plain(text: string): string {
  return text
    .replace(/\{%.*?%\}|\{#.*?#\}|<%[^=].*?%>/gs, " ")
    .replace(/@(?:if|else|for|switch|case|default|empty|defer)\b[^{}]*\{/g, " ")
    .replace(/\{\{-?|-?\}\}|<%=|%>/g, " ")
    .replace(/^[\s{}]+|[\s{}]+$/g, "")
    .replace(/\s+/g, " ");
}

/** The labels of a page by the id of what they label. */
function labelsById(page: Document): ReadonlyMap<string, Element> {
  const labels = new Map<string, Element>();
  for (const label of page.querySelectorAll("label[for]")) {
    const id = label.getAttribute("for") ?? "";
    if (!labels.has(id)) labels.set(id, label);
  }
  return labels;
}

/** Elements in a label that explain and do not name. */
const HINTS = "[class*=hint], [class*=help], [class*=descr]";

const byIds = (element: Element, attribute: string) =>
  (element.getAttribute(attribute) ?? "")
    .split(/\s+/)
    .filter(Boolean)
    .map((id) => textOf(element.ownerDocument.getElementById(id)))
    .join(" ");

/** What a control is called: by label, in ARIA's ways, by the cell or the text before it. */
function labelOf(element: Element, labels: ReadonlyMap<string, Element>): string {
  const own = labels.get(element.id);
  const around = element.closest("label");
  const candidates = [
    own ? textWithout(own, HINTS) || textOf(own) : "",
    around ? textWithout(around, `${element.localName}, ${HINTS}`) : "",
    byIds(element, "aria-labelledby"),
    element.getAttribute("aria-label") ?? "",
    isOwnKind(element) ? (element.getAttribute("label") ?? "") : "",
    cellBefore(element),
    textBefore(element),
    element.getAttribute("title") ?? "",
  ];
  return candidates.map((text) => text.trim()).find((text) => text && text.length <= LONGEST_LABEL) ?? "";
}

/** What explains a control: the hint in the label, or what describes it. */
function helpOf(element: Element, labels: ReadonlyMap<string, Element>): string {
  const label = labels.get(element.id) ?? element.closest("label");
  const text = textOf(label?.querySelector(HINTS)) || byIds(element, "aria-describedby");
  return text.length <= LONGEST_LABEL ? text : "";
}

/** Text of a label without that of some elements in it. */
function textWithout(label: Element, inner: string): string {
  const copy = label.cloneNode(true) as Element;
  for (const element of copy.querySelectorAll(inner)) element.remove();
  return textOf(copy);
}

/** In a table: the cell to the left, else the head of the column. */
function cellBefore(element: Element): string {
  const cell = element.closest("td, th, dd");
  if (!cell) return "";
  const before = cell.previousElementSibling;
  if (before && !before.querySelector("input, select, textarea")) return textOf(before);
  const column = cell.parentElement ? [...cell.parentElement.children].indexOf(cell) : -1;
  return textOf(cell.closest("table")?.querySelectorAll("thead th")[column]);
}

/** The nearest text before a control, within what holds no other control before it. */
function textBefore(element: Element): string {
  let node: Element | null = element;
  for (let up = 0; node && up < 3; up++) {
    for (let before = node.previousSibling; before; before = before.previousSibling) {
      if (before instanceof Element && before.matches("input, select, textarea, form, fieldset")) return "";
      if (before instanceof Element && before.querySelector("input, select, textarea")) return "";
      const text = textOf(before);
      if (text) return text;
    }
    node = node.parentElement;
  }
  return "";
}

/** Legends and headings that a control is under, the nearest first. */
function groupsOf(element: Element): string[] {
  const groups: string[] = [];
  for (let node: Element | null = element; node; node = node.parentElement) {
    const legend = node.localName === "fieldset" ? node.querySelector(":scope > legend") : undefined;
    if (legend) groups.push(textOf(legend));
    for (let before = node.previousElementSibling; before; before = before.previousElementSibling) {
      const heading = before.matches("h1, h2, h3, h4, h5, h6") ? before : undefined;
      if (!heading) continue;
      groups.push(textOf(heading));
      break;
    }
  }
  return groups.filter(Boolean);
}
