import { panned, type Size, type View, zoomed } from "@bibliotope/core/map";

export interface GestureTarget {
  view(): View;
  size(): Size;
  /** Shows a view at once. */
  show(view: View): void;
  /** Goes to a view by a short move. */
  glide(view: View): void;
  /** Pressed without moving. */
  press(at: Spot): void;
  /** The pointer is here, or left. */
  hover(at: Spot | undefined): void;
  /** A part of the map is being chosen, or no longer. */
  box(from: Spot | undefined, to: Spot): void;
  /** A part of the map was chosen. */
  boxed(from: Spot, to: Spot): void;
  /** @returns whether there is something to be moved at a spot; it moves with the pointer then */
  lift(at: Spot): boolean;
  moveLifted(dx: number, dy: number): void;
  /** @param isKept false when the move was broken off */
  drop(isKept: boolean): void;
}

/** CSS pixels from the map's north-west corner. */
export type Spot = { x: number; y: number };

/** CSS pixels that a press may wander, and the least side of a part that is chosen. */
const STILL = 5;
/** What on a map has its own use of pointer and keys. */
const OWN = "button, select, a, .bt-card, .bt-walk, .bt-aimed, .bt-relief";
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Pointer, touch, wheel and keys on a map. Keys only while the map itself has the focus. */
export function listenForGestures(element: HTMLElement, target: GestureTarget, signal: AbortSignal): void {
  const pointers = new Map<number, Spot>();
  let began: Spot | undefined;
  let moved = false;
  /** What the pointer does besides moving the map. */
  let doing: "lift" | "box" | undefined;
  let speed: Spot = { x: 0, y: 0 };
  let last = 0;
  let inertia = 0;

  const spotOf = (event: MouseEvent): Spot => {
    const box = element.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };

  element.addEventListener(
    "pointerdown",
    (event) => {
      if (event.button !== 0 || (event.target as Element).closest(OWN)) return;
      cancelAnimationFrame(inertia);
      element.setPointerCapture(event.pointerId);
      pointers.set(event.pointerId, spotOf(event));
      if (pointers.size === 1) {
        began = spotOf(event);
        moved = false;
        speed = { x: 0, y: 0 };
        last = event.timeStamp;
        doing = event.shiftKey ? "box" : undefined;
      } else breakOff();
    },
    { signal },
  );

  element.addEventListener(
    "pointermove",
    (event) => {
      const before = pointers.get(event.pointerId);
      const now = spotOf(event);
      if (!before) {
        target.hover((event.target as Element).closest(OWN) ? undefined : now);
        return;
      }
      if (!moved && began && Math.hypot(now.x - began.x, now.y - began.y) > STILL) {
        moved = true;
        if (!doing && pointers.size === 1 && target.lift(began)) {
          doing = "lift";
          target.moveLifted(before.x - began.x, before.y - began.y);
        }
      }
      if (doing && moved && began) {
        if (doing === "lift") target.moveLifted(now.x - before.x, now.y - before.y);
        else target.box(began, now);
      } else if (pointers.size === 1 && moved) {
        target.show(panned(target.view(), before.x - now.x, before.y - now.y));
        const passed = Math.max(1, event.timeStamp - last);
        speed = {
          x: 0.6 * speed.x + (0.4 * (before.x - now.x)) / passed,
          y: 0.6 * speed.y + (0.4 * (before.y - now.y)) / passed,
        };
        last = event.timeStamp;
      } else if (pointers.size === 2) {
        const other = [...pointers].find(([id]) => id !== event.pointerId)![1];
        pinch(before, now, other);
        moved = true;
      }
      pointers.set(event.pointerId, now);
    },
    { signal },
  );

  const end = (event: PointerEvent) => {
    if (!pointers.delete(event.pointerId)) return;
    if (pointers.size) return;
    const isDone = event.type === "pointerup";
    if (doing && moved) {
      const to = spotOf(event);
      if (doing === "lift") target.drop(isDone);
      else {
        target.box(undefined, to);
        if (isDone && began && Math.min(Math.abs(to.x - began.x), Math.abs(to.y - began.y)) > STILL)
          target.boxed(began, to);
      }
      doing = undefined;
    } else if (!moved && isDone) target.press(spotOf(event));
    else if (moved && event.timeStamp - last < 60) coast();
    began = undefined;
  };
  element.addEventListener("pointerup", end, { signal });
  element.addEventListener("pointercancel", end, { signal });

  element.addEventListener("pointerleave", () => target.hover(undefined), { signal });

  /** A second finger came, or Escape: what was being moved or chosen is left as it was. */
  function breakOff(): void {
    if (doing === "lift") target.drop(false);
    if (doing === "box") target.box(undefined, { x: 0, y: 0 });
    doing = undefined;
  }

  function pinch(before: Spot, now: Spot, other: Spot): void {
    const from = Math.hypot(before.x - other.x, before.y - other.y);
    const to = Math.hypot(now.x - other.x, now.y - other.y);
    const middle = { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 };
    const shifted = panned(target.view(), (before.x - now.x) / 2, (before.y - now.y) / 2);
    target.show(zoomed(shifted, target.size(), shifted.zoom + Math.log2(Math.max(1, to) / Math.max(1, from)), middle));
  }

  /** Goes on after a fling, unless the system asks for less motion. */
  function coast(): void {
    if (matchMedia("(prefers-reduced-motion: reduce)").matches || Math.hypot(speed.x, speed.y) < 0.08) return;
    let before = performance.now();
    const step = (now: number) => {
      const passed = Math.min(40, now - before);
      before = now;
      target.show(panned(target.view(), speed.x * passed, speed.y * passed));
      const left = 0.994 ** passed;
      speed = { x: speed.x * left, y: speed.y * left };
      if (Math.hypot(speed.x, speed.y) > 0.02) inertia = requestAnimationFrame(step);
    };
    inertia = requestAnimationFrame(step);
  }

  element.addEventListener(
    "wheel",
    (event) => {
      if ((event.target as Element).closest(".bt-card, .bt-relief")) return;
      event.preventDefault();
      const pixels = event.deltaMode === 1 ? event.deltaY * 16 : event.deltaY;
      const by = Math.max(-1, Math.min(1, -pixels / (event.ctrlKey ? 120 : 420)));
      target.show(zoomed(target.view(), target.size(), target.view().zoom + by, spotOf(event)));
    },
    { signal, passive: false },
  );

  element.addEventListener(
    "dblclick",
    (event) => {
      if ((event.target as Element).closest(OWN)) return;
      target.glide(
        zoomed(target.view(), target.size(), Math.round(target.view().zoom) + (event.shiftKey ? -1 : 1), spotOf(event)),
      );
    },
    { signal },
  );

  element.addEventListener(
    "keydown",
    (event) => {
      if (event.target !== element || event.ctrlKey || event.metaKey || event.altKey) return;
      const { width, height } = target.size();
      const middle = { x: width / 2, y: height / 2 };
      const arrow = ARROWS[event.key];
      if (arrow) target.glide(panned(target.view(), arrow[0] * width * 0.2, arrow[1] * height * 0.2));
      else if (event.key === "+" || event.key === "=")
        target.glide(zoomed(target.view(), target.size(), Math.round(target.view().zoom) + 1, middle));
      else if (event.key === "-")
        target.glide(zoomed(target.view(), target.size(), Math.round(target.view().zoom) - 1, middle));
      else if (event.key === "Enter") target.press(middle);
      else if (event.key === "Escape" && doing) breakOff();
      else return;
      event.preventDefault();
    },
    { signal },
  );
}
