import { useEffect, useMemo, useRef, useState } from "react";
import { openAtFirst, rowsOf, summaryOf, type TreeRow } from "./tree.ts";

const ROW = 22;
/** Rows drawn above and below what shows. */
const SPARE = 8;

interface AnswerTreeProps {
  document: unknown;
  chosen: string;
  onChoose: (pointer: string) => void;
  /** What is open before anybody opens or closes anything. */
  opens?: (pointer: string) => boolean;
}

/** The raw answer as a tree. Only the lines that show are drawn, so that a large answer stays quick. */
export function AnswerTree({ document, chosen, onChoose, opens = openAtFirst }: AnswerTreeProps) {
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const [top, setTop] = useState(0);
  const [height, setHeight] = useState(300);
  const box = useRef<HTMLDivElement>(null);
  const rows = useMemo(
    () => rowsOf(document, (pointer) => opens(pointer) !== turned.has(pointer)),
    [document, turned, opens],
  );
  const at = rows.findIndex(({ pointer }) => pointer === chosen);

  useEffect(() => {
    const sizes = new ResizeObserver(([entry]) => setHeight(entry.contentRect.height));
    if (box.current) sizes.observe(box.current);
    return () => sizes.disconnect();
  }, []);

  const turn = (pointer: string) => {
    const next = new Set(turned);
    if (!next.delete(pointer)) next.add(pointer);
    setTurned(next);
  };
  const choose = (place: number) => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, place))];
    if (!row) return;
    onChoose(row.pointer);
    const y = rows.indexOf(row) * ROW;
    const shown = box.current;
    if (shown && y < shown.scrollTop) shown.scrollTop = y;
    if (shown && y + ROW > shown.scrollTop + shown.clientHeight) shown.scrollTop = y + ROW - shown.clientHeight;
  };
  const pressed = (event: React.KeyboardEvent) => {
    const row: TreeRow | undefined = rows[at];
    const isParent = row?.size !== undefined;
    const parent = row?.pointer.slice(0, row.pointer.lastIndexOf("/"));
    const canOpen = isParent && !row.open;
    const canClose = isParent && row.open;
    const moves = new Map<string, () => void>([
      ["ArrowDown", () => choose(at + 1)],
      ["ArrowUp", () => choose(at - 1)],
      ["Home", () => choose(0)],
      ["End", () => choose(rows.length - 1)],
      ["ArrowRight", () => (canOpen ? turn(row.pointer) : choose(at + 1))],
      ["ArrowLeft", () => (canClose ? turn(row.pointer) : choose(rows.findIndex(({ pointer }) => pointer === parent)))],
      ["Enter", () => isParent && turn(row.pointer)],
    ]);
    const move = moves.get(event.key);
    if (!move) return;
    event.preventDefault();
    move();
  };
  const first = Math.max(0, Math.floor(top / ROW) - SPARE);
  const shown = rows.slice(first, Math.ceil((top + height) / ROW) + SPARE);
  return (
    <div
      ref={box}
      role="tree"
      aria-label="Response"
      tabIndex={0}
      aria-activedescendant={at >= first && at < first + shown.length ? `row-${at}` : undefined}
      onKeyDown={pressed}
      onScroll={(event) => setTop(event.currentTarget.scrollTop)}
      className="min-h-0 flex-1 overflow-auto py-2 font-mono text-[12.5px]"
    >
      <div role="none" style={{ height: rows.length * ROW, position: "relative" }}>
        {shown.map((row, i) => (
          // biome-ignore lint/a11y/useFocusableInteractive: the tree has the focus and names the active line
          // biome-ignore lint/a11y/useKeyWithClickEvents: the tree hears the keys
          <div
            key={row.pointer}
            id={`row-${first + i}`}
            role="treeitem"
            aria-level={row.depth + 1}
            aria-selected={row.pointer === chosen}
            data-part={row.pointer}
            aria-expanded={row.size === undefined ? undefined : row.open}
            onClick={() => {
              onChoose(row.pointer);
              if (row.size !== undefined) turn(row.pointer);
            }}
            className={`absolute right-0 left-0 cursor-pointer truncate pr-3 leading-[22px] whitespace-pre ${
              row.pointer === chosen ? "bg-[color-mix(in_srgb,var(--ochre)_18%,transparent)]" : "hover:bg-wash"
            }`}
            style={{ top: (first + i) * ROW, paddingLeft: 12 + row.depth * 14 }}
          >
            <span className="inline-block w-4 text-quiet">{row.size === undefined ? "" : row.open ? "▾" : "▸"}</span>
            {row.name}{" "}
            {row.size === undefined ? (
              <Value value={row.value} />
            ) : (
              <span className="text-quiet">{summaryOf(row.value)}</span>
            )}
          </div>
        ))}
      </div>
    </div>
  );
}

function Value({ value }: { value: unknown }) {
  return <span className={typeof value === "string" ? "text-verdigris" : "text-indigo"}>{JSON.stringify(value)}</span>;
}
