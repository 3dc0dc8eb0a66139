import { adopt } from "../style.ts";
import { clientOf, ElementBase, SERVICE_ATTRIBUTES } from "./service.ts";

/** What is handed to the picture as it is asked. */
const ASKED = ["of", "at", "markers", "line", "zoom", "sheet", "lang"] as const;

const STYLE = `
:host { display: inline-block; }
:host([hidden]) { display: none; }
img { display: block; max-width: 100%; height: auto; }
img[hidden] { display: none; }
`;

/**
 * `<bibliotope-still>`: a picture of the map. Attributes: `web-key` and `url` (the service), `of` (a ref) or `at`
 * (`LAT,LON`), `size` (`300x200`), `zoom`, `markers`, `line`, `sheet`, `lang`, and `label` for those who do not see it.
 * By night it is asked for by night.
 */
export class StillElement extends ElementBase {
  static readonly observedAttributes = [...SERVICE_ATTRIBUTES, ...ASKED, "size", "label"];

  readonly #img = document.createElement("img");
  #night: MediaQueryList | undefined;
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

  #show(): void {
    const client = clientOf(this);
    const asked = Object.fromEntries(ASKED.map((name) => [name, this.getAttribute(name) ?? undefined]));
    const isNowhere = !asked.of && !asked.at && !asked.markers && !asked.line;
    const size = this.getAttribute("size") ?? "300x200";
    const [width, height] = size.split("x").map(Number);
    this.#img.width = width;
    this.#img.height = height;
    this.#img.alt = this.getAttribute("label") ?? "Map";
    this.#img.hidden = !client || isNowhere;
    if (!client || isNowhere) return;
    const scale = devicePixelRatio > 1 ? 2 : 1;
    this.#img.src = client.stillUrl({ ...asked, size, scale, night: this.#night?.matches ? 1 : undefined });
  }
}
