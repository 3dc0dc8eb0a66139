export type { FilledBy } from "./address.ts";
export { bind } from "./bind.ts";
export type { Binding, BindOptions } from "./binding.ts";
export { controlOf, isByPerson } from "./controls.ts";
export { type RenderedForm, type RenderOptions, renderForm } from "./render.ts";
export { showProblem } from "./show-problem.ts";
