import type { FormAnswer, FormDefinition } from "@bibliotope/core/form";
import { factText, PARTS, type PartName, profileOf } from "@bibliotope/core/place";
import type { ServiceSummary } from "@bibliotope/wire";

/** A part or attribute with its current value. */
export interface GutterRow {
  name: string;
  value: string;
  label: string;
}

/** The parts of the address in hand, from house to country, as its country has them; then the facts. */
export function gutterRows(answer: FormAnswer | undefined): { parts: GutterRow[]; facts: GutterRow[] } {
  const { labels } = profileOf(answer?.parts.country?.code ?? "QR");
  const parts = PARTS.filter((part) => labels[part] !== undefined || answer?.parts[part])
    .sort((a, b) => ORDER.indexOf(a) - ORDER.indexOf(b))
    .map((part) => ({ name: part, value: textOf(answer, part), label: labels[part] ?? part }));
  const facts = (["position", "kind", "exactness"] as const).map((fact) => ({
    name: fact,
    value: answer
      ? fact === "position"
        ? `${answer.at.lat.toFixed(4)}, ${answer.at.lon.toFixed(4)}`
        : answer[fact]
      : "",
    label: fact,
  }));
  return { parts, facts: [...facts, ...ownRows(answer)] };
}

/** Facts that the data has of the place in hand beyond the common ones. */
const ownRows = (answer: FormAnswer | undefined): GutterRow[] =>
  Object.entries(answer?.facts?.own ?? {}).map(([name, fact]) => ({
    name: `fact.${name}`,
    value: factText(fact),
    label: fact.label,
  }));

/** The values of the services that a form asks, as its fields name them. */
export function serviceRows(
  { services = [] }: FormDefinition,
  known: readonly ServiceSummary[] | undefined,
): GutterRow[] {
  return services.flatMap(({ ask }) => {
    const { values = [], title = ask } = known?.find(({ name }) => name === ask) ?? {};
    return values.map(({ name, isList }) => ({
      name: `${ask}.${name}`,
      value: isList ? "list" : " ",
      label: title,
    }));
  });
}

const ORDER: readonly PartName[] = [
  "house",
  "building",
  "street",
  "block",
  "place",
  "unit",
  "floor",
  "district",
  "town",
  "county",
  "region",
  "postcode",
  "country",
];

function textOf(answer: FormAnswer | undefined, name: PartName): string {
  const part = answer?.parts[name];
  if (!part) return "";
  return name === "country" && part.code ? `${part.name} · ${part.code}` : part.name;
}
