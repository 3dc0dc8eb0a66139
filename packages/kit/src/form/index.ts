export type { FilledBy } from "./address.ts";
export { type Binding, type BindOptions, bind } from "./bind.ts";
export { controlOf, isByPerson } from "./controls.ts";
export { POINT, type RenderedForm, type RenderOptions, renderForm } from "./render.ts";
export { showProblem } from "./show-problem.ts";
