import { isPosition, type Position } from "@bibliotope/core/geo";
import {
  frameOf,
  type MapMarker,
  type MarkerGroup,
  MarkerGroups,
  type MarkerPicture,
  type SignedGroup,
  type Size,
  squareToScreen,
  toPosition,
  toScreen,
  type View,
} from "@bibliotope/core/map";
import type { Marker, MarkerEvent, OfGroup } from "./marker.ts";

/** CSS pixels to the side of and above a marker's spot, and below it, that belong to the marker. */
const REACH = 11;
const HEIGHT = 36;
/** The same to the sides of a group. */
const GROUP_REACH = 26;
/** CSS pixels beyond the edge from which a marker's ribbon may still reach into the map, and its label or own picture. */
const OUT_OF_SIGHT = 60;
const FAR_OUT = 300;

type Spot = { x: number; y: number };

/** A marker that is being moved. */
interface Lifted {
  place: number;
  from: Position;
  at: Position;
}

/** The markers of a map: what is where, in groups where they are dense, and what is being moved. */
export class Markers {
  #markers: readonly Marker[] = [];
  /** Places of the markers that have a position. */
  #placed: number[] = [];
  #groups: MarkerGroups | undefined;
  #ofGroup: OfGroup | undefined;
  #lifted: Lifted | undefined;
  readonly #pictures = new Map<string, HTMLImageElement>();

  /**
   * @param inGroups markers that would cover one another stand in groups
   * @param changed something has to be drawn anew
   * @param heard what happens to each
   */
  constructor(
    private readonly inGroups: boolean,
    private readonly changed: () => void,
    private readonly heard: (event: MarkerEvent) => void,
  ) {}

  set(markers: readonly Marker[], ofGroup?: OfGroup): void {
    this.#markers = markers;
    this.#ofGroup = ofGroup;
    this.#lifted = undefined;
    this.#placed = [];
    markers.forEach(({ at }, place) => {
      if (at && isPosition(at.lat, at.lon)) this.#placed.push(place);
    });
    this.#groups = this.inGroups ? this.#grouped() : undefined;
    for (const { picture } of markers) if (picture) this.#load(picture.src);
    this.changed();
  }

  get all(): readonly Marker[] {
    return this.#markers;
  }

  /** Places of those that have a position, in the order of the list. */
  get placed(): readonly number[] {
    return this.#placed;
  }

  /** Where a marker is now. */
  at(place: number): Position {
    return this.#lifted?.place === place ? this.#lifted.at : this.#markers[place].at!;
  }

