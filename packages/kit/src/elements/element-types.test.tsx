import type { Position } from "@bibliotope/core/geo";
import type { RecordFeature } from "@bibliotope/wire";
import type { SvelteHTMLElements } from "svelte/elements";
import { expectTypeOf, it } from "vitest";
import type { GlobalComponents } from "vue";
import type {} from "../react/index.ts";
import type {} from "../svelte/index.ts";
import type {} from "../vue/index.ts";
import type { EventsOf } from "./element-types.ts";

/** What is said here is checked by the compiler; running it checks nothing more. */
it("elements have types in JSX, Vue's templates, Svelte's, and for listeners of the DOM", () => {
  const found = (event: CustomEvent<RecordFeature>) => event.detail.properties.line;
  const search = <bibliotope-search web-key="bt_web_1" countries="QR" required onbibliotope-found={found} />;
  // @ts-expect-error no element has such an attribute
  const wrong = <bibliotope-search country="QR" />;
  // @ts-expect-error the detail of another event
  const other = <bibliotope-map onbibliotope-pressed={found} zoom={15} />;
  expectTypeOf(search).toEqualTypeOf(wrong);
  expectTypeOf(search).toEqualTypeOf(other);

  type OfVue = InstanceType<GlobalComponents["bibliotope-map"]>["$props"];
  expectTypeOf<OfVue["onBibliotopePressed"]>().toEqualTypeOf<((event: CustomEvent<Position>) => void) | undefined>();
  expectTypeOf<OfVue["zoom"]>().toEqualTypeOf<number | string | undefined>();

  type OfSvelte = SvelteHTMLElements["bibliotope-search"];
  expectTypeOf<OfSvelte["onbibliotope-found"]>().toEqualTypeOf<typeof found2 | undefined>();
  expectTypeOf<OfSvelte["on:bibliotope-lost"]>().toEqualTypeOf<((event: CustomEvent<undefined>) => void) | undefined>();

  expectTypeOf<HTMLElementEventMap["bibliotope-found"]>().toEqualTypeOf<CustomEvent<RecordFeature>>();
  expectTypeOf<keyof EventsOf<"bibliotope-still">>().toEqualTypeOf<never>();
});

declare const found2: (event: CustomEvent<RecordFeature>) => void;
