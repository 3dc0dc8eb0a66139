import { panned, type Size, toPosition, toScreen, type View, zoomed } from "@bibliotope/core/map";
import fc from "fast-check";
import { afterEach, expect, it, vi } from "vitest";
import { type GestureTarget, listenForGestures, type Spot } from "./gestures.ts";

const SIZE: Size = { width: 400, height: 300 };
const START: View = { at: { lat: -35.2, lon: -21.6 }, zoom: 12 };

/** A field of gestures, with what came of them. @param liftable where there is something to be moved */
function field(liftable: (at: Spot) => boolean = () => false) {
  const element = document.createElement("div");
  element.tabIndex = 0;
  element.style.cssText = "position: fixed; inset: 20px auto auto 30px; width: 400px; height: 300px";
  // pointers that a test makes up cannot be captured
  element.setPointerCapture = () => undefined;
  document.body.append(element);
  const stop = new AbortController();
  const heard: string[] = [];
  const state = { view: START, moved: { x: 0, y: 0 } };
  const show = (view: View) => {
    state.view = view;
  };
  const target: GestureTarget = {
    view: () => state.view,
    size: () => SIZE,
    show,
    glide: show,
    press: ({ x, y }) => void heard.push(`press ${x},${y}`),
    hover: () => undefined,
    box: (from) => void (from || heard.push("no box")),
    boxed: (from, to) => void heard.push(`boxed ${from.x},${from.y} ${to.x},${to.y}`),
    lift: (at) => liftable(at) && heard.push("lift") > 0,
    moveLifted: (dx, dy) => {
      state.moved = { x: state.moved.x + dx, y: state.moved.y + dy };
    },
    drop: (isKept) => void heard.push(isKept ? "drop" : "put back"),
  };
  listenForGestures(element, target, stop.signal);
  const fire = (type: string, { x, y }: Spot, more: PointerEventInit = {}) =>
    element.dispatchEvent(
      new PointerEvent(type, { bubbles: true, clientX: 30 + x, clientY: 20 + y, pointerId: 1, button: 0, ...more }),
    );
  return {
    element,
    heard,
    state,
    fire,
    drag: (path: readonly Spot[], more?: PointerEventInit, end = "pointerup") => {
      fire("pointerdown", path[0], more);
      for (const spot of path) fire("pointermove", spot, more);
      fire(end, path.at(-1)!, more);
    },
    end: () => {
      stop.abort();
      element.remove();
    },
  };
}

// a fling goes on by frames; what is looked at here has happened before the next one
vi.stubGlobal("requestAnimationFrame", () => 0);
afterEach(() => document.body.replaceChildren());

const spot = fc.record({ x: fc.integer({ min: 0, max: 399 }), y: fc.integer({ min: 0, max: 299 }) });
const near = (a: Spot, b: Spot) => Math.hypot(a.x - b.x, a.y - b.y);

it("the place that a pointer took hold of stays under it, whichever way it goes", () => {
  fc.assert(
    fc.property(fc.array(spot, { minLength: 2, maxLength: 12 }), (path) => {
      const map = field();
      const known = path.findIndex((at) => near(at, path[0]) > 5);
      const before = known < 1 ? path[0] : path[known - 1];
      const place = toPosition(START, SIZE, before);
      map.drag(path);
      if (known < 0) expect(map.heard).toEqual([`press ${path.at(-1)!.x},${path.at(-1)!.y}`]);
      else {
        expect(map.heard).toEqual([]);
        expect(near(toScreen(map.state.view, SIZE, place), path.at(-1)!)).toBeLessThan(0.01);
      }
      map.end();
    }),
  );
});

it("what is lifted moves as far as the pointer, and is dropped, or put back when the pointer is lost", () => {
  fc.assert(
    fc.property(fc.array(spot, { minLength: 2, maxLength: 8 }), fc.boolean(), (path, isLost) => {
      const map = field(() => true);
      map.drag(path, {}, isLost ? "pointercancel" : "pointerup");
      if (path.every((at) => near(at, path[0]) <= 5)) expect(map.heard).not.toContain("lift");
      else {
        expect(map.heard).toEqual(["lift", isLost ? "put back" : "drop"]);
        const [from, to] = [path[0], path.at(-1)!];
        expect(near(map.state.moved, { x: to.x - from.x, y: to.y - from.y })).toBeLessThan(1e-6);
      }
      expect(map.state.view).toEqual(START);
      map.end();
    }),
  );
});