  /** What is to be drawn of a view; a group in the colour of the markers, when they have one. */
  over(view: View, size: Size): { markers: MapMarker[]; groups: SignedGroup[] } {
    const { alone, groups } = this.#visible(view, size);
    return {
      markers: alone.map((place) => this.#sign(place)),
      groups: groups.map((group) => ({
        ...group,
        colour: group.kind === undefined ? undefined : this.#markers[this.#placed[group.first]].colour,
        ...this.#ofGroup?.(group),
      })),
    };
  }

  #grouped(): MarkerGroups {
    const colours = new Map<string | undefined, number>();
    const kinds = this.#placed.map((place) => {
      const { colour } = this.#markers[place];
      const kind = colours.get(colour) ?? colours.size;
      colours.set(colour, kind);
      return kind;
    });
    return new MarkerGroups(
      this.#placed.map((place) => this.#markers[place].at!),
      kinds,
      this.#ofGroup && this.#placed.map((place) => this.#markers[place].value ?? Number.NaN),
    ).prepare();
  }

  /** The topmost marker under a spot of the screen. */
  under(spot: Spot, view: View, size: Size): number | undefined {
    const { alone } = this.#visible(view, size);
    return alone.findLast((place) => {
      const { x, y } = toScreen(view, size, this.at(place));
      const { picture } = this.#markers[place];
      if (picture && this.#image(picture.src)) {
        const { x: left, y: top } = picture.foot ?? { x: picture.width / 2, y: picture.height };
        return (
          spot.x >= x - left &&
          spot.x <= x - left + picture.width &&
          spot.y >= y - top &&
          spot.y <= y - top + picture.height
        );
      }
      const { size: large = 1 } = this.#markers[place];
      const [right, down] = [(spot.x - x) / large, (spot.y - y) / large];
      return Math.abs(right) <= REACH && down >= -REACH && down <= HEIGHT;
    });
  }

  groupUnder(spot: Spot, view: View, size: Size): MarkerGroup | undefined {
    return this.#visible(view, size).groups.find((one) => {
      const { x, y } = squareToScreen(view, size, one);
      return Math.abs(spot.x - x) <= GROUP_REACH && spot.y >= y - REACH && spot.y <= y + HEIGHT;
    });
  }

  /** The zoom at which a group comes apart. */
  apartAt(group: Pick<MarkerGroup, "first" | "count">): number {
    return this.#groups?.apartAt(group) ?? 0;
  }

  /** True while a marker is in a group with others. */
  isGrouped(place: number, view: View): boolean {
    return this.#groups !== undefined && view.zoom < this.aloneAt(place);
  }

  /** The zoom from which a marker is alone. */
  aloneAt(place: number): number {
    return this.#groups?.aloneAt(this.#placed.indexOf(place)) ?? 0;
  }

  tell(type: MarkerEvent["type"], place: number): void {
    const marker = this.#markers[place];
    const event = { type, marker, place, at: this.at(place) };
    marker.heard?.(event);
    this.heard(event);
  }

  get lifted(): number | undefined {
    return this.#lifted?.place;
  }

  lift(place: number): void {
    const at = this.#markers[place].at!;
    this.#lifted = { place, from: at, at };
    this.tell("lift", place);
    this.changed();
  }

  /** Moves the lifted marker by pixels. */
  moveBy(dx: number, dy: number, view: View, size: Size): void {
    if (!this.#lifted) return;
    const { x, y } = toScreen(view, size, this.#lifted.at);
    this.#lifted.at = toPosition(view, size, { x: x + dx, y: y + dy });
    this.tell("move", this.#lifted.place);
    this.changed();
  }

  /** Leaves the lifted marker where it is now. */
  drop(): void {
    if (!this.#lifted) return;
    const { place, at } = this.#lifted;
    this.#markers = this.#markers.with(place, { ...this.#markers[place], at });
    this.#lifted = undefined;
    if (this.#groups) this.set(this.#markers, this.#ofGroup);
    this.tell("drop", place);
    this.changed();
  }

  /** Puts the lifted marker back where it was. */
  putBack(): void {
    if (!this.#lifted) return;
    const { place } = this.#lifted;
    this.#lifted = undefined;
    this.tell("putback", place);
    this.changed();
  }

  #sign(place: number): MapMarker {
    const marker = this.#markers[place];
    const image = marker.picture && this.#image(marker.picture.src);
    const picture: MarkerPicture | undefined = image && { ...marker.picture!, image };
    const lifted = this.#lifted?.place === place ? { from: this.#lifted.from } : {};
    return { ...marker, at: this.at(place), picture, ...lifted };
  }

  /** Which markers stand alone in sight, by their places in the list, and which groups there are. */
  #visible(view: View, size: Size): { alone: number[]; groups: MarkerGroup[] } {
    const { width, height } = size;
    const isIn = ({ x, y }: Spot, out: number) => x > -out && x < width + out && y > -out && y < height + out;
    const isMarkerIn = (place: number) => {
      const { label, picture } = this.#markers[place];
      return isIn(toScreen(view, size, this.at(place)), label || picture ? FAR_OUT : OUT_OF_SIGHT);
    };
    if (!this.#groups) return { alone: this.#placed.filter(isMarkerIn), groups: [] };
    const alone: number[] = [];
    const groups: MarkerGroup[] = [];
    for (const group of this.#groups.at(view.zoom, frameOf(view, size, FAR_OUT))) {
      const place = this.#placed[group.first];
      if (group.count > 1 && isIn(squareToScreen(view, size, group), OUT_OF_SIGHT)) groups.push(group);
      else if (group.count === 1 && isMarkerIn(place)) alone.push(place);
    }
    return { alone, groups };
  }

  /** A picture that has come; one that has not, or never will, leaves our own sign instead. */
  #image(src: string): HTMLImageElement | undefined {
    const image = this.#pictures.get(src);
    return image?.complete && image.naturalWidth > 0 ? image : undefined;
  }

  #load(src: string): void {
    if (this.#pictures.has(src)) return;
    const image = new Image();
    image.crossOrigin = "anonymous";
    image.addEventListener("load", () => this.changed());
    image.src = src;
    this.#pictures.set(src, image);
  }
}
