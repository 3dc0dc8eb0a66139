import type { FoundControl } from "./propose.ts";

/** Letters that a label has at most. */
const LONGEST_LABEL = 120;

/**
 * Reads the controls of pasted HTML, a page or a fragment. Nothing of it is run and nothing is fetched: a document that
 * the parser makes has no window.
 */
export function readHtml(html: string): { title: string; controls: FoundControl[] } {
  const page = new DOMParser().parseFromString(html, "text/html");
  for (const element of page.querySelectorAll("script, style, template, noscript")) element.remove();
  const title = [...page.querySelectorAll("h1, legend, h2, title")].map(textOf).find(Boolean) ?? "";
  const controls = [...page.querySelectorAll("input, select, textarea")].map((element): FoundControl => {
    const of = (name: string) => element.getAttribute(name)?.trim() ?? "";
    const tag = element.localName as FoundControl["tag"];
    return {
      name: of("name") || element.id,
      tag,
      type: tag === "input" ? of("type").toLowerCase() || "text" : tag,
      autocomplete: of("autocomplete"),
      label: labelOf(element),
      placeholder: of("placeholder"),
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

const textOf = (node: Node | null | undefined) => node?.textContent?.replace(/\s+/g, " ").trim() ?? "";

/** What a control is called: by its label, in ARIA's ways, by the cell or the text before it. */
function labelOf(element: Element): string {
  const page = element.ownerDocument;
  const byId = (id: string) => textOf(page.getElementById(id));
  const id = element.id;
  const own = id ? [...page.querySelectorAll("label")].find((label) => label.getAttribute("for") === id) : undefined;
  const around = element.closest("label");
  const candidates = [
    textOf(own),
    around ? textWithout(around, element) : "",
    (element.getAttribute("aria-labelledby") ?? "").split(/\s+/).filter(Boolean).map(byId).join(" "),
    element.getAttribute("aria-label") ?? "",
    cellBefore(element),
    textBefore(element),
    element.getAttribute("title") ?? "",
  ];
  return (
    candidates.map((text) => text.replace(/\s+/g, " ").trim()).find((text) => text && text.length <= LONGEST_LABEL) ??
    ""
  );
}

/** Text of a label around a control, without the control's own. */
function textWithout(label: Element, control: Element): string {
  const copy = label.cloneNode(true) as Element;
  for (const inner of copy.querySelectorAll(control.localName)) inner.remove();
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

/** Legends and headings that a control stands under, the nearest first. */
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
