import { type Position, readPosition } from "@bibliotope/core/geo";
import type { Client } from "../client/client.ts";
import { StillControl } from "../map/still-control.ts";
import { adopt } from "../style.ts";
import { clientOf, ElementBase, SERVICE_ATTRIBUTES } from "./service.ts";

/** Attributes that are sent as they are; `map-style` is sent as `style`, which in HTML is something else. */
const SENT = ["of", "at", "points", "line", "zoom", "lang"] as const;
const USUAL = { width: 300, height: 200 };

const STYLE = `
:host { display: inline-block; }
:host([hidden]) { display: none; }
img { display: block; max-width: 100%; height: auto; }
img[hidden] { display: none; }
`;

/**
 * `<bibliotope-still>`: a picture of the map. Attributes: `web-key` and `url` (the service), `of` (a ref) or `at`
 * (`LAT,LON`), `width` and `height` (pixels; 300 and 200), `zoom`, `points`, `line`, `map-style`, `lang`, and `label` for those who do not see it.
 * With `control` it is itself the way to the place: a press opens it, its menu shows the way and copies the position.
 * By night it is requested by night.
 */
export class StillElement extends ElementBase {
  static readonly observedAttributes = [
    ...SERVICE_ATTRIBUTES,
    ...SENT,
    "map-style",
    "width",
    "height",
    "label",
    "control",
  ];

  readonly #img = document.createElement("img");
  #night: MediaQueryList | undefined;
  /** What it was made the way to. */
  #placed = "";
  readonly #again = () => this.#show();

  connectedCallback(): void {
    const root = this.shadowRoot ?? this.attachShadow({ mode: "open" });
    if (!this.#img.parentNode) {
      adopt(root, STYLE);
      this.#img.part.add("img");
      this.#img.crossOrigin = "anonymous";
      this.#img.loading = "lazy";
      root.replaceChildren(this.#img);
    }
    this.#night = matchMedia("(prefers-color-scheme: dark)");
    this.#night.addEventListener("change", this.#again);
    this.#show();
  }

  disconnectedCallback(): void {
    this.#night?.removeEventListener("change", this.#again);
  }

  attributeChangedCallback(): void {
    if (this.shadowRoot) this.#show();
  }

  /** Makes it the way to the place, or a plain picture again. */
  #place(client: Client): void {
    const root = this.shadowRoot!;
    const at = readPosition(this.getAttribute("at") ?? "");
    const ref = this.getAttribute("of") ?? undefined;
    const label = this.getAttribute("label") ?? undefined;
    const key = JSON.stringify([this.hasAttribute("control"), at, ref, label]);
    if (key === this.#placed) return;
    this.#placed = key;
    const control = (spot: Position) =>
      new StillControl(this.#img, { at: spot, client, ...(ref ? { ref } : {}), ...(label ? { label } : {}) });
    if (!this.hasAttribute("control") || (!at && !ref)) root.replaceChildren(this.#img);
    else if (at) control(at).putInto(root);
    else {
      root.replaceChildren(this.#img);
      // where the record lies is not known yet
      void client.record(ref!).then(
        ({ properties }) => key === this.#placed && control(properties.at).putInto(root),
        () => undefined,
      );
    }
  }

  #show(): void {
    const client = clientOf(this);
    const params = Object.fromEntries(SENT.map((name) => [name, this.getAttribute(name) ?? undefined]));
    const isNowhere = !params.of && !params.at && !params.points && !params.line;
    const width = Number(this.getAttribute("width") ?? USUAL.width);
    const height = Number(this.getAttribute("height") ?? USUAL.height);
    const style = this.getAttribute("map-style") ?? undefined;
    this.#img.width = width;
    this.#img.height = height;
    this.#img.alt = this.getAttribute("label") ?? "Map";
    this.#img.hidden = !client || isNowhere;
    if (!client || isNowhere) return;
    this.#place(client);
    const density = devicePixelRatio > 1 ? 2 : 1;
    const night = this.#night?.matches ? 1 : undefined;
    this.#img.src = client.stillUrl({ ...params, width, height, style, density, night });
  }
}
