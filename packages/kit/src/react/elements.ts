import type { DetailedHTMLProps, HTMLAttributes } from "react";
import type { AttributesOf, ElementClasses, ElementTag, ListenersOf } from "../elements/element-types.ts";

type Common<E extends HTMLElement> = DetailedHTMLProps<HTMLAttributes<E>, E>;
/** React writes `class` of custom elements as it is. */
type Own<T extends ElementTag> = AttributesOf<T> & ListenersOf<T> & { class?: string };
/** Properties of an element in JSX. */
export type ElementProps<T extends ElementTag> = Omit<Common<ElementClasses[T]>, keyof Own<T>> & Own<T>;

/** The elements in JSX; React 19 takes their events as `onbibliotope-found={…}`. */
declare module "react" {
  namespace JSX {
    interface IntrinsicElements {
      "bibliotope-search": ElementProps<"bibliotope-search">;
      "bibliotope-map": ElementProps<"bibliotope-map">;
      "bibliotope-still": ElementProps<"bibliotope-still">;
      "bibliotope-report": ElementProps<"bibliotope-report">;
      "bibliotope-picker": ElementProps<"bibliotope-picker">;
    }
  }
}
