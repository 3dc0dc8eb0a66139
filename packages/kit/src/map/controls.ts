import { SHEETS, type SheetKind } from "@bibliotope/core/sheet";
import { say } from "../words/say.ts";
import { make, makeButton, makeIcon } from "./make.ts";

/** What the sheets are called. */
export const SHEET_NAMES: Readonly<Record<SheetKind, string>> = {
  streets: "Streets",
  ground: "Ground",
  heights: "Heights",
  "named-ground": "Ground with streets",
};

const AIM = "M10 2V7M10 13V18M2 10H7M13 10H18";
const HILLS = "M1 16 7 5 11 12 13.5 8 19 16Z";

/** Zoom buttons. @param zoom steps closer, or away when negative */
export function zoomButtons(zoom: (by: number) => void): HTMLElement {
  const group = make("div", "bt-zoom");
  for (const [sign, name, by] of [
    ["+", "Zoom in", 1],
    ["−", "Zoom out", -1],
  ] as const) {
    const button = makeButton("", say(name), () => zoom(by));
    button.textContent = sign;
    group.append(button);
  }
  return group;
}

/** A choice of sheets. */
export function sheetChoice(
  sheets: readonly SheetKind[],
  now: SheetKind,
  chosen: (sheet: SheetKind) => void,
): HTMLSelectElement {
  const select = make("select", "bt-sheets");
  select.setAttribute("aria-label", say("Kind of sheet"));
  for (const sheet of SHEETS.filter((kind) => sheets.includes(kind))) {
    const option = make("option", "", say(SHEET_NAMES[sheet]));
    option.value = sheet;
    select.append(option);
  }
  select.value = now;
  select.addEventListener("change", () => chosen(select.value as SheetKind));
  return select;
}

/** Switches aiming on and off. */
export function aimButton(pressed: () => void): HTMLButtonElement {
  const button = makeButton("bt-aims", say("Move the map under an aim"), pressed);
  button.setAttribute("aria-pressed", "false");
  button.append(makeIcon(AIM));
  return button;
}

/** Opens the view in relief. */
export function reliefButton(pressed: () => void): HTMLButtonElement {
  const button = makeButton("bt-reliefs", say("Show it in relief"), pressed);
  button.append(makeIcon(HILLS));
  return button;
}
