export * from "./answers.ts";
export * from "./asking.ts";
export * from "./calls.ts";
export * from "./form.ts";
export * from "./manage.ts";
export { openApi } from "./openapi.ts";
export * from "./problem.ts";
export * from "./rehearsal.ts";
export * from "./situations.ts";
