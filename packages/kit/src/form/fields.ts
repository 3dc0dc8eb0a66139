import type { Field } from "@bibliotope/core/form";
import type { Box } from "@bibliotope/core/geo";
import { make } from "../map/make.ts";
import { say } from "../words/say.ts";
import { makeDistance } from "./distance.ts";

/** A country to choose from. */
export interface CountryChoice {
  code: string;
  name: string;
  /** Where its data lies, in degrees: the form's map starts there. */
  bbox?: Box | undefined;
}

/** A field with the label, as people meet it; a hidden one is an input alone. */
export function renderField(field: Field, id: string, countries: readonly CountryChoice[]): HTMLElement {
  const { kind, name, label, help, half } = field;
  if (kind === "hidden") {
    const input = make("input");
    input.type = "hidden";
    input.name = name;
    return input;
  }
  const frame = make("div", half ? "bt-field bt-half" : "bt-field");
  frame.dataset.field = name;
  if (kind === "button") {
    const button = make("button", "bt-look", label);
    button.type = "button";
    button.name = name;
    button.id = id;
    frame.append(button);
  } else if (kind === "still") {
    frame.append(make("span", "bt-label", label), make("div", "bt-still"));
  } else {
    const head = make("label", "bt-label");
    head.htmlFor = id;
    head.append(make("span", "", label));
    frame.append(head, controlFor(field, id, countries));
  }
  if (help) {
    const words = make("p", "bt-help", help);
    words.id = `${id}-help`;
    frame.querySelector("input, select, output")?.setAttribute("aria-describedby", words.id);
    frame.append(words);
  }
  return frame;
}

function controlFor(field: Field, id: string, countries: readonly CountryChoice[]): HTMLElement {
  const { kind, name, autofill, required, placeholder, options = [] } = field;
  if (kind === "distance") return makeDistance(id, name);
  if (kind === "shown") {
    const output = make("output");
    output.id = id;
    output.name = name;
    return output;
  }
  const control =
    kind === "country"
      ? choiceOf([
          { value: "", label: say("Choose") },
          ...countries.map(({ code, name }) => ({ value: code, label: name })),
        ])
      : kind === "choice"
        ? choiceOf(options)
        : make("input");
  control.id = id;
  control.name = name;
  if (autofill) control.setAttribute("autocomplete", autofill);
  if (required) control.required = true;
  if (placeholder && control instanceof HTMLInputElement) control.placeholder = placeholder;
  return control;
}

function choiceOf(options: readonly { value: string; label: string }[]): HTMLSelectElement {
  const select = make("select");
  for (const { value, label } of options) {
    const option = make("option", "", label);
    option.value = value;
    select.append(option);
  }
  return select;
}
