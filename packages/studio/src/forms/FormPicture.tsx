import type { FormSummary } from "@bibliotope/wire";
import { partColour } from "../ui/part-colour.ts";
import { rowsOf } from "./outline-rows.ts";

const [WIDTH, HEIGHT] = [168, 104];
/** Where fields begin, how wide their column is, and how high a row with its label is. */
const COLUMN = { left: 10, top: 10, row: 17 };
const BOX = { label: 3, gap: 2, height: 8 };

/** A small picture of a form: its fields as boxes, each marked in the colour of what fills it, and its map beside them. */
export function FormPicture({ outline }: Pick<FormSummary, "outline">) {
  const hasMap = outline.fields.some(({ kind }) => kind === "map" || kind === "still");
  const across = (hasMap ? 92 : WIDTH) - 2 * COLUMN.left;
  const most = Math.floor((HEIGHT - COLUMN.top) / COLUMN.row);
  const rows = rowsOf(outline.fields).slice(0, most);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      aria-hidden="true"
      className="block flex-none"
    >
      {rows.map((row, i) =>
        row.map((field, j) => {
          const gap = row.length > 1 ? 5 : 0;
          const width = (across - gap) / row.length;
          const [x, y] = [COLUMN.left + j * (width + gap), COLUMN.top + i * COLUMN.row];
          const top = y + BOX.label + BOX.gap;
          const key = `${i} ${j}`;
          if (field.kind === "button")
            return <rect key={key} x={x} y={y + 3} width={Math.min(34, width)} height={10} rx={2} fill="var(--ink)" />;
          return (
            <g key={key}>
              <rect x={x} y={y} width={Math.min(width * 0.6, 30)} height={BOX.label} rx={1} fill="var(--edge)" />
              <rect
                x={x}
                y={top}
                width={width}
                height={BOX.height}
                rx={1.5}
                fill="var(--field)"
                stroke={field.kind === "search" ? "var(--ink)" : "var(--edge)"}
                strokeWidth={field.kind === "search" ? 1.4 : 0.8}
              />
              {field.part ? <rect x={x} y={top} width={3} height={BOX.height} fill={partColour(field.part)} /> : null}
            </g>
          );
        }),
      )}
      {hasMap ? <SmallMap left={92} top={COLUMN.top} width={WIDTH - 92 - COLUMN.left} height={HEIGHT - 20} /> : null}
    </svg>
  );
}

/** A map in little: a coast, streets, and a marker as the map draws it. */
function SmallMap({ left, top, width, height }: { left: number; top: number; width: number; height: number }) {
  const [x, y] = [left + width * 0.56, top + height * 0.5];
  return (
    <g>
      <rect
        x={left}
        y={top}
        width={width}
        height={height}
        rx={2}
        fill="var(--wash)"
        stroke="var(--edge)"
        strokeWidth={0.8}
      />
      <g stroke="var(--edge)" strokeWidth={1.4} fill="none">
        <path d={`M${left} ${top + height * 0.72} L${left + width} ${top + height * 0.4}`} />
        <path d={`M${left + width * 0.3} ${top} L${left + width * 0.62} ${top + height}`} />
        <path d={`M${left} ${top + height * 0.3} L${left + width * 0.42} ${top + height * 0.36}`} />
      </g>
      <path d={`M${x - 4} ${y} h8 v15 l-4 -4 l-4 4 z`} fill="var(--madder)" />
      <circle cx={x} cy={y} r={5} fill="var(--page)" stroke="var(--madder)" strokeWidth={2} />
    </g>
  );
}
