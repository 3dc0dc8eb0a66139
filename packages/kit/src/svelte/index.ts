import type { HTMLAttributes } from "svelte/elements";
import type { AttributesOf, ElementClasses, ElementTag, EventsOf, ListenersOf } from "../elements/element-types.ts";

/** `on:bibliotope-found`, as Svelte 4 writes it. */
type Directives<T extends ElementTag> = {
  [E in keyof EventsOf<T> & string as `on:${E}`]?: (event: EventsOf<T>[E]) => void;
};
type Own<T extends ElementTag> = AttributesOf<T> & ListenersOf<T> & Directives<T>;
type Props<T extends ElementTag> = Omit<HTMLAttributes<ElementClasses[T]>, keyof Own<T>> & Own<T>;

/** The elements in Svelte's templates: `import type {} from "@bibliotope/kit/svelte"` once. */
declare module "svelte/elements" {
  interface SvelteHTMLElements {
    "bibliotope-search": Props<"bibliotope-search">;
    "bibliotope-map": Props<"bibliotope-map">;
    "bibliotope-still": Props<"bibliotope-still">;
    "bibliotope-report": Props<"bibliotope-report">;
    "bibliotope-picker": Props<"bibliotope-picker">;
  }
}
