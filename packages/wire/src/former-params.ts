const RENAMED = new Map([
  ["markers", "points"],
  ["scale", "density"],
  ["sheet", "style"],
]);

/**
 * A still's parameters by their names of today, for kits that are already packed into pages and send the former ones:
 * `size` (`600x400`), `scale`, `markers` and `sheet`. A name of today wins over the former one; a size that is none stays,
 * so that it is refused as an unknown parameter.
 */
export function stillParamsOfFormer(params: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const renamed = Object.entries(params).map(([name, value]) => [RENAMED.get(name) ?? name, value] as const);
  const { size, ...others }: Record<string, unknown> = Object.fromEntries(renamed);
  const sides = typeof size === "string" ? /^(\d{1,5})x(\d{1,5})$/.exec(size) : null;
  const known = Object.entries(params).filter(([name]) => !RENAMED.has(name) && name !== "size");
  return {
    ...others,
    ...(sides ? { width: Number(sides[1]), height: Number(sides[2]) } : size === undefined ? {} : { size }),
    ...Object.fromEntries(known),
  };
}

/** Kinds of lookup by their former names, as packed kits look for them in what a key allows. */
export const FORMER_KEY_CALLS: Readonly<Record<string, string>> = { tiles: "sheets" };
