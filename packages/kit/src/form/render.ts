import { type Field, type FormAnswer, type FormDefinition, shortLine } from "@bibliotope/core/form";
import { SHEETS } from "@bibliotope/core/sheet";
import type { Client } from "../client/client.ts";
import { SheetMap } from "../map/sheet-map.ts";
import { adopt } from "../style.ts";
import type { Tracer } from "../trace.ts";
import { type Binding, bind } from "./bind.ts";
import { FORM_STYLE } from "./style.ts";

export interface RenderOptions {
  client: Client;
  /** Countries to choose from in a country field: code and name. */
  countries: readonly { code: string; name: string }[];
  /** Where the form's map goes, when not into the form itself. */
  mapIn?: HTMLElement;
  /** Leave the map out altogether. */
  withoutMap?: boolean;
  trace?: Tracer;
  filled?: (answer: FormAnswer) => void;
  cleared?: () => void;
}

/** A form on the page, as its users meet it. */
export interface RenderedForm {
  form: HTMLFormElement;
  binding: Binding;
  map: SheetMap | undefined;
  destroy(): void;
}

let forms = 0;

/** Renders a form from its definition and binds it: search, filling and map work as the definition says. */
export function renderForm(container: HTMLElement, definition: FormDefinition, options: RenderOptions): RenderedForm {
  adopt(container.getRootNode() as Document, FORM_STYLE);
  const id = `bt-form-${++forms}`;
  const form = document.createElement("form");
  form.className = "bt-form";
  form.noValidate = false;
  form.addEventListener("submit", (event) => event.preventDefault());
  if (definition.intro) form.append(element("p", "bt-intro", definition.intro));
  for (const field of definition.fields) {
    if (field.kind !== "map") form.append(renderField(field, `${id}-${field.name}`, options));
  }
  const mapField = definition.fields.find((field) => field.kind === "map");
  const place = mapField && !options.withoutMap ? placeForMap(form, mapField, options.mapIn) : undefined;
  if (definition.submit) {
    const send = element("button", "", definition.submit);
    send.setAttribute("type", "submit");
    form.append(send);
  }
  container.append(form);
  const map =
    place &&
    new SheetMap(place, { client: options.client, label: mapField!.label, sheets: SHEETS, aims: true, device: true });
  let answer: FormAnswer | undefined;
  const marker = (found: FormAnswer) => ({ at: found.at, label: shortLine(found), draggable: true });
  const binding = bind(form, {
    client: options.client,
    definition,
    trace: options.trace,
    filled: (found, why) => {
      answer = found;
      // while a marker is moved, it stands where the person holds it
      if (why !== "moved") map?.showAnswer(marker(found));
      options.filled?.(found);
    },
    cleared: () => {
      answer = undefined;
      map?.setMarkers([]);
      options.cleared?.();
    },
  });
  map?.onPress((at) => void binding.fillFrom(at));
  map?.onFollow(({ address, isLast, why }) => {
    if (address) binding.fillWith(address);
    else binding.say("No address lies near this spot.");
    // dropped, the marker stands at the address it was dropped by, or goes back to the last one
    if (isLast && answer && (address || why === "drag")) map.setMarkers([{ ...marker(answer), marked: true }]);
  });
  return {
    form,
    binding,
    map,
    destroy: () => {
      binding.destroy();
      map?.destroy();
      form.remove();
    },
  };
}

function placeForMap(form: HTMLFormElement, field: Field, elsewhere: HTMLElement | undefined): HTMLElement {
  if (elsewhere) return elsewhere;
  const frame = element("div", "bt-field", "");
  const place = element("div", "bt-map", "");
  frame.append(element("span", "bt-label", field.label), place);
  if (field.help) frame.append(element("p", "bt-help", field.help));
  form.append(frame);
  return place;
}

function renderField(field: Field, id: string, { countries }: RenderOptions): HTMLElement {
  if (field.kind === "hidden") {
    const input = document.createElement("input");
    input.type = "hidden";
    input.name = field.name;
    return input;
  }
  const frame = element("div", field.half ? "bt-field bt-half" : "bt-field", "");
  frame.dataset.field = field.name;
  const label = document.createElement("label");
  label.className = "bt-label";
  label.htmlFor = id;
  label.append(element("span", "", field.label));
  const control = field.kind === "country" ? countrySelect(countries) : document.createElement("input");
  control.id = id;
  control.name = field.name;
  if (field.autofill) control.setAttribute("autocomplete", field.autofill);
  if (field.required) control.required = true;
  if (field.placeholder && control instanceof HTMLInputElement) control.placeholder = field.placeholder;
  frame.append(label, control);
  if (field.help) frame.append(element("p", "bt-help", field.help));
  return frame;
}

function countrySelect(countries: readonly { code: string; name: string }[]): HTMLSelectElement {
  const select = document.createElement("select");
  for (const { code, name } of [{ code: "", name: "Choose" }, ...countries]) {
    const option = document.createElement("option");
    option.value = code;
    option.textContent = name;
    select.append(option);
  }
  return select;
}

function element(tag: string, className: string, text: string): HTMLElement {
  const made = document.createElement(tag);
  if (className) made.className = className;
  if (text) made.textContent = text;
  return made;
}
