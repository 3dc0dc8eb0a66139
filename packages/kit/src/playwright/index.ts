export { FormPage } from "./form-page.ts";
