import type { Problem } from "@bibliotope/wire";
import { isControl } from "./controls.ts";

/**
 * Shows what a server found wrong at the fields of a form, as the browser shows its own (constraint validation); each
 * goes away when its field is changed. What is of no field is in the answer.
 *
 * @returns words for which the form has no field
 */
export function showProblem(form: HTMLFormElement, problem: Pick<Problem, "detail" | "issues">): string[] {
  const issues = problem.issues?.length ? problem.issues : [{ parameter: "", message: problem.detail }];
  const elsewhere = issues.flatMap(({ parameter, message }) => {
    const control = parameter ? form.elements.namedItem(parameter) : null;
    if (!isControl(control) || !("setCustomValidity" in control)) return [message];
    control.setCustomValidity(message);
    const clear = () => {
      control.setCustomValidity("");
      form.removeEventListener("input", clear);
      form.removeEventListener("change", clear);
    };
    form.addEventListener("input", clear);
    form.addEventListener("change", clear);
    return [];
  });
  form.reportValidity();
  return elsewhere;
}
