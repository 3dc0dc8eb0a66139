import type { DevicePosition } from "@bibliotope/core/map";
import { type Located, watchDevice } from "../locate/locate.ts";
import { say } from "../words/say.ts";
import { makeButton, makeIcon } from "./make.ts";

const DIAMOND = "M10 3 17 10 10 17 3 10Z";

export interface DeviceTarget {
  /** Shows where the device is, or no longer. */
  show(device: DevicePosition | undefined): void;
  /** Keeps the map where the device is. */
  follow(device: DevicePosition): void;
  /** Shows a message; none with an empty text. */
  say(words: string): void;
  heard(located: Located): void;
  /** Where the position comes from; the browser when not given. */
  from?: Geolocation | undefined;
}

/**
 * The button for the device's position: finds it and follows it. A press while it follows stops that; moving the map by
 * hand stops following too, but the sign stays.
 */
export class DeviceButton {
  readonly button: HTMLButtonElement;
  #stop: (() => void) | undefined;
  #device: DevicePosition | undefined;

  constructor(private readonly target: DeviceTarget) {
    this.button = makeButton("bt-device", say("Show my location"), () => this.#press());
    this.button.append(makeIcon(DIAMOND));
    this.#state("off");
  }

  /** The person moved the map. */
  letGo(): void {
    if (this.button.dataset.state === "following") this.#state("shown");
  }

  stop(): void {
    this.#stop?.();
    this.#stop = undefined;
    this.#device = undefined;
    this.#state("off");
  }

  #press(): void {
    const { state } = this.button.dataset;
    if (state === "following" || state === "finding") {
      this.stop();
      this.target.show(undefined);
      this.target.say("");
    } else if (state === "shown" && this.#device) {
      this.#state("following");
      this.target.follow(this.#device);
    } else this.#find();
  }

  #find(): void {
    this.#stop?.();
    this.#state("finding");
    this.target.say(say("Locating this device …"));
    this.#stop = watchDevice((located) => this.#take(located), this.target.from ? { from: this.target.from } : {});
    // a refusal may come before the watch has a name
    if (this.button.dataset.state === "off") this.stop();
  }

  #take(located: Located): void {
    this.target.heard(located);
    if (!located.ok) {
      // a position that was there once stays: the watch goes on
      if (this.#device && located.why !== "denied") return;
      this.stop();
      this.target.show(undefined);
      this.target.say(`${located.words} ${located.next}`);
      return;
    }
    this.#device = { at: located.at, within: located.within };
    this.target.show(this.#device);
    this.target.say(located.words ? `${located.words} ${located.next}` : "");
    if (this.button.dataset.state === "finding") this.#state("following");
    if (this.button.dataset.state === "following") this.target.follow(this.#device);
  }

  #state(state: "off" | "finding" | "following" | "shown"): void {
    this.button.dataset.state = state;
    this.button.setAttribute("aria-pressed", String(state === "following"));
    if (state === "finding") this.button.setAttribute("aria-busy", "true");
    else this.button.removeAttribute("aria-busy");
  }
}
