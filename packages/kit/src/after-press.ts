/** Changes that wait until nothing is pressed. */
let waiting: (() => void)[] = [];
let isDown = false;

/** The click of a press comes right after it. */
const released = () =>
  setTimeout(() => {
    isDown = false;
    const changes = waiting;
    waiting = [];
    for (const change of changes) change();
  });

if (typeof document !== "undefined") {
  document.addEventListener("pointerdown", () => (isDown = true), true);
  for (const name of ["pointerup", "pointercancel"]) document.addEventListener(name, released, true);
}

/**
 * Makes a change that moves what is below it, but not while something is pressed: a button that goes away from under
 * the pointer is never heard. Changes are made in their order.
 */
export function afterPress(change: () => void): void {
  if (isDown) waiting.push(change);
  else change();
}
