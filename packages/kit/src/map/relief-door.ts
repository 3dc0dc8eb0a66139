import type { MapStyle } from "@bibliotope/core/map";
import type { Client } from "../client/client.ts";
import { part } from "../part.ts";
import type { ReliefPlace, ReliefView } from "../relief/relief-view.ts";
import { say } from "../words/say.ts";

export interface ReliefDoorTarget {
  client: Client;
  label: string;
  langs: readonly string[];
  margin: number | undefined;
  /** Where the view in relief goes: over the flat map. */
  element: HTMLElement;
  mapStyle(): MapStyle;
  isNight(): boolean;
  say(words: string): void;
  /** The flat map has the screen and the keys again. */
  closed(): void;
}

const relief = part(() => import("../relief/relief-view.ts"));

/** What draws the relief could not be fetched. */
class NotLoaded extends Error {}

/** Opens the view in relief over a flat map; what draws it is loaded only then. */
export class ReliefDoor {
  #view: ReliefView | undefined;
  #isOpening = false;

  constructor(private readonly target: ReliefDoorTarget) {}

  async open(place: ReliefPlace): Promise<void> {
    const { client, label, langs, margin, element, say: tell } = this.target;
    if (this.#view || this.#isOpening) return;
    this.#isOpening = true;
    tell(say("Preparing the relief …"));
    try {
      const { ReliefView } = await relief().catch(() => {
        throw new NotLoaded();
      });
      const view = new ReliefView(element, {
        client,
        label,
        langs,
        mapStyle: this.target.mapStyle(),
        night: this.target.isNight(),
        ...(margin === undefined ? {} : { margin }),
        say,
        closed: () => this.close(),
      });
      this.#view = view;
      tell("");
      view.focus();
      await view.show(place);
    } catch (error) {
      tell(
        error instanceof NotLoaded
          ? say("The relief view could not be loaded. Check the connection and try again.")
          : say("This browser cannot show relief. The flat map is shown instead."),
      );
    } finally {
      this.#isOpening = false;
    }
  }

  /** Another place was found while the view is open. */
  show(place: ReliefPlace): void {
    void this.#view?.show(place);
  }

  close(): void {
    if (!this.#view) return;
    this.destroy();
    this.target.closed();
  }

  /** Takes the view away with the map it is on. */
  destroy(): void {
    this.#view?.destroy();
    this.#view = undefined;
  }
}
