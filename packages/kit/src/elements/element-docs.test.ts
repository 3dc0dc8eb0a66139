import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { ELEMENT_DOCS, type ElementDoc } from "./element-docs.ts";
import { customElementsManifest } from "./elements-manifest.ts";
import * as exported from "./index.ts";
import { tell } from "./service.ts";

const elements: Readonly<Record<string, unknown>> = { ...exported };
const read = (file: string) => readFileSync(new URL(file, import.meta.url), "utf8");
const all = (text: string, pattern: RegExp) => Array.from(text.matchAll(pattern), ([, found]) => found);
const namesIn = (list: string) => all(list, /"([\w-]+)"/g);

describe.each(Object.entries<ElementDoc>(ELEMENT_DOCS))("%s", (tag, doc) => {
  const code = read(doc.file);
  const shared = read("service.ts");

  it("has every attribute that its code reads, and no other", () => {
    const lists = [
      ...all(code, /(?:observedAttributes|SENT)[^=]*= \[([^\]]*)\]/g),
      all(shared, /SERVICE_ATTRIBUTES = \[([^\]]*)\]/g)[0],
    ];
    const observed = lists.flatMap(namesIn);
    const requests = all(code, /(?:getAttribute|hasAttribute|list)\("([\w-]+)"\)/g);
    // `disabled` comes from the form by formDisabledCallback
    const byForm = code.includes("formDisabledCallback") ? ["disabled"] : [];
    expect(Object.keys(doc.attributes).sort()).toEqual([...new Set([...observed, ...requests, ...byForm])].sort());
  });

  it("has every event that its code fires", () => {
    const fired = all(code, /tell\(this, ([A-Z]+),/g).map((name) => elements[name]);
    expect(Object.keys(doc.events).sort()).toEqual([...new Set(fired)].sort());
  });

  it("has every part that can be styled", () => {
    const box = code.includes("SearchBox") ? read("../search/box.ts") : "";
    const added = all(code + box, /part\.add\("(\w+)"\)/g);
    const listed = all(code, /const parts = \{([^}]*)\}/g).flatMap((list) => all(list, /(\w+):/g));
    const more = code.includes("...parts, cancel") ? ["cancel"] : [];
    expect(Object.keys(doc.parts).sort()).toEqual([...new Set([...added, ...listed, ...more])].sort());
  });

  it("is the class that its code defines, in the form where it says so", () => {
    expect(elements[doc.className]).toBeDefined();
    expect(Boolean(doc.isFormAssociated)).toBe(/formAssociated = true/.test(code));
    expect(read("index.ts")).toContain(`"${tag}": ${doc.className}`);
  });
});

it("the manifest names each element once, with what editors complete", () => {
  const { schemaVersion, modules } = customElementsManifest() as {
    schemaVersion: string;
    modules: { declarations: { tagName: string; attributes: object[]; events: object[] }[] }[];
  };
  expect(schemaVersion).toBe("1.0.0");
  const [{ declarations }] = modules;
  expect(declarations.map(({ tagName }) => tagName)).toEqual(Object.keys(ELEMENT_DOCS));
  expect(declarations[0].attributes).toContainEqual({
    name: "required",
    description: "The form needs a text.",
    type: { text: "boolean" },
  });
  expect(declarations[0].events).toContainEqual({
    name: "bibliotope-found",
    description: "A place was chosen.",
    type: { text: "CustomEvent<RecordFeature>" },
  });
});

it("events are fired under their name and under the one with a colon", () => {
  const heard: [string, unknown][] = [];
  const element = { dispatchEvent: ({ type, detail }: CustomEvent) => heard.push([type, detail]) };
  tell(element as unknown as Element, exported.FOUND, 7);
  expect(heard).toEqual([
    ["bibliotope-found", 7],
    ["bibliotope:found", 7],
  ]);
});
