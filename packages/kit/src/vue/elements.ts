import type { HTMLAttributes, ReservedProps } from "vue";
import type { AttributesOf, ElementTag, EventsOf } from "../elements/element-types.ts";

/** `bibliotope-found` as the property under which Vue listens to it: `onBibliotopeFound`. */
type Listener<E extends string> = E extends `${infer First}-${infer Rest}`
  ? `on${Capitalize<First>}${Capitalize<Rest>}`
  : never;
type ListenersOf<T extends ElementTag> = {
  [E in keyof EventsOf<T> & string as Listener<E>]?: (event: EventsOf<T>[E]) => void;
};
/** An element as a component of templates. */
export type ElementComponent<T extends ElementTag> = new () => {
  $props: Omit<HTMLAttributes, keyof AttributesOf<T>> & ReservedProps & AttributesOf<T> & ListenersOf<T>;
};

/** The elements in templates; tell Vue's compiler that tags with `bibliotope-` are custom elements. */
declare module "vue" {
  interface GlobalComponents {
    "bibliotope-search": ElementComponent<"bibliotope-search">;
    "bibliotope-map": ElementComponent<"bibliotope-map">;
    "bibliotope-still": ElementComponent<"bibliotope-still">;
    "bibliotope-report": ElementComponent<"bibliotope-report">;
    "bibliotope-picker": ElementComponent<"bibliotope-picker">;
  }
}
