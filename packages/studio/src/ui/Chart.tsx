import {
  BarController,
  BarElement,
  CategoryScale,
  type ChartDataset,
  Chart as Drawing,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from "chart.js";
import { useEffect, useRef } from "react";

Drawing.register(
  BarController,
  BarElement,
  CategoryScale,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** Colours of the theme that charts use. */
export type ChartColour = "verdigris" | "moss" | "indigo" | "ochre" | "plum" | "slate" | "quiet" | "madder";

export interface Series {
  name: string;
  /** A colour of the theme. */
  colour: ChartColour;
  /** One for each moment; null where there is nothing to show. */
  values: (number | null)[];
  isDashed?: boolean;
}

interface ChartProps {
  kind: "bar" | "line";
  /** What it shows, for those who do not see it. */
  label: string;
  moments: readonly string[];
  series: readonly Series[];
}

/** A chart over time, in the colours of the theme. */
export default function Chart({ kind, label, moments, series }: ChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const draw = () => new Drawing(element, configOf(element, kind, moments, series));
    let chart = draw();
    const night = matchMedia("(prefers-color-scheme: dark)");
    const again = () => {
      chart.destroy();
      chart = draw();
    };
    night.addEventListener("change", again);
    return () => {
      night.removeEventListener("change", again);
      chart.destroy();
    };
  }, [kind, moments, series]);
  return (
    <div className="relative h-[190px]">
      <canvas ref={canvas} role="img" aria-label={label} />
    </div>
  );
}

function configOf(element: HTMLElement, kind: "bar" | "line", labels: readonly string[], series: readonly Series[]) {
  const theme = getComputedStyle(element);
  const colour = (name: string) => theme.getPropertyValue(`--${name}`).trim();
  const font = { family: theme.getPropertyValue("font-family"), size: 12 };
  const datasets = series.map(({ name, values, isDashed, ...one }) => ({
    label: name,
    data: values,
    backgroundColor: colour(one.colour),
    borderColor: colour(one.colour),
    ...(kind === "line"
      ? { borderWidth: 1.6, pointRadius: 1.5, spanGaps: true, borderDash: isDashed ? [4, 3] : [] }
      : {}),
  })) as ChartDataset<"bar" | "line", (number | null)[]>[];
  const isStacked = kind === "bar";
  return {
    type: kind,
    data: { labels: [...labels], datasets },
    options: {
      animation: false as const,
      maintainAspectRatio: false,
      interaction: { mode: "index" as const, intersect: false },
      plugins: {
        legend: { display: false },
        tooltip: {
          backgroundColor: colour("ink"),
          titleColor: colour("page"),
          bodyColor: colour("page"),
          titleFont: font,
          bodyFont: font,
        },
      },
      scales: {
        x: {
          stacked: isStacked,
          grid: { display: false },
          border: { color: colour("edge") },
          ticks: { color: colour("quiet"), font, maxRotation: 0, autoSkipPadding: 18 },
        },
        y: {
          stacked: isStacked,
          beginAtZero: true,
          grid: { color: colour("rule") },
          border: { display: false },
          ticks: { color: colour("quiet"), font, maxTicksLimit: 5, precision: kind === "bar" ? 0 : undefined },
        },
      },
    },
  };
}
