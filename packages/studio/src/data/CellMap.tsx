import { project } from "@bibliotope/core/geo";
import { squareToScreen } from "@bibliotope/core/map";
import { InteractiveMap } from "@bibliotope/kit";
import type { CoverageAnswer } from "@bibliotope/wire";
import { useEffect, useMemo, useRef } from "react";
import { useClient } from "../forms/use-client.ts";
import { count } from "../ui/count.ts";
import { type Cell, cellAt, cellsOf, cornersOf, opacityOf } from "./cells.ts";

interface CellMapProps {
  grid: CoverageAnswer["grid"];
  /** Name of the map for screen readers. */
  label: string;
  className?: string;
}

/** Addresses by cells of a grid, drawn over the map; where only the other version has some, there is a hole. */
export function CellMap({ grid, label, className = "h-[24rem]" }: CellMapProps) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  const cells = useMemo(() => cellsOf(grid), [grid]);
  const lost = cells.filter(({ here, before }) => !here && before).length;
  useEffect(() => {
    const at = holder.current;
    if (!client || !at || !cells.length) return;
    const map = new InteractiveMap(at, { client, label });
    const canvas = document.createElement("canvas");
    canvas.dataset.cells = String(cells.length);
    canvas.style.cssText = "position:absolute;inset:0;width:100%;height:100%;pointer-events:none";
    // above the map's pictures, below its controls
    (map.element.querySelector(".bt-view") ?? map.element).append(canvas);
    const draw = () => drawCells(canvas, map, cells);
    // the map notes each view that it shows in an attribute
    const moves = new MutationObserver(draw);
    moves.observe(map.element, { attributes: true, attributeFilter: ["data-view"] });
    const sizes = new ResizeObserver(draw);
    sizes.observe(at);
    const night = matchMedia("(prefers-color-scheme: dark)");
    night.addEventListener("change", draw);
    map.onPress((position) => map.say(wordsOf(cellAt(cells, position))));
    map.fit(cornersOf(cells));
    draw();
    return () => {
      moves.disconnect();
      sizes.disconnect();
      night.removeEventListener("change", draw);
      map.destroy();
    };
  }, [client, cells, label]);
  if (!cells.length) return <p className="text-quiet">No addresses, so nothing to draw.</p>;
  return (
    <figure>
      <div ref={holder} className={`${className} overflow-hidden rounded-md border border-rule`} />
      <figcaption className="mt-1 text-[12.5px] text-quiet">
        {`Cells of ${grid.size}°, darker where there are more addresses. Click one for its count.`}
        {lost ? ` ${count(lost)} cells in the other colour have none any more.` : ""}
      </figcaption>
    </figure>
  );
}

function wordsOf(cell: Cell | undefined): string {
  if (!cell) return "No addresses here.";
  const { here, before } = cell;
  return `${count(here)} ${here === 1 ? "address" : "addresses"}${before ? `, compared with ${count(before)}` : ""}.`;
}

function drawCells(canvas: HTMLCanvasElement, map: InteractiveMap, cells: readonly Cell[]) {
  const size = { width: canvas.clientWidth, height: canvas.clientHeight };
  const ratio = devicePixelRatio || 1;
  canvas.width = Math.round(size.width * ratio);
  canvas.height = Math.round(size.height * ratio);
  const context = canvas.getContext("2d");
  if (!context) return;
  context.scale(ratio, ratio);
  const style = getComputedStyle(canvas);
  const [some, none] = [style.getPropertyValue("--verdigris"), style.getPropertyValue("--ochre")];
  const most = cells.reduce((largest, { here }) => Math.max(largest, here), 1);
  for (const { west, south, east, north, here } of cells) {
    const a = squareToScreen(map.view, size, project({ lat: north, lon: west }));
    // measured from the first corner: a cell may be at the edge of the copy of the world that is shown
    const b = squareToScreen(map.view, size, project({ lat: south, lon: west + (east - west) / 2 }));
    const width = Math.abs(b.x - a.x) * 2;
    if (a.x > size.width || a.x + width < 0 || a.y > size.height || b.y < 0) continue;
    context.globalAlpha = here ? opacityOf(here, most) : 0.75;
    context.fillStyle = here ? some : none;
    // whole pixels, so that cells neither overlap nor leave a gap
    const [left, top] = [Math.round(a.x), Math.round(a.y)];
    context.fillRect(left, top, Math.max(2, Math.round(a.x + width) - left), Math.max(2, Math.round(b.y) - top));
  }
}
