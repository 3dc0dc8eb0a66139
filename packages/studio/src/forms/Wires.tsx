import { type RefObject, useLayoutEffect, useState } from "react";
import { partColour } from "../ui/part-colour.ts";

/** A part that fills a field. */
export interface Wire {
  field: string;
  part: string;
  lit: boolean;
}

interface Drawn extends Wire {
  path: string;
  end: { x: number; y: number };
}

/**
 * The wires from parts to the fields they fill, drawn over the left page and the gutter. They follow whatever moves:
 * sizes, scrolling, fields that come and go.
 * @param inside the element that holds fields (`data-field`) and parts (`data-part`)
 */
export function Wires({ inside, wires }: { inside: RefObject<HTMLElement | null>; wires: readonly Wire[] }) {
  const [drawn, setDrawn] = useState<Drawn[]>([]);
  useLayoutEffect(() => {
    const root = inside.current;
    if (!root) return;
    let frame = 0;
    const measure = () => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => setDrawn(wires.flatMap((wire) => draw(root, wire))));
    };
    measure();
    const sizes = new ResizeObserver(measure);
    sizes.observe(root);
    const changes = new MutationObserver(measure);
    changes.observe(root, { childList: true, subtree: true });
    root.addEventListener("scroll", measure, true);
    return () => {
      cancelAnimationFrame(frame);
      sizes.disconnect();
      changes.disconnect();
      root.removeEventListener("scroll", measure, true);
    };
  }, [inside, wires]);
  return (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute inset-0 z-10 size-full overflow-visible max-[900px]:hidden"
    >
      {drawn.map(({ field, part, lit, path, end }) => (
        <g key={`${field} ${part}`} stroke={partColour(part)}>
          <path className="wire" data-lit={lit} data-wire={`${part} ${field}`} d={path} />
          <circle cx={end.x} cy={end.y} r="3" fill="var(--page)" strokeWidth="1.5" strokeOpacity={lit ? 1 : 0.5} />
        </g>
      ))}
    </svg>
  );
}

/** One wire; none when the field or the part is scrolled out of sight. */
function draw(root: HTMLElement, wire: Wire): Drawn[] {
  const field = root.querySelector<HTMLElement>(`[data-field="${CSS.escape(wire.field)}"]`);
  const row = root.querySelector<HTMLElement>(`[data-part="${CSS.escape(wire.part)}"]`);
  if (!field || !row) return [];
  const control = field.querySelector<HTMLElement>("input, select, [data-socket]") ?? field;
  const origin = root.getBoundingClientRect();
  const page = field.closest<HTMLElement>("[data-page]")?.getBoundingClientRect() ?? origin;
  const from = control.getBoundingClientRect();
  const to = row.getBoundingClientRect();
  const gutter = row.closest("section")?.getBoundingClientRect() ?? origin;
  if (from.bottom < page.top || from.top > page.bottom || to.bottom < gutter.top || to.top > gutter.bottom) return [];
  const tip = { x: to.left - origin.left - 5, y: to.top + to.height / 2 - origin.top };
  // a field that does not reach the page's edge sends its wire out below itself, level until it is past its neighbours
  if (page.right - from.right > 60) {
    const end = { x: from.left + from.width * 0.7 - origin.left, y: from.bottom - origin.top };
    const level = end.y + 9;
    const turn = page.right - origin.left - 26;
    const path = `M${end.x} ${end.y}q0 9 14 9L${turn - 40} ${level}C${turn + 10} ${level} ${tip.x - 26} ${tip.y} ${tip.x} ${tip.y}`;
    return [{ ...wire, path, end }];
  }
  const end = { x: from.right - origin.left, y: from.top + from.height / 2 - origin.top };
  const bend = Math.max(26, (tip.x - end.x) * 0.55);
  const path = `M${end.x} ${end.y}C${end.x + bend} ${end.y} ${tip.x - bend} ${tip.y} ${tip.x} ${tip.y}`;
  return [{ ...wire, path, end }];
}