it("with shift a part is chosen: by its corners, unless it is a line, or the pointer is lost, or Escape is pressed", () => {
  const path = (to: Spot) => [{ x: 50, y: 60 }, { x: 100, y: 90 }, to];
  const boxed = (to: Spot, end?: string) => {
    const map = field(() => true);
    map.drag(path(to), { shiftKey: true }, end);
    return map.heard;
  };
  expect(boxed({ x: 200, y: 160 })).toEqual(["no box", "boxed 50,60 200,160"]);
  expect(boxed({ x: 200, y: 62 })).toEqual(["no box"]);
  expect(boxed({ x: 200, y: 160 }, "pointercancel")).toEqual(["no box"]);
  const map = field();
  map.fire("pointerdown", { x: 50, y: 60 }, { shiftKey: true });
  map.fire("pointermove", { x: 150, y: 160 }, { shiftKey: true });
  map.element.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape" }));
  map.fire("pointerup", { x: 150, y: 160 }, { shiftKey: true });
  expect(map.heard).toEqual(["no box"]);
});

it("two fingers keep what was between them between them", () => {
  fc.assert(
    fc.property(spot, spot, spot, spot, (a, b, toA, toB) => {
      fc.pre(near(a, b) > 20 && near(toA, toB) > 20);
      // within what the map shows, so that no end of the zoom is in the way
      fc.pre(Math.abs(Math.log2(near(toA, b) / near(a, b))) < 3 && near(toA, b) > 20);
      fc.pre(Math.abs(Math.log2(near(toA, toB) / near(a, b))) < 3);
      const map = field();
      const middle = (p: Spot, q: Spot) => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
      const place = toPosition(START, SIZE, middle(a, b));
      map.fire("pointerdown", a, { pointerId: 1 });
      map.fire("pointerdown", b, { pointerId: 2 });
      map.fire("pointermove", toA, { pointerId: 1 });
      map.fire("pointermove", toB, { pointerId: 2 });
      map.fire("pointerup", toA, { pointerId: 1 });
      map.fire("pointerup", toB, { pointerId: 2 });
      expect(map.state.view.zoom).toBeCloseTo(START.zoom + Math.log2(near(toA, toB) / near(a, b)), 6);
      expect(near(toScreen(map.state.view, SIZE, place), middle(toA, toB))).toBeLessThan(0.5);
      expect(map.heard).toEqual([]);
      map.end();
    }),
  );
});

it("the wheel zooms about the pointer, and no further than the map goes", () => {
  fc.assert(
    fc.property(spot, fc.array(fc.integer({ min: -900, max: 900 }), { maxLength: 40 }), (at, turns) => {
      const map = field();
      for (const deltaY of turns) {
        const place = toPosition(map.state.view, SIZE, at);
        const turn = { deltaY, clientX: 30 + at.x, clientY: 20 + at.y, cancelable: true };
        // the page stays where it is
        expect(map.element.dispatchEvent(new WheelEvent("wheel", turn))).toBe(false);
        expect(map.state.view.zoom).toBeGreaterThanOrEqual(2);
        expect(map.state.view.zoom).toBeLessThanOrEqual(19);
        if (map.state.view.zoom > 4) expect(near(toScreen(map.state.view, SIZE, place), at)).toBeLessThan(0.1);
      }
      map.end();
    }),
  );
});

it("keys move and zoom while the map has the focus, and leave the keys of the browser alone", () => {
  const map = field();
  const press = (key: string, more: KeyboardEventInit = {}) =>
    !map.element.dispatchEvent(new KeyboardEvent("keydown", { key, cancelable: true, bubbles: true, ...more }));
  expect(press("ArrowRight")).toBe(true);
  expect(map.state.view).toEqual(panned(START, 80, 0));
  expect(press("+")).toBe(true);
  expect(map.state.view).toEqual(zoomed(panned(START, 80, 0), SIZE, 13, { x: 200, y: 150 }));
  expect(press("Enter")).toBe(true);
  expect(map.heard).toEqual(["press 200,150"]);
  const { view } = map.state;
  for (const more of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }]) expect(press("-", more)).toBe(false);
  expect(press("a")).toBe(false);
  const button = document.createElement("button");
  map.element.append(button);
  button.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowLeft", bubbles: true }));
  expect(map.state.view).toEqual(view);
});

it("nothing is heard after its end", () => {
  const map = field();
  map.end();
  map.drag([
    { x: 10, y: 10 },
    { x: 90, y: 90 },
  ]);
  expect(map.state.view).toEqual(START);
});
