import { describe, expect, it } from "vitest";
import { defineElements, MapElement, PickerElement, ReportElement, SearchElement, StillElement } from "./index.ts";

/** There is no page here: what is imported on a server must not need one. */
describe("the elements on a server", () => {
  it("can be imported, and are made known to nobody", () => {
    expect(typeof HTMLElement).toBe("undefined");
    expect(() => defineElements()).not.toThrow();
  });

  it("are made known to a registry once, under their names", () => {
    const known = new Map<string, unknown>([["bibliotope-map", "the page's own"]]);
    const registry = {
      get: (name: string) => known.get(name),
      define: (name: string, element: unknown) => void known.set(name, element),
    } as unknown as CustomElementRegistry;
    defineElements(registry);
    defineElements(registry);
    expect(Object.fromEntries(known)).toEqual({
      "bibliotope-search": SearchElement,
      "bibliotope-map": "the page's own",
      "bibliotope-still": StillElement,
      "bibliotope-picker": PickerElement,
      "bibliotope-report": ReportElement,
    });
    expect(MapElement.observedAttributes).toEqual(["web-key", "url", "at", "zoom", "pictures", "attribution"]);
    expect(SearchElement.formAssociated).toBe(true);
  });
});
