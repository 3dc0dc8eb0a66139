import { DISTANCE_UNITS, type DistanceUnit, distanceIn, type FormDefinition } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import { make } from "../map/make.ts";
import { say } from "../words/say.ts";
import { metresBetween } from "./metres.ts";

/** How far it is, and in which unit: what a distance field shows. */
export function makeDistance(id: string, name: string): HTMLElement {
  const frame = make("div", "bt-distance");
  const output = make("output");
  output.id = id;
  output.name = name;
  const units = make("select");
  units.setAttribute("aria-label", say("Unit"));
  for (const unit of Object.keys(DISTANCE_UNITS)) units.append(make("option", "", unit));
  frame.append(output, units);
  return frame;
}

/** Keeps the distance fields of a form: how far its two addresses are from each other, in the unit that is chosen. */
export class Distances {
  readonly #frames: HTMLElement[];
  #ends: readonly Position[] = [];
  #metres: number | undefined;

  constructor(form: HTMLFormElement, { fields }: FormDefinition) {
    this.#frames = fields.flatMap(({ kind, name }) => {
      if (kind !== "distance") return [];
      return form.querySelector<HTMLElement>(`[data-field="${CSS.escape(name)}"] > .bt-distance`) ?? [];
    });
    for (const frame of this.#frames) frame.querySelector("select")!.addEventListener("change", () => this.#show());
    this.#show();
  }

  /** @param ends where the addresses lie that are known */
  async set(ends: readonly Position[]): Promise<void> {
    this.#ends = ends;
    this.#metres = undefined;
    const [from, to] = ends;
    if (to && this.#frames.length) {
      const metres = await metresBetween(from, to);
      // the ends may have moved on meanwhile
      if (this.#ends !== ends) return;
      this.#metres = metres;
    }
    this.#show();
  }

  #show(): void {
    for (const frame of this.#frames) {
      const unit = frame.querySelector("select")!.value as DistanceUnit;
      frame.querySelector("output")!.value =
        this.#metres === undefined ? say("shown when both addresses are known") : distanceIn(this.#metres, unit);
    }
  }
}
