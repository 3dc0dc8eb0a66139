import {
  followPointer,
  readValues,
  type Service,
  type ServiceValue,
  type ServiceValues,
} from "@bibliotope/core/service";
import type { TriedService } from "@bibliotope/wire";
import { rowsOf, valueAt } from "../lookups/tree.ts";

type XmlTree = { [name: string]: XmlTree | XmlTree[] | string } | string;

/** An answer of XML as a tree: elements by their local names, those of one name as a list, attributes behind `@`. */
function treeOfXml(text: string): XmlTree | undefined {
  const { documentElement: root } = new DOMParser().parseFromString(text, "text/xml");
  if (root.querySelector("parsererror") || root.localName === "parsererror") return undefined;
  return { [root.localName]: xmlTree(root) };
}

function xmlTree(element: Element): XmlTree {
  const attributes = Array.from(element.attributes).filter(({ name }) => !/^xmlns(:|$)/.test(name));
  const children = Array.from(element.children);
  if (!attributes.length && !children.length) return element.textContent?.trim() ?? "";
  const existing: Record<string, XmlTree | XmlTree[]> = {};
  for (const { localName, value } of attributes) existing[`@${localName}`] = value;
  for (const child of children) {
    const before = existing[child.localName];
    const now = xmlTree(child);
    existing[child.localName] = before === undefined ? now : Array.isArray(before) ? [...before, now] : [before, now];
  }
  const own = Array.from(element.childNodes)
    .filter(({ nodeType }) => nodeType === Node.TEXT_NODE || nodeType === Node.CDATA_SECTION_NODE)
    .map(({ nodeValue }) => nodeValue?.trim())
    .join(" ")
    .trim();
  if (own) existing["text()"] = own;
  return existing;
}

/** The tree of an answer; undefined for what is none. */
export function treeOf(body: string | null, form: "json" | "xml" | "text"): unknown {
  if (!body || form === "text") return undefined;
  try {
    return form === "json" ? JSON.parse(body) : treeOfXml(body);
  } catch {
    return undefined;
  }
}

/**
 * What the values of a service are in an answer. Of JSON they are read here, those that were named after the try too; of
 * XML they are what the server has read.
 */
export function valuesIn(
  { values }: Pick<Service, "values">,
  { body, form, values: read }: TriedService,
): ServiceValues {
  const document = form === "json" ? treeOf(body, form) : undefined;
  return document === undefined ? read : readValues({ values }, (way) => followPointer(document, way)).values;
}

/** How a value of a tree is named for forms: its way there, as a list where it is in one. */
export function valueFor(pointer: string, value: unknown, form: "json" | "xml"): Omit<ServiceValue, "name"> {
  const steps = pointer.slice(1).split("/");
  const at = steps.findIndex((step) => /^\d+$/.test(step));
  const isList = at >= 0 || Array.isArray(value);
  const kind = kindOf(Array.isArray(value) ? value[0] : value);
  const list = isList ? { isList: true } : {};
  if (form === "xml") {
    const names = steps.filter((step) => !/^\d+$/.test(step)).map((step) => step.replaceAll("~1", "/"));
    return { way: `/${names.join("/")}`, kind, ...list };
  }
  if (at < 0) return { way: pointer, kind, ...list };
  const [way, each] = [steps.slice(0, at), steps.slice(at + 1)].map((part) => part.map((step) => `/${step}`).join(""));
  return { way, ...(each ? { each } : {}), kind, ...list };
}

/** Lines of a tree that are looked through for a value. */
const MOST_LOOKED_AT = 2000;

/** Where in a tree a value is, the first one of a list; undefined where it is not found at a glance. */
export function pointerFor(
  { way, each = "", isList }: ServiceValue,
  document: unknown,
  form: "json" | "xml",
): string | undefined {
  if (form === "json") {
    const list = isList && Array.isArray(valueAt(document, way));
    const pointer = list ? `${way}/0${each}` : way;
    return valueAt(document, pointer) === undefined ? undefined : pointer;
  }
  // names of the steps alone: what is in brackets or is a function is more than a glance shows
  const steps = way
    .replace(/^\w+\((.*)\)$/, "$1")
    .replace(/\[[^\]]*\]/g, "")
    .split("/")
    .filter(Boolean);
  const rows = rowsOf(document, () => true).slice(0, MOST_LOOKED_AT);
  const found = rows.find(({ pointer }) => {
    const names = pointer.split("/").filter((step) => step && !/^\d+$/.test(step));
    return steps.every((step, i) => names[names.length - steps.length + i] === step);
  });
  if (!found) return undefined;
  if (Array.isArray(found.value)) return `${found.pointer}/0`;
  const isParent = typeof found.value === "object" && found.value !== null;
  return isParent && "text()" in (found.value as object) ? `${found.pointer}/text()` : found.pointer;
}

/** What a plain value of an answer most likely is. */
function kindOf(value: unknown): ServiceValue["kind"] {
  if ((value as { type?: unknown } | null)?.type === "LineString") return "line";
  if (typeof value === "boolean") return "yesno";
  if (typeof value === "number") return "number";
  return typeof value === "string" && /^\d{4}-\d\d-\d\d$/.test(value) ? "date" : "text";
}

/** A name for a value: the last step to it, as names of values are written, and one that no other has. */
export function nameFor(pointer: string, taken: readonly string[]): string {
  const steps = pointer.split("/").filter((step) => step && !/^\d+$/.test(step));
  const wanted =
    (steps.at(-1) ?? "")
      .toLowerCase()
      .replace(/[^a-z]/g, "")
      .slice(0, 24) || "value";
  if (!taken.includes(wanted)) return wanted;
  const other = Array.from("abcdefghijklmnopqrstuvwxyz", (letter) => wanted + letter);
  return other.find((name) => !taken.includes(name)) ?? `${wanted}more`;
}

/** A service that nobody has described yet. */
export const NEW_SERVICE: Service = {
  name: "",
  title: "",
  ask: { by: "http", method: "GET", url: "https://" },
  inputs: [{ name: "town", kind: "text", required: true, example: "Tidewell" }],
  values: [],
};
