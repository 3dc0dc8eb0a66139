import {
  addressesOf,
  addressOf,
  type Field,
  type FormAnswer,
  type FormCountry,
  type FormDefinition,
  fillableFields,
  lineFor,
  ruleOf,
  shortLine,
  storedPosition,
  type Values,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import { MAP_STYLES } from "@bibliotope/core/map";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { markPart, POINT_EVENT, type PointedAt } from "../form-parts.ts";
import { InteractiveMap } from "../map/interactive-map.ts";
import { make } from "../map/make.ts";
import type { Card } from "../map/marker.ts";
import { type MapOptions, shownPictures } from "../map/options.ts";
import { StillControl } from "../map/still-control.ts";
import { adopt } from "../style.ts";
import type { Tracer } from "../trace.ts";
import { say } from "../words/say.ts";
import type { FilledBy } from "./address.ts";
import { bind } from "./bind.ts";
import type { Binding, BindOptions } from "./binding.ts";
import { cardOf } from "./card-of.ts";
import { controlOf } from "./controls.ts";
import { Distances } from "./distance.ts";
import { type CountryChoice, renderField } from "./fields.ts";
import { fitCountry, hideUntilCountry } from "./fit-country.ts";
import { nearestFor } from "./nearest.ts";
import { MapPicker } from "./picker.ts";
import { offerPostcodes } from "./postcodes.ts";
import { FORM_STYLE } from "./style.ts";

export interface RenderOptions {
  client: Client;
  /** Countries to choose from in a country field, with their profiles where a form asks for the country first. */
  countries: readonly (CountryChoice & Partial<FormCountry>)[];
  /** Where the form's map goes, when not into the form itself. */
  mapIn?: HTMLElement;
  /** Leave the map out altogether. */
  withoutMap?: boolean;
  /** Values by field of a stored record. Its ref alone is requested: whether there still is such a place. */
  record?: Values;
  trace?: Tracer;
  isByPerson?: BindOptions["isByPerson"];
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation;
  filled?: (answer: FormAnswer, address: string) => void;
  cleared?: (address: string) => void;
}

/** A form on the page, as its users meet it. */
export interface RenderedForm {
  form: HTMLFormElement;
  binding: Binding;
  map: InteractiveMap | undefined;
  destroy(): void;
}

/** Where a form's map starts: in the countries that the address may be in. */
function startsOf(
  countries: readonly CountryChoice[],
  only: readonly string[] | undefined,
): Pick<MapOptions, "starts"> {
  const starts = countries.flatMap(({ code, bbox }) => (bbox && (!only || only.includes(code)) ? [bbox] : []));
  return starts.length ? { starts } : {};
}

let forms = 0;

/** Renders a form from the definition and binds it: search, filling and map work by the definition. */
export function renderForm(container: HTMLElement, definition: FormDefinition, options: RenderOptions): RenderedForm {
  adopt(container.getRootNode() as Document, FORM_STYLE);
  const { client, countries, record = {} } = options;
  const id = `bt-form-${++forms}`;
  const form = markPart(make("form", "bt-form"), "form");
  form.addEventListener("submit", (event) => event.preventDefault());
  if (definition.intro) form.append(make("p", "bt-intro", definition.intro));
  for (const field of definition.fields)
    if (field.kind !== "map") form.append(renderField(withStored(field, record), `${id}-${field.name}`, countries));
  const mapField = definition.fields.find((field) => field.kind === "map");
  const hasMap = mapField && !options.withoutMap;
  const place = hasMap && !mapField.opens ? placeForMap(form, mapField, options.mapIn) : undefined;
  if (definition.submit) {
    const send = make("button", "bt-send", definition.submit);
    send.type = "submit";
    form.append(send);
  }
  container.append(form);
  const onMap = mapField ? addressOf(mapField) : "";
  /** The address whose marker is being moved. */
  let lifted = onMap;
  const map =
    place &&
    new InteractiveMap(place, {
      client,
      label: mapField!.label,
      ...startsOf(countries, ruleOf(definition, onMap).countries),
      mapStyles: MAP_STYLES,
      aims: true,
      device: true,
      nearest: (at, why, signal) => nearestFor(client, ruleOf(definition, why === "drag" ? lifted : onMap), at, signal),
      ...(mapField?.relief ? { relief: true } : {}),
      ...shownPictures(mapField?.pictures),
      ...(options.geolocation ? { geolocation: options.geolocation } : {}),
    });
  /** Where each address lies now, by name. */
  const places = new Map<string, PlacedMarker>();
  const distances = new Distances(form, definition);
  /** Ways by road that services have answered. */
  let roads: readonly { points: readonly Position[]; words: string }[] = [];
  /** Draws the straight line between two ends, and the ways by road. @returns where all places lie */
  const drawLines = () => {
    const ends = [...places.values()].map(({ at }) => at);
    const straight = ends.length > 1 ? [{ points: ends, ...(roads.length ? { words: straightWords() } : {}) }] : [];
    map?.setLines([...straight, ...roads.map((road) => ({ ...road, isRoad: true }))]);
    return ends;
  };
  /** Puts all places on the map, with a line between two. */
  const mark = (marked?: string) => {
    map?.setMarkers([...places].map(([name, here]) => ({ ...markerOf(here), marked: name === marked })));
    return drawLines();
  };
  const show = (address: string, why?: FilledBy) => {
    const here = places.get(address);
    void distances.set([...places.values()].map(({ at }) => at));
    showStills(form, definition, client, address, here);
    // while a marker is moved, it is where the person holds it
    if (!map || why === "moved") return;
    if (here && places.size === 1) {
      map.setLines([]);
      map.showAnswer(markerOf(here));
    } else {
      const ends = mark();
      if (here) map.fit(ends);
    }
  };
  const binding = bind(form, {
    client,
    definition,
    record,
    trace: options.trace,
    isByPerson: options.isByPerson,
    geolocation: options.geolocation,
    filled: (found, why, address) => {
      const { anywhere } = ruleOf(definition, address);
      // a spot that is taken as it is has no record of its own
      const ref = anywhere ? {} : { ref: found.ref };
      places.set(address, { at: found.at, ...ref, label: shortLine(found), card: cardOf(found, client) });
      show(address, why);
      options.filled?.(found, address);
    },
    cleared: (address) => {
      places.delete(address);
      show(address);
      options.cleared?.(address);
    },
    // markers stay as they are: one of them may be in somebody's hand
    drawn: (lines) => {
      if (!lines.length && !roads.length) return;
      roads = lines;
      drawLines();
    },
    several: (candidates, address) => {
      if (!candidates.length) {
        show(address);
        return;
      }
      map?.setMarkers(
        candidates.map((candidate, i) => ({
          at: candidate.at,
          number: i + 1,
          name: lineFor(candidate),
          heard: ({ type }) => type === "press" && binding.choose(i, address),
        })),
      );
      map?.fit(candidates.map(({ at }) => at));
    },
  });
  const ending: (() => void)[] = [];
  if (hasMap && mapField.opens) {
    const start = () => places.get(onMap)?.at;
    const { geolocation } = options;
    const picker = new MapPicker(form, { client, definition, field: mapField, binding, start, geolocation });
    form.insertBefore(opening(mapField, picker.opener), placeOfField(form, definition, mapField));
    ending.push(() => picker.destroy());
  }
  for (const address of addressesOf(definition)) {
    const at = storedPosition(definition, record, address);
    if (at) places.set(address, { at });
    void checkStored(definition, address, record, client, binding);
    if (at) show(address);
    else showStills(form, definition, client, address, undefined);
    ending.push(followCountry(form, definition, address, binding, options));
  }
  map?.onPress((at) => void binding.fillFrom(at, onMap));
  form.addEventListener(POINT_EVENT, (event) => {
    const { lat, lon, address = onMap } = (event as CustomEvent<PointedAt>).detail;
    if (map) void binding.fillFrom({ lat, lon }, address);
  });
  map?.onMarker(({ type, place }) => {
    if (type === "lift") lifted = [...places.keys()][place] ?? onMap;
  });
  map?.onFollow(({ address, at, isLast, why }) => {
    const own = why === "drag" ? lifted : onMap;
    if (ruleOf(definition, own).anywhere) {
      if (isLast) void binding.fillFrom(at, own);
      return;
    }
    if (address) binding.fillWith(address, own);
    else binding.say(say("Nothing was found near this position."), own);
    // dropped, the marker is at the address it was dropped by, or goes back to the last one
    if (isLast && places.has(own) && (address || why === "drag")) mark(own);
  });
  return {
    form,
    binding,
    map,
    destroy: () => {
      for (const end of ending) end();
      binding.destroy();
      map?.destroy();
      form.remove();
    },
  };
}

/** A choice whose list comes from a service offers what was stored, before that is requested. */
function withStored(field: Field, record: Values): Field {
  const value = record[field.name];
  if (field.kind !== "choice" || field.options?.length || !value) return field;
  return { ...field, options: [{ value, label: value }] };
}

/** Where an address lies, and what it is called there. */
interface PlacedMarker {
  at: Position;
  /** Of the record that is there. */
  ref?: string;
  label?: string;
  card?: Card;
}

/** Words at a straight line where there is another one that is not; the map puts its length in. */
const straightWords = () => say("{length} in a straight line", { length: "{length}" });

const markerOf = ({ at, label, card }: PlacedMarker) => ({
  at,
  ...(card ? { card } : {}),
  ...(label ? { label } : { name: say("the stored place") }),
  draggable: true,
});

/** What opens a map over the form, with the label. */
function opening({ name, label, help }: Field, opener: HTMLElement): HTMLElement {
  const frame = make("div", "bt-field");
  frame.dataset.field = name;
  frame.append(make("span", "bt-label", label), opener);
  if (help) frame.append(make("p", "bt-help", help));
  return frame;
}

/** The element before which a field stands that has none of its own yet. */
function placeOfField(form: HTMLFormElement, { fields }: FormDefinition, field: Field): Element | null {
  const later = fields.slice(fields.indexOf(field) + 1);
  const next = later.map(({ name }) => form.querySelector(`:scope > [data-field="${CSS.escape(name)}"]`)).find(Boolean);
  return next ?? form.querySelector(":scope > .bt-send");
}

function placeForMap(
  form: HTMLFormElement,
  { label, help }: { label: string; help?: string },
  elsewhere: HTMLElement | undefined,
): HTMLElement {
  if (elsewhere) return elsewhere;
  const frame = make("div", "bt-field");
  const place = make("div", "bt-map");
  frame.append(make("span", "bt-label", label), place);
  if (help) frame.append(make("p", "bt-help", help));
  form.append(frame);
  return place;
}

/** Pictures of the place in the form, or words while there is none. */
function showStills(
  form: HTMLFormElement,
  definition: FormDefinition,
  client: Client,
  address: string,
  here: PlacedMarker | undefined,
): void {
  for (const field of definition.fields) {
    if (field.kind !== "still" || addressOf(field) !== address) continue;
    const place = form.querySelector(`[data-field="${CSS.escape(field.name)}"] > .bt-still`);
    if (!here) {
      place?.replaceChildren(make("p", "bt-help", say("The picture appears when the place is known.")));
      continue;
    }
    const image = make("img");
    image.crossOrigin = "anonymous";
    image.width = 300;
    image.height = 200;
    image.alt = here.label ? say("Map of {place}", { place: here.label }) : say("Map of the place");
    image.addEventListener("error", () =>
      place?.replaceChildren(make("p", "bt-help", say("The picture could not be loaded."))),
    );
    const params = { at: `${here.at.lat},${here.at.lon}`, width: 300, height: 200, zoom: 16 };
    const density = devicePixelRatio > 1 ? 2 : 1;
    const night = matchMedia("(prefers-color-scheme: dark)");
    const show = () => {
      image.src = client.stillUrl({ ...params, label: here.label, density, night: night.matches ? 1 : undefined });
    };
    const changed = () => (image.isConnected ? show() : night.removeEventListener("change", changed));
    night.addEventListener("change", changed);
    show();
    if (!place) continue;
    const { at, label, ref } = here;
    new StillControl(image, { at, client, ...(label ? { label } : {}), ...(ref ? { ref } : {}) }).putInto(place);
  }
}

/** Shows that the ref of a stored record no longer exists; the record stays as it was stored. */
async function checkStored(
  definition: FormDefinition,
  address: string,
  record: Values,
  client: Client,
  binding: Binding,
): Promise<void> {
  const field = fillableFields(definition, address).find(({ binding: pattern }) => pattern?.trim() === "{ref}");
  const ref = field && record[field.name];
  if (!ref) return;
  try {
    await client.record(ref);
  } catch (error) {
    const isMissing = error instanceof LookupError && error.trouble === "missing";
    // unless the person has gone on meanwhile
    if (isMissing && binding.addressState(address) === "chosen")
      binding.say(say("The stored place is no longer available. Look it up again, or leave it as it is."), address);
  }
}

/** Where a form asks for the country first, the fields follow it. @returns what ends it */
function followCountry(
  form: HTMLFormElement,
  definition: FormDefinition,
  address: string,
  binding: Binding,
  { client, trace, countries }: RenderOptions,
): () => void {
  if (!ruleOf(definition, address).countryFirst) return () => undefined;
  const field = definition.fields.find((existing) => existing.kind === "country" && addressOf(existing) === address);
  const control = field && controlOf(form, field.name);
  const fit = () => {
    const { line, labels, levels, postcode } = countries.find(({ code }) => code === control?.value) ?? {};
    if (line && labels && levels) fitCountry(form, definition, address, { line, labels, levels, postcode });
    else hideUntilCountry(form, definition, address);
  };
  control?.addEventListener("change", fit);
  fit();
  return offerPostcodes(form, definition, address, { client, trace, binding, country: () => control?.value });
}
