import type { FormSummary } from "@bibliotope/wire";

type Outline = FormSummary["outline"];
type OutlineField = Outline["fields"][number];

/** The fields of a form by rows, as the form itself sets them: two half fields share one. Maps and pictures are beside them. */
export function rowsOf(fields: readonly OutlineField[]): OutlineField[][] {
  const rows: OutlineField[][] = [];
  for (const field of fields) {
    if (field.kind === "map" || field.kind === "still") continue;
    const last = rows.at(-1);
    if (field.isHalf && last?.length === 1 && last[0].isHalf) last.push(field);
    else rows.push([field]);
  }
  return rows;
}

const START_WORDS: Readonly<Record<Outline["starts"][number], string>> = {
  choice: "suggestions while typing",
  button: "a lookup by button",
  leaving: "a lookup when a field is left",
  complete: "a lookup when its fields are complete",
  never: "the page's own code",
};

/** How a form finds addresses, in a line: "Suggestions while typing, clicks on the map · 2 addresses · calls courier". */
export function aboutForm({ fields, addresses, starts, services }: Outline): string {
  const hasMap = fields.some(({ kind }) => kind === "map");
  const ways = starts.filter((start) => start !== "never" || !hasMap).map((start) => START_WORDS[start]);
  const finds = [...ways, ...(hasMap ? ["clicks on the map"] : [])].join(", ");
  return [
    finds.charAt(0).toUpperCase() + finds.slice(1),
    ...(addresses > 1 ? [`${addresses} addresses`] : []),
    ...(services.length ? [`calls ${services.join(", ")}`] : []),
  ].join(" · ");
}
