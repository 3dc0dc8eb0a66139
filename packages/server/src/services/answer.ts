import { type Follow, followPointer } from "@bibliotope/core/service";
import { DOMParser, type Document, type Element, type Node } from "@xmldom/xmldom";
import xpath from "xpath";
import { CallFailed, type CameBack } from "./call-failed.ts";

/** How deep an answer may be nested, and how many elements of XML it may have. */
const [MOST_DEEP, MOST_ELEMENTS] = [200, 40_000];
/** Kinds of node of a document, as the DOM numbers them. */
const [ELEMENT, TEXT, CDATA] = [1, 3, 4];

/** The ways into an answer: JSON Pointers into JSON, XPaths into XML whose names have no namespaces. */
export function waysInto(came: CameBack): Follow {
  const { mediaType, text } = came;
  if (isXml(came)) return intoXml(came);
  if (/[/+]json$/.test(mediaType) || /^\s*[{[]/.test(text)) return intoJson(came);
  if (mediaType === "text/html") throw new CallFailed("malformed", "It returned a page instead of data.", came);
  throw new CallFailed("malformed", `It returned neither JSON nor XML (${mediaType || "no media type"}).`, came);
}

/** Whether an answer is read as XML, which takes a hundred times as long as JSON. */
export function isXml({ mediaType, text }: CameBack): boolean {
  if (/[/+]json$/.test(mediaType) || /^\s*[{[]/.test(text) || mediaType === "text/html") return false;
  return /[/+]xml$/.test(mediaType) || /^\s*</.test(text);
}

function intoJson(came: CameBack): Follow {
  if (isTooDeep(came.text)) throw new CallFailed("malformed", "Its response is nested too deeply.", came);
  try {
    const value: unknown = JSON.parse(came.text);
    return (way) => followPointer(value, way);
  } catch (error) {
    throw new CallFailed("malformed", `Its response is not valid JSON: ${(error as Error).message}.`, came);
  }
}

/** Without reading it: brackets that are open at once, outside of texts. */
function isTooDeep(json: string): boolean {
  let deep = 0;
  let isText = false;
  for (let i = 0; i < json.length; i++) {
    const unit = json[i];
    if (isText) {
      if (unit === "\\") i++;
      else if (unit === '"') isText = false;
    } else if (unit === '"') isText = true;
    else if (unit === "[" || unit === "{") {
      if (++deep > MOST_DEEP) return true;
    } else if (unit === "]" || unit === "}") deep--;
  }
  return false;
}

function intoXml(came: CameBack): Follow {
  const document = readXml(came.text, came);
  return (way) => {
    if (!way) return [];
    try {
      const found = xpath.select(way, document as never) as unknown;
      return (Array.isArray(found) ? found : [found]).map(textOfNode);
    } catch {
      return [];
    }
  };
}

const textOfNode = (found: unknown): unknown =>
  typeof found === "object" && found !== null ? (found as Node).textContent : found;

/** Reads XML without a document type, which could declare what is to be fetched or to grow. @throws CallFailed */
function readXml(text: string, came?: CameBack): Document {
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    throw new CallFailed("malformed", "Its XML declares a document type or entities of its own.", came);
  const problems: string[] = [];
  let read: Document | undefined;
  try {
    read = new DOMParser({
      onError: (level, message) => void (level === "warning" || problems.push(message)),
    }).parseFromString(text, "text/xml");
  } catch (error) {
    problems.push((error as Error).message);
  }
  if (!read?.documentElement || problems.length)
    throw new CallFailed(
      "malformed",
      `Its response is not valid XML: ${(problems[0] ?? "it is empty").split("\n")[0]}.`,
      came,
    );
  return withoutNamespaces(read, came);
}

/** The same document with local names alone, so that a way need not know which prefix a service has chosen today. */
function withoutNamespaces(read: Document, came?: CameBack): Document {
  const plain = new DOMParser().parseFromString("<x/>", "text/xml");
  plain.removeChild(plain.documentElement!);
  let elements = 0;
  const copy = (from: Element, into: Node, deep: number) => {
    if (++elements > MOST_ELEMENTS || deep > MOST_DEEP)
      throw new CallFailed("malformed", "Its XML has too many elements or is nested too deeply.", came);
    const made = plain.createElement(from.localName ?? from.nodeName);
    for (const { nodeName, localName, value } of Array.from(from.attributes))
      if (!/^xmlns(:|$)/.test(nodeName)) made.setAttribute(localName ?? nodeName, value);
    into.appendChild(made);
    left.push({ from, made, deep });
  };
  const left: { from: Element; made: Element; deep: number }[] = [];
  copy(read.documentElement!, plain, 1);
  for (let next = left.pop(); next; next = left.pop())
    for (const child of Array.from(next.from.childNodes)) {
      if (child.nodeType === TEXT || child.nodeType === CDATA)
        next.made.appendChild(plain.createTextNode(child.nodeValue ?? ""));
      else if (child.nodeType === ELEMENT) copy(child as Element, next.made, next.deep + 1);
    }
  numberInOrder(plain);
  return plain;
}

/** What a node says of the place of another, as the DOM numbers it. */
const [PRECEDING, FOLLOWING] = [2, 4];

/**
 * Lets the nodes of a document that stays as it is compare their places by numbers. The library of XPaths sorts what it
 * finds, and the document would look through all children of a parent for each comparison: seconds for two thousand.
 */
function numberInOrder(document: Document): void {
  const numbers = new Map<Node, number>();
  function compareDocumentPosition(this: Node, other: Node): number {
    const [mine, its] = [numbers.get(this) ?? 0, numbers.get(other) ?? 0];
    return mine === its ? 0 : its < mine ? PRECEDING : FOLLOWING;
  }
  const number = (node: Node) => {
    numbers.set(node, numbers.size + 1);
    Object.assign(node, { compareDocumentPosition });
  };
  const left: Node[] = [document];
  for (let node = left.pop(); node; node = left.pop()) {
    number(node);
    if (node.nodeType === ELEMENT) for (const attribute of Array.from((node as Element).attributes)) number(attribute);
    for (let child = node.lastChild; child; child = child.previousSibling) left.push(child);
  }
}

/** The words of a SOAP fault; undefined where there is none. */
export function faultIn(follow: Follow): string | undefined {
  const found = follow("string(//Fault/Reason/Text | //Fault/faultstring)")[0];
  const isFault = follow("boolean(//Fault)")[0] === true;
  return isFault ? String(found || "a fault without a message") : undefined;
}
