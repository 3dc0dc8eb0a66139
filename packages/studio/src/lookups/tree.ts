/** One line of an answer's tree. */
export interface TreeRow {
  /** The way to the value: a JSON Pointer (RFC 6901). */
  pointer: string;
  /** Name of a member, or place in a list. */
  name: string;
  depth: number;
  value: unknown;
  /** How many members or items; undefined for a plain value. */
  size?: number;
  open: boolean;
}

/** A step of a JSON Pointer. */
export function escapeStep(step: string): string {
  return step.replaceAll("~", "~0").replaceAll("/", "~1");
}

/** The value that a JSON Pointer leads to; undefined where it leads nowhere. */
export function valueAt(document: unknown, pointer: string): unknown {
  if (pointer === "") return document;
  return pointer
    .slice(1)
    .split("/")
    .map((step) => step.replaceAll("~1", "/").replaceAll("~0", "~"))
    .reduce<unknown>((value, step) => {
      if (typeof value !== "object" || value === null || !Object.hasOwn(value, step)) return undefined;
      return (value as Record<string, unknown>)[step];
    }, document);
}

/** The lines that show, in order: the members of what is open. @param isOpen whether a value that has members is open */
export function rowsOf(document: unknown, isOpen: (pointer: string, depth: number) => boolean): TreeRow[] {
  const rows: TreeRow[] = [];
  const walk = (value: object, pointer: string, depth: number) => {
    for (const [name, member] of Object.entries(value)) {
      const way = `${pointer}/${escapeStep(name)}`;
      const isParent = typeof member === "object" && member !== null;
      const open = isParent && isOpen(way, depth);
      const size = isParent ? Object.keys(member).length : undefined;
      rows.push({ pointer: way, name, depth, value: member, size, open });
      if (open) walk(member, way, depth + 1);
    }
  };
  if (typeof document === "object" && document !== null) walk(document, "", 0);
  return rows;
}

/** What is behind a closed value, in a few words. */
export function summaryOf(value: unknown): string {
  if (Array.isArray(value)) {
    return value.every((item) => typeof item !== "object") && value.length <= 4 ? value.join(", ") : `${value.length}`;
  }
  if (typeof value !== "object" || value === null) return JSON.stringify(value);
  const { kind, name, line, lat, lon, type } = value as Record<string, unknown>;
  if (typeof lat === "number" && typeof lon === "number") return `${lat}, ${lon}`;
  return [line, name, kind, type].find((word) => typeof word === "string") ?? "";
}

/** Where everything is open that leads to the first record's parts, and nothing else. */
export function openAtFirst(pointer: string): boolean {
  return [
    "/features",
    "/features/0",
    "/features/0/properties",
    "/features/0/properties/parts",
    "/suggestions",
    "/suggestions/0",
    "/properties",
    "/properties/parts",
    "/properties/facts",
  ].includes(pointer);
}

/** Facts of an answer, as a binding names them. */
const FACT_NAMES: Readonly<Record<string, string>> = {
  phone: "phone",
  url: "url",
  languages: "languages",
  stepFree: "stepfree",
  openingHours: "hours",
  hoursText: "hours",
};

/** The part or fact that a pointer into an answer leads to, as a binding names it: `town`, `country.code`. */
export function partAt(pointer: string): string | undefined {
  const [, own, fact = ""] = /\/properties\/facts\/(?:own\/([a-z0-9_]+)|(\w+))/.exec(pointer) ?? [];
  if (own) return `fact.${own}`;
  if (Object.hasOwn(FACT_NAMES, fact)) return FACT_NAMES[fact];
  const match = /\/properties\/parts\/(\w+)(?:\/(name|abbr|code))?$/.exec(pointer);
  if (!match) return undefined;
  return match[2] && match[2] !== "name" ? `${match[1]}.${match[2]}` : match[1];
}
