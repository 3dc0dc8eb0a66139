import { Client } from "../client/client.ts";

/** What an element is made from where there is no page, such as on a server. */
export const ElementBase: typeof HTMLElement =
  typeof HTMLElement === "undefined" ? (class {} as unknown as typeof HTMLElement) : HTMLElement;

const clients = new Map<string, Client>();

/** Attributes by which an element finds its service. */
export const SERVICE_ATTRIBUTES = ["web-key", "url"] as const;

/** The client of an element by its attributes, one for all elements with the same; undefined without a key. */
export function clientOf(element: Element): Client | undefined {
  const key = element.getAttribute("web-key");
  if (!key) return undefined;
  const url = element.getAttribute("url") ?? undefined;
  const name = `${url} ${key}`;
  let client = clients.get(name);
  if (!client) {
    client = new Client({ key, ...(url ? { url } : {}) });
    clients.set(name, client);
  }
  return client;
}

/** Fires an event of an element, under its name and the former one with a colon, for listeners outside its shadow root too. */
export function tell<T>(element: Element, type: `bibliotope-${string}`, detail: T): void {
  for (const name of [type, type.replace("-", ":")])
    element.dispatchEvent(new CustomEvent(name, { detail, bubbles: true, composed: true }));
}
