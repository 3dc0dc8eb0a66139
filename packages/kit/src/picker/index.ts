export type { HandedBack, PickedPlace } from "./hand-back.ts";
export { type OpenPickerOptions, openPicker } from "./open.ts";
export { type Picked, type PickerOptions, PickerPanel } from "./panel.ts";
