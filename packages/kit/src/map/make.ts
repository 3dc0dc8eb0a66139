/** An element with a class and words; words are only ever text. */
export function make<K extends keyof HTMLElementTagNameMap>(
  tag: K,
  className = "",
  words = "",
): HTMLElementTagNameMap[K] {
  const made = document.createElement(tag);
  if (className) made.className = className;
  if (words) made.textContent = words;
  return made;
}

/** A button with a name for screen readers. */
export function makeButton(className: string, name: string, pressed: () => void): HTMLButtonElement {
  const button = make("button", className);
  button.type = "button";
  button.setAttribute("aria-label", name);
  button.title = name;
  button.addEventListener("click", pressed);
  return button;
}

const SVG = "http://www.w3.org/2000/svg";

/** A line drawing on a field of 20 by 20. */
export function makeIcon(path: string): SVGSVGElement {
  const icon = document.createElementNS(SVG, "svg");
  icon.setAttribute("viewBox", "0 0 20 20");
  icon.setAttribute("aria-hidden", "true");
  const line = document.createElementNS(SVG, "path");
  line.setAttribute("d", path);
  icon.append(line);
  return icon;
}
