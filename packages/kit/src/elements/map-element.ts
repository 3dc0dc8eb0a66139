import { type Position, readPosition } from "@bibliotope/core/geo";
import { MAP_STYLES, type MapStyle, pictureUrlTrouble } from "@bibliotope/core/map";
import type { Client } from "../client/client.ts";
import { lacking } from "../client/lacking.ts";
import { InteractiveMap } from "../map/interactive-map.ts";
import type { Marker } from "../map/marker.ts";
import { type MapOptions, shownPictures } from "../map/options.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { clientOf, ElementBase, SERVICE_ATTRIBUTES, tell } from "./service.ts";

/** A spot of the map was pressed; the detail is its position. */
export const PRESSED = "bibliotope-pressed";
/** Something happened to a marker; the detail has what, and to which. */
export const MARKER = "bibliotope-marker";

const STYLE = `
:host { display: block; position: relative; height: 320px; font: inherit; }
:host([hidden]) { display: none; }
.frame { position: absolute; inset: 0; }
`;

/**
 * `<bibliotope-map>`: an interactive map. Attributes: `web-key` and `url` (the service), `label`, `at` (`LAT,LON`),
 * `zoom`, `map-style`, `device`, `aims`, `grouped`; `pictures`, the address of picture tiles of one's own, shown at first, with
 * `attribution` (needed), `pictures-name`, `pictures-most` (their last zoom). Its height is the page's to set; 320 px else.
 */
export class MapElement extends ElementBase {
  static readonly observedAttributes = [...SERVICE_ATTRIBUTES, "at", "zoom", "pictures", "attribution"];

  #client: Client | undefined;
  #map: InteractiveMap | undefined;
  #markers: readonly Marker[] = [];
  #frame: HTMLElement | undefined;

  get client(): Client | undefined {
    return this.#client ?? clientOf(this);
  }

  set client(client: Client | undefined) {
    this.#client = client;
    this.#begin();
  }

  /** Markers on it. */
  get markers(): readonly Marker[] {
    return this.#markers;
  }

  set markers(markers: readonly Marker[]) {
    this.#markers = markers;
    this.#map?.setMarkers(markers);
  }

  /** The map itself, with all that it can; undefined until the element is in a page and has a key. */
  get map(): InteractiveMap | undefined {
    return this.#map;
  }

  connectedCallback(): void {
    const root = this.shadowRoot ?? this.attachShadow({ mode: "open" });
    if (!this.#frame) {
      adopt(root, STYLE);
      this.#frame = document.createElement("div");
      this.#frame.className = "frame";
      this.#frame.part.add("frame");
      root.replaceChildren(this.#frame);
    }
    this.#begin();
  }

  disconnectedCallback(): void {
    this.#end();
  }

  attributeChangedCallback(name: string): void {
    if (!this.#frame) return;
    if (name === "at" || name === "zoom") this.#show();
    else this.#begin();
  }

  #begin(): void {
    const { client } = this;
    if (!client || !this.isConnected || !this.#frame) return;
    const view = this.#map?.view ?? this.#view();
    this.#end();
    const mapStyle = MAP_STYLES.find((one) => one === this.getAttribute("map-style"));
    this.#map = new InteractiveMap(this.#frame, {
      client,
      label: this.getAttribute("label") ?? "Map",
      mapStyles: MAP_STYLES as MapOptions["mapStyles"],
      device: this.hasAttribute("device"),
      aims: this.hasAttribute("aims"),
      grouped: this.hasAttribute("grouped"),
      ...(mapStyle ? { mapStyle: mapStyle as MapStyle } : {}),
      ...this.#pictures(),
      ...(view ? { view } : {}),
    });
    void lacking(client, ["tiles"]);
    this.#map.onPress((at) => tell(this, PRESSED, at));
    this.#map.onMarker((event) => tell(this, MARKER, event));
    if (this.#markers.length) this.#map.setMarkers(this.#markers);
  }

  #end(): void {
    this.#map?.destroy();
    this.#map = undefined;
  }

  /** Pictures that the attributes tell of; what is wrong with them goes to the page's console, and the map is shown. */
  #pictures(): Pick<MapOptions, "pictures" | "shows"> {
    const url = this.getAttribute("pictures");
    const attribution = this.getAttribute("attribution")?.trim();
    if (!url) return {};
    const trouble = pictureUrlTrouble(url) ?? (attribution ? undefined : "needs an attribute `attribution` beside it");
    if (trouble) {
      console.error(`<bibliotope-map>: the address of the pictures ${trouble}.`);
      return {};
    }
    const name = this.getAttribute("pictures-name") ?? say("Pictures");
    const most = Number(this.getAttribute("pictures-most") ?? Number.NaN);
    const tiles = { name, url, attribution: attribution!, ...(Number.isInteger(most) && most >= 0 ? { most } : {}) };
    return shownPictures(tiles);
  }

  #at(): Position | undefined {
    return readPosition(this.getAttribute("at") ?? "");
  }

  #view() {
    const at = this.#at();
    return at && { at, zoom: Number(this.getAttribute("zoom") ?? 15) };
  }

  #show(): void {
    const view = this.#view();
    if (view) this.#map?.show(view);
  }
}
