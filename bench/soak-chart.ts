import type { Minute } from "./soak.ts";

const [WIDTH, HEIGHT, LEFT, GAP] = [640, 110, 56, 44];
const PANELS: readonly [title: string, of: (minute: Minute) => number][] = [
  ["99th percentile of lookups, ms", ({ p99 }) => p99],
  ["Memory of the server (RSS), MB", ({ memory }) => memory],
  ["Open file descriptors", ({ descriptors }) => descriptors],
];

/** Three charts by minute, one below the other, as an SVG that needs no styles of a page. Each begins at nought. */
export function lineCharts(minutes: readonly Minute[]): string {
  const panels = PANELS.map(([title, of], i) => panel(title, minutes.map(of), 24 + i * (HEIGHT + GAP)));
  const height = 24 + PANELS.length * (HEIGHT + GAP);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${LEFT + WIDTH + 24} ${height}" font-family="sans-serif" font-size="11" fill="#33414d">
<rect width="100%" height="100%" fill="#ffffff"/>
${panels.join("\n")}
</svg>
`;
}

function panel(title: string, values: readonly number[], top: number): string {
  const most = roundUp(Math.max(...values, 1));
  const x = (minute: number) => LEFT + (WIDTH * minute) / Math.max(1, values.length - 1);
  const y = (value: number) => top + HEIGHT - (HEIGHT * value) / most;
  const points = values.map((value, i) => `${x(i).toFixed(1)},${y(value).toFixed(1)}`);
  const rules = [0, 0.5, 1].map(
    (share) =>
      `<path d="M${LEFT} ${y(most * share)}h${WIDTH}" stroke="#d8dee3"/><text x="${LEFT - 8}" y="${y(most * share) + 4}" text-anchor="end">${most * share}</text>`,
  );
  const every = values.length > 20 ? 10 : 1;
  const marks = values.flatMap((_, i) =>
    (i + 1) % every === 0
      ? [`<text x="${x(i).toFixed(1)}" y="${top + HEIGHT + 16}" text-anchor="middle">${i + 1}</text>`]
      : [],
  );
  return `<text x="${LEFT}" y="${top - 8}" font-weight="600">${title}</text>${rules.join("")}${marks.join("")}<polyline points="${points.join(" ")}" fill="none" stroke="#1f6f8b" stroke-width="1.5"/>`;
}

/** The next 1, 2 or 5 with noughts behind it. */
function roundUp(value: number): number {
  const unit = 10 ** Math.floor(Math.log10(value));
  return unit * ([1, 2, 5, 10].find((step) => step * unit >= value) ?? 10);
}
