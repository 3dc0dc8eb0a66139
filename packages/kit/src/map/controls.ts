import { MAP_STYLES, type MapStyle, type PictureTiles } from "@bibliotope/core/map";
import { say } from "../words/say.ts";
import { make, makeButton, makeIcon } from "./make.ts";

/** Names of the map styles. */
export const STYLE_NAMES: Readonly<Record<MapStyle, string>> = {
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

/** What a choice of map styles offers, and what it does. */
export interface Offered {
  mapStyles: readonly MapStyle[];
  pictures: readonly PictureTiles[];
  styleChosen: (mapStyle: MapStyle) => void;
  picturesChosen: (name: string) => void;
}

/** A choice of map styles, and of pictures in place of them. */
export class StyleChoice {
  readonly element = make("select", "bt-map-styles");

  constructor({ mapStyles, pictures, styleChosen, picturesChosen }: Offered) {
    const { element } = this;
    element.setAttribute("aria-label", say("Map style"));
    const kinds = MAP_STYLES.filter((kind) => mapStyles.includes(kind));
    for (const words of [...kinds.map((kind) => say(STYLE_NAMES[kind])), ...pictures.map(({ name }) => name)])
      element.append(make("option", "", words));
    Array.from(element.options).forEach((option, i) => {
      option.value = i < kinds.length ? kinds[i] : choiceOf(pictures[i - kinds.length]);
    });
    element.addEventListener("change", () => {
      const chosen = pictures.find((one) => choiceOf(one) === element.value);
      if (chosen) picturesChosen(chosen.name);
      else styleChosen(element.value as MapStyle);
    });
  }

  show(shown: MapStyle | PictureTiles): void {
    this.element.value = typeof shown === "string" ? shown : choiceOf(shown);
  }
}

/** A value that no map style has. */
const choiceOf = ({ name }: PictureTiles) => `pictures ${name}`;

/** Switches aiming on and off. */
export function aimButton(pressed: () => void): HTMLButtonElement {
  const button = makeButton("bt-aims", say("Aim with the map"), pressed);
  button.setAttribute("aria-pressed", "false");
  button.append(makeIcon(AIM));
  return button;
}

/** Opens the view in relief. */
export function reliefButton(pressed: () => void): HTMLButtonElement {
  const button = makeButton("bt-reliefs", say("Show relief"), pressed);
  button.append(makeIcon(HILLS));
  return button;
}
