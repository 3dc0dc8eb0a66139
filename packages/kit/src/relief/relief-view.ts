import { metresPerPixel, type Position, project, TILE } from "@bibliotope/core/geo";
import { DAY, type FeatureTile, type MapStyle, NIGHT, type TileName } from "@bibliotope/core/map";
import {
  AmbientLight,
  Color,
  DirectionalLight,
  Fog,
  Group,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene,
  Spherical,
  Sprite,
  SRGBColorSpace,
  Texture,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/addons/controls/OrbitControls.js";
import type { Client } from "../client/client.ts";
import { make } from "../map/make.ts";
import { Tiles } from "../map/tiles.ts";
import { adopt } from "../style.ts";
import type { say } from "../words/say.ts";
import { HeightField } from "./height-field.ts";
import { type Building, highestAround, housesOf, raise } from "./houses.ts";
import { FIELD_OF_VIEW, makeSign, sizeSign } from "./sign.ts";
import { RELIEF_STYLE } from "./style.ts";
import { type Ground, terrainOf, toSquare } from "./terrain.ts";

export interface ReliefOptions {
  client: Client;
  /** Its name for screen readers. */
  label: string;
  mapStyle: MapStyle;
  night: boolean;
  langs: readonly string[];
  /** Metres of the camera above the highest roof around; 220 when not given. */
  margin?: number;
  /** Its words in the language of the page: the relief comes as a script of its own, and knows none. */
  say: typeof say;
  /** The person wants the flat map back. */
  closed(): void;
}

export interface ReliefPlace {
  at: Position;
  label?: string;
}

/** Zooms of the tiles around the place and far off, and how many lie to each side of the middle one. */
const NEAR = { zoom: 16, reach: 3, cells: 8 };
const FAR = { zoom: 13, reach: 2, cells: 32 };
/** Device pixels to a pixel of the tiles around the place, by how far they lie from the middle one; and of those far off. */
const FINENESS = [4, 3, 2, 1.5];
const FAR_FINENESS = 1.5;
/** Milliseconds between two frames while tiles come. */
const DRESSING = 400;
/** Tiles to each side of the middle one that have their houses raised. */
const HOUSES_REACH = 2;
/** Metres around the place within which roofs are cleared, and the camera's margin above them. */
const ROOFS_AROUND = 160;
const MARGIN = 220;
/** Metres that the ground far off lies lower, so that it never covers the ground near by. */
const LOWERED = 4;
/** Metres of the camera above the ground, wherever it goes. */
const CLEARANCE = 6;
/** Radians that an arrow key turns, and the share of the distance that plus and minus go. */
const TURN = Math.PI / 24;
const STEP = 0.8;
/** Tilt from straight down, in radians: just off it, since there is no north in it itself; and the most. */
const DOWN = 0.001;
const LOWEST = Math.PI / 2 - 0.04;

/**
 * The ground around a place in three dimensions: first straight from above, then turned by mouse, touch and keys.
 * @throws when the browser cannot draw it (no WebGL)
 */
export class ReliefView {
  readonly element = make("div", "bt-relief");
  readonly #words = make("p", "bt-relief-words");
  readonly #renderer: WebGLRenderer;
  readonly #scene = new Scene();
  readonly #camera = new PerspectiveCamera(FIELD_OF_VIEW, 1, 2, 60_000);
  readonly #controls: OrbitControls;
  readonly #sizes: ResizeObserver;
  readonly #tiles: Tiles;
  /** What belongs to the place that is shown. */
  #content = new Group();
  #ground: Ground | undefined;
  #place: ReliefPlace | undefined;
  #height = 0;
  /** Metres of the camera above the place when it looks straight down. */
  #above = MARGIN;
  #frame = 0;
  #dressed: ReturnType<typeof setTimeout> | undefined;
  #again: ReturnType<typeof setTimeout> | undefined;
  #loading: AbortController | undefined;
  /** Tiles whose picture is still to come. */
  readonly #awaited = new Map<string, { tile: TileName; fineness: number; material: MeshLambertMaterial }>();

  constructor(
    container: HTMLElement,
    private readonly options: ReliefOptions,
  ) {
    this.#renderer = new WebGLRenderer({ antialias: true, powerPreference: "low-power" });
    const palette = options.night ? NIGHT : DAY;
    const sky = new Color(palette.sea);
    this.#scene.background = sky;
    this.#scene.fog = new Fog(sky, 5000, 14_000);
    const light = new DirectionalLight(0xffffff, options.night ? 1.2 : 1.7);
    light.position.set(-1, 1.6, -1);
    this.#scene.add(new AmbientLight(0xffffff, options.night ? 1.6 : 1.9), light, this.#content);
    this.#tiles = new Tiles(
      (z, x, y) => options.client.tileUrl(z, x, y),
      () => this.#dress(),
      { mapStyle: options.mapStyle, night: options.night, langs: options.langs },
    );
    this.#controls = new OrbitControls(this.#camera, this.#renderer.domElement);
    this.#controls.enableDamping = false;
    this.#controls.minPolarAngle = DOWN;
    this.#controls.maxPolarAngle = LOWEST;
    this.#controls.minDistance = 30;
    this.#controls.maxDistance = 9000;
    this.#controls.addEventListener("change", () => this.#draw());
    this.#build();
    adopt(container.getRootNode() as Document, RELIEF_STYLE);
    container.append(this.element);
    this.#sizes = new ResizeObserver(() => this.#resize());
    this.#sizes.observe(this.element);
  }

  /** Shows the ground around a place, the camera straight above it. */
  async show(place: ReliefPlace): Promise<void> {
    this.#loading?.abort();
    const loading = new AbortController();
    this.#loading = loading;
    this.#place = place;
    const { say } = this.options;
    this.#words.textContent = say("Preparing the relief …");
    this.element.dataset.complete = "false";
    try {
      const ground = await this.#loadGround(place.at, loading.signal);
      const houses = await this.#loadHouses(ground, loading.signal);
      if (loading.signal.aborted) return;
      this.#clear();
      this.#ground = ground;
      this.#height = ground.heights.at(ground.origin);
      this.#lay(ground, houses);
      this.lookDown(highestAround(houses, { x: 0, z: 0 }, ROOFS_AROUND, this.#height) - this.#height);
      const values = { place: place.label ?? "", n: Math.round(this.#height) };
      this.#words.textContent = values.place
        ? say("{place}, {n} m above the sea", values)
        : say("{n} m above the sea", values);
    } catch (error) {
      if (loading.signal.aborted) return;
      this.#words.textContent = `${say("The relief could not be loaded.")} ${error instanceof Error ? error.message : ""}`;
    }
  }

  /** Looks straight down, north up, from above the roofs. @param roofs metres of the highest roof around above the ground */
  lookDown(roofs?: number): void {
    if (roofs !== undefined) this.#above = roofs + (this.options.margin ?? MARGIN);
    this.#controls.target.set(0, this.#height, 0);
    this.#lookFrom(new Spherical(this.#above, DOWN, 0));
  }

  /** Turns it so that north is up, as it is tilted now. */
  faceNorth(): void {
    const { radius, phi } = this.#spherical();
    this.#lookFrom(new Spherical(radius, phi, 0));
  }

  focus(): void {
    this.element.focus();
  }

  destroy(): void {
    this.#loading?.abort();
    cancelAnimationFrame(this.#frame);
    clearTimeout(this.#dressed);
    clearTimeout(this.#again);
    this.#sizes.disconnect();
    this.#controls.dispose();
    this.#clear();
    this.#tiles.destroy();
    this.#renderer.dispose();
    this.#renderer.forceContextLoss();
    this.element.remove();
  }

  #build(): void {
    const { element } = this;
    element.tabIndex = 0;
    element.setAttribute("role", "application");
    element.setAttribute("aria-roledescription", "relief");
    const { say, label } = this.options;
    const words = say(
      "{label} in relief. Arrow keys turn and tilt, plus and minus zoom, N turns north up, 0 looks straight down, Escape returns to the flat map.",
      { label },
    );
    element.setAttribute("aria-label", words);
    const bar = make("div", "bt-relief-bar");
    for (const [words, pressed] of [
      [say("Flat map"), () => this.options.closed()],
      [say("Straight down"), () => this.lookDown()],
      [say("North up"), () => this.faceNorth()],
    ] as const) {
      const button = make("button", "", words);
      button.type = "button";
      button.addEventListener("click", pressed);
      bar.append(button);
    }
    this.#words.setAttribute("role", "status");
    this.#renderer.domElement.setAttribute("aria-hidden", "true");
    element.append(this.#renderer.domElement, bar, this.#words);
    element.addEventListener("keydown", (event) => this.#key(event));
  }

  #key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    event.stopPropagation();
    if (event.key === "Escape") this.options.closed();
    else if (event.target !== this.element) return;
    else if (event.key.toLowerCase() === "n") this.faceNorth();
    else if (event.key === "0") this.lookDown();
    else {
      const now = this.#spherical();
      if (event.key === "ArrowLeft") now.theta -= TURN;
      else if (event.key === "ArrowRight") now.theta += TURN;
      else if (event.key === "ArrowUp") now.phi += TURN;
      else if (event.key === "ArrowDown") now.phi -= TURN;
      else if (event.key === "+" || event.key === "=") now.radius *= STEP;
      else if (event.key === "-") now.radius /= STEP;
      else return;
      this.#lookFrom(now);
    }
    event.preventDefault();
  }

  /** Where the camera is, seen from what it looks at. */
  #spherical(): Spherical {
    return new Spherical().setFromVector3(this.#camera.position.clone().sub(this.#controls.target));
  }

  #lookFrom(from: Spherical): void {
    from.phi = Math.max(DOWN, Math.min(LOWEST, from.phi));
    from.radius = Math.max(this.#controls.minDistance, Math.min(this.#controls.maxDistance, from.radius));
    this.#camera.position.copy(this.#controls.target).add(new Vector3().setFromSpherical(from));
    this.#controls.update();
    this.#draw();
  }

  async #loadGround(at: Position, signal: AbortSignal): Promise<Ground> {
    const origin = project(at);
    const heights = new HeightField(FAR.zoom);
    await Promise.all(
      tilesAround(origin, FAR.zoom, FAR.reach).map(async ({ z, x, y }) =>
        heights.set(x, y, await this.options.client.tileHeights({ z, x, y }, signal)),
      ),
    );
    return { origin, side: TILE * metresPerPixel(0, at.lat), heights };
  }

  async #loadHouses(ground: Ground, signal: AbortSignal): Promise<Building[]> {
    const tiles = tilesAround(ground.origin, NEAR.zoom, HOUSES_REACH);
    const houses = await Promise.all(
      tiles.map(async (tile) => {
        const response = await fetch(this.options.client.tileUrl(tile.z, tile.x, tile.y), { signal }).catch(() => {});
        // the ground is shown without houses that did not come
        if (!response?.ok) return [];
        return housesOf(ground, ((await response.json()) as FeatureTile).features, tile);
      }),
    );
    return houses.flat();
  }

  /** Puts ground, houses and the place's sign into the scene. */
  #lay(ground: Ground, houses: readonly Building[]): void {
    const near = tilesAround(ground.origin, NEAR.zoom, NEAR.reach);
    const count = 2 ** NEAR.zoom;
    const hole = {
      left: Math.min(...near.map(({ x }) => x)) / count,
      top: Math.min(...near.map(({ y }) => y)) / count,
      right: (Math.max(...near.map(({ x }) => x)) + 1) / count,
      bottom: (Math.max(...near.map(({ y }) => y)) + 1) / count,
    };
    const middle = near[(near.length - 1) / 2];
    const awayOf = ({ x, y }: TileName) => Math.max(Math.abs(x - middle.x), Math.abs(y - middle.y));
    for (const tile of near.toSorted((a, b) => awayOf(a) - awayOf(b))) {
      const away = awayOf(tile);
      this.#layTile(tile, FINENESS[away], new Mesh(terrainOf(ground, tile, NEAR.cells)));
    }
    for (const tile of tilesAround(ground.origin, FAR.zoom, FAR.reach))
      this.#layTile(tile, FAR_FINENESS, new Mesh(terrainOf(ground, tile, FAR.cells, { hole, lowered: LOWERED })));
    const palette = this.options.night ? NIGHT : DAY;
    this.#content.add(new Mesh(raise(houses), new MeshLambertMaterial({ color: palette.building })));
    this.#content.add(makeSign(this.#place!.label, this.#height, palette, this.element.clientHeight));
    this.#dress();
  }

  #layTile(tile: TileName, fineness: number, mesh: Mesh): void {
    const material = new MeshLambertMaterial({ color: (this.options.night ? NIGHT : DAY).land });
    mesh.material = material;
    this.#content.add(mesh);
    this.#awaited.set(`${tile.z}/${tile.x}/${tile.y}`, { tile, fineness, material });
  }

  /** Puts the painted tiles that have come onto their ground; those that failed are requested again after a while. */
  #dress(): void {
    let [isWaiting, isMissing] = [false, false];
    for (const [key, { tile, fineness, material }] of this.#awaited) {
      const { bitmap, failed = false } = this.#tiles.get(tile, fineness);
      isWaiting ||= !bitmap && !failed;
      isMissing ||= failed;
      if (!bitmap) continue;
      this.#awaited.delete(key);
      const texture = new Texture(bitmap);
      texture.flipY = false;
      texture.colorSpace = SRGBColorSpace;
      texture.needsUpdate = true;
      texture.anisotropy = this.#renderer.capabilities.getMaxAnisotropy();
      material.map = texture;
      material.color.set(0xffffff);
      material.needsUpdate = true;
    }
    if (isMissing)
      this.#again ??= setTimeout(() => {
        this.#again = undefined;
        this.#dress();
      }, Tiles.AGAIN);
    const isComplete = this.#ground !== undefined && !isWaiting;
    this.element.dataset.complete = String(isComplete);
    this.element.dataset.missing = String(isMissing);
    // a frame for every tile would keep the next ones waiting
    if (isComplete) this.#draw();
    else this.#dressed ??= setTimeout(() => this.#draw(), DRESSING);
  }

  #clear(): void {
    this.#awaited.clear();
    this.#content.traverse((object) => {
      if (!(object instanceof Mesh || object instanceof Sprite)) return;
      if (object instanceof Mesh) object.geometry.dispose();
      const { map } = object.material as { map?: Texture | null };
      map?.dispose();
      object.material.dispose();
    });
    this.#content.clear();
  }

  #resize(): void {
    const { clientWidth: width, clientHeight: height } = this.element;
    if (!width || !height) return;
    this.#renderer.setPixelRatio(Math.min(2, devicePixelRatio || 1));
    this.#renderer.setSize(width, height, false);
    this.#camera.aspect = width / height;
    this.#camera.updateProjectionMatrix();
    const sign = this.#content.getObjectByName("sign");
    if (sign instanceof Sprite) sizeSign(sign, height);
    this.#draw();
  }

  #draw(): void {
    this.#frame ||= requestAnimationFrame(() => {
      this.#frame = 0;
      clearTimeout(this.#dressed);
      this.#dressed = undefined;
      this.#stayAbove();
      const { radius, phi, theta } = this.#spherical();
      this.element.dataset.view = [radius, (phi * 180) / Math.PI, (theta * 180) / Math.PI]
        .map((n) => n.toFixed(1))
        .join(",");
      this.#renderer.render(this.#scene, this.#camera);
    });
  }

  /** The camera never goes into the ground. */
  #stayAbove(): void {
    if (!this.#ground) return;
    const { position } = this.#camera;
    const least = this.#ground.heights.at(toSquare(this.#ground, position)) + CLEARANCE;
    if (position.y < least) position.y = least;
  }
}

/** The tiles of a zoom around a point, row by row. */
function tilesAround({ x, y }: { x: number; y: number }, z: number, reach: number): TileName[] {
  const count = 2 ** z;
  const [column, row] = [Math.floor(x * count), Math.floor(y * count)];
  const tiles: TileName[] = [];
  for (let dy = -reach; dy <= reach; dy++) {
    for (let dx = -reach; dx <= reach; dx++) {
      if (row + dy < 0 || row + dy >= count) continue;
      tiles.push({ z, x: (column + dx + count) % count, y: row + dy });
    }
  }
  return tiles;
}
