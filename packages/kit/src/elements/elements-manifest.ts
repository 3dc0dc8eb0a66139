import { ELEMENT_DOCS, type ElementDoc } from "./element-docs.ts";

/** CSS custom properties that all elements read, with their defaults. */
const CSS_PROPERTIES = {
  "--bt-field": "Field",
  "--bt-field-edge": "#8d8570",
  "--bt-focus": "#a8741a",
  "--bt-list-paper": "Canvas",
  "--bt-list-ink": "CanvasText",
} as const;

/** Types of attributes as they are written in TypeScript. */
const TYPES = { text: "string", number: "number", flag: "boolean" } as const;

/** The elements as a Custom Elements Manifest, schema 1.0.0, for editors and documentation tools. */
export function customElementsManifest(): object {
  return {
    schemaVersion: "1.0.0",
    modules: [
      {
        kind: "javascript-module",
        path: "elements.js",
        declarations: Object.entries<ElementDoc>(ELEMENT_DOCS).map(([tagName, doc]) => ({
          kind: "class",
          customElement: true,
          tagName,
          name: doc.className,
          description: doc.about,
          superclass: { name: "HTMLElement" },
          attributes: Object.entries(doc.attributes).map(([name, { type, about }]) => ({
            name,
            description: about,
            type: { text: TYPES[type] },
          })),
          events: Object.entries(doc.events).map(([name, { detail, about }]) => ({
            name,
            description: about,
            type: { text: `CustomEvent<${detail}>` },
          })),
          cssParts: Object.entries(doc.parts).map(([name, description]) => ({ name, description })),
          cssProperties: Object.entries(CSS_PROPERTIES).map(([name, usual]) => ({ name, default: usual })),
        })),
        exports: Object.entries<ElementDoc>(ELEMENT_DOCS).flatMap(([name, { className }]) => [
          { kind: "js", name: className, declaration: { name: className } },
          { kind: "custom-element-definition", name, declaration: { name: className } },
        ]),
      },
    ],
  };
}
