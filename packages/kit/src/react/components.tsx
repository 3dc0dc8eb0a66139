import type { FormAnswer, FormDefinition, Values } from "@bibliotope/core/form";
import type { RecordFeature, Suggestion } from "@bibliotope/wire";
import {
  type CSSProperties,
  type FormHTMLAttributes,
  forwardRef,
  type ImgHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  type RefObject,
  type SyntheticEvent,
  useEffect,
  useId,
  useImperativeHandle,
  useInsertionEffect,
  useRef,
  useState,
} from "react";
import type { Params } from "../client/client.ts";
import { fillByTokens } from "../fill/fill.ts";
import { bind } from "../form/bind.ts";
import type { Binding, BindOptions } from "../form/binding.ts";
import { type RenderedForm, renderForm } from "../form/render.ts";
import { InteractiveMap } from "../map/interactive-map.ts";
import type { Marker } from "../map/marker.ts";
import type { MapOptions } from "../map/options.ts";
import { SEARCH_STYLE } from "../search/style.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { useClient } from "./service.tsx";
import { useLatest } from "./use-latest.ts";
import { type UseSearchOptions, useSearch } from "./use-search.ts";

/** Attributes of the input that the search sets itself. */
type SetBySearch = "value" | "defaultValue" | "role" | "autoComplete" | "list" | "type" | "children";

/** What an input takes is handed on to the input, and its handlers run before those of the search. */
export interface SearchFieldProps
  extends UseSearchOptions,
    Omit<InputHTMLAttributes<HTMLInputElement>, SetBySearch | keyof UseSearchOptions> {
  label: ReactNode;
  /** Name under which the text is sent; `NAME-ref` holds the ref of a chosen place. */
  name?: string;
  /** Of the element around label, input and list. */
  className?: string;
  /** Fills the form's other controls by their autofill tokens; the name of the address's section where it has one. */
  fills?: boolean | string;
}

/** A text field that searches for addresses and places. Its ref is the input. */
export const SearchField = forwardRef<HTMLInputElement, SearchFieldProps>(function SearchField(
  {
    label,
    name,
    id: givenId,
    className,
    fills,
    text,
    countries,
    kinds,
    onFound,
    onLost,
    "aria-describedby": describedBy,
    ...attributes
  },
  ref,
) {
  const input = useRef<HTMLInputElement>(null);
  useImperativeHandle(ref, () => input.current!);
  const ownId = useId();
  const id = givenId ?? ownId;
  const search = useSearch({
    text,
    countries,
    kinds,
    onLost,
    onFound: (record) => {
      const { form } = input.current ?? {};
      if (form && fills !== undefined && fills !== false) fillByTokens(form, record, fills === true ? "" : fills);
      onFound?.(record);
    },
  });
  useInsertionEffect(() => adopt(document, SEARCH_STYLE), []);
  const { status, suggestions, words } = search;
  const described = [describedBy, words && `${id}-words`].filter(Boolean).join(" ");
  return (
    <div className={className}>
      <label htmlFor={id}>{label}</label>
      <div className="bt-search" data-bibliotope="search" data-state={status}>
        <input
          {...attributes}
          ref={input}
          id={id}
          name={name}
          aria-describedby={described || undefined}
          {...withHandlers(search.inputProps, attributes)}
        />
        <ul className="bt-list" data-bibliotope="suggestions" {...search.listProps}>
          {suggestions.map((suggestion, i) => (
            <li key={suggestion.ref} {...search.optionProps(i)}>
              <span className="bt-line" data-bibliotope="line">
                {marked(suggestion)}
              </span>
              <span className="bt-beside">
                {suggestion.kind === "address" ? "" : say(suggestion.kind)}
                {suggestion.kind !== "address" && suggestion.within ? " · " : ""}
                <bdi>{suggestion.within}</bdi>
              </span>
              {suggestion.more > 0 ? <span className="bt-more">{suggestion.more} ›</span> : null}
            </li>
          ))}
        </ul>
        {words ? (
          <p className="bt-words" id={`${id}-words`}>
            {words}
          </p>
        ) : null}
        <p className="bt-unseen" role="status">
          {status === "open"
            ? say("{n} suggestion.|{n} suggestions.", { n: suggestions.length })
            : status === "empty"
              ? say("No suggestions.")
              : ""}
        </p>
      </div>
      {name ? <input type="hidden" name={`${name}-ref`} value={search.record?.id ?? ""} /> : null}
    </div>
  );
});

type InputProps = InputHTMLAttributes<HTMLInputElement>;

/** The search's attributes, where a handler of the page runs first; one that prevents the default keeps the event to itself. */
function withHandlers(own: InputProps, given: InputProps): InputProps {
  const handlers = Object.entries(own).flatMap(([name, ours]) => {
    const theirs: unknown = given[name as keyof InputProps];
    if (typeof ours !== "function" || typeof theirs !== "function") return [];
    const both = (event: SyntheticEvent) => {
      theirs(event);
      if (!event.defaultPrevented) ours(event);
    };
    return [[name, both]];
  });
  return { ...own, ...Object.fromEntries(handlers) };
}

/** A line with the matched characters marked. */
function marked({ line, marks }: Suggestion): ReactNode[] {
  const pieces = marks.flatMap(([start, end], i) => [
    line.slice(i ? marks[i - 1][1] : 0, start),
    <mark key={start}>{line.slice(start, end)}</mark>,
  ]);
  return [...pieces, line.slice(marks.at(-1)?.[1] ?? 0)];
}

export interface MapViewProps extends Omit<MapOptions, "client"> {
  markers?: readonly Marker[];
  onPress?: (at: { lat: number; lon: number }) => void;
  /** Gets the map once it is there, for all that it can beyond these properties. */
  mapRef?: RefObject<InteractiveMap | null>;
  className?: string;
  style?: CSSProperties;
}

/** An interactive map; its height is the page's to set. */
export function MapView({ markers, onPress, mapRef, className, style, ...options }: MapViewProps) {
  const client = useClient();
  const place = useRef<HTMLDivElement>(null);
  const map = useRef<InteractiveMap>(undefined);
  const latest = useLatest({ options, onPress });
  const { mapStyle } = options;
  useEffect(() => {
    if (!place.current) return;
    const made = new InteractiveMap(place.current, {
      client,
      ...latest.current.options,
      ...(mapStyle ? { mapStyle } : {}),
    });
    made.onPress((at) => latest.current.onPress?.(at));
    map.current = made;
    if (mapRef) mapRef.current = made;
    return () => {
      map.current = undefined;
      if (mapRef) mapRef.current = null;
      made.destroy();
    };
  }, [client, mapStyle, mapRef]);
  useEffect(() => {
    map.current?.setMarkers(markers ?? []);
  }, [markers]);
  return <div ref={place} className={className} style={style} />;
}

export interface StillProps extends Omit<ImgHTMLAttributes<HTMLImageElement>, "src" | "crossOrigin"> {
  /** What is shown, such as `{ of: ref }` or `{ at: "-35.2,-21.4", points: … }`. */
  of: Params;
  alt: string;
  width?: number;
  height?: number;
}

/** A picture of the map. */
export function Still({ of, width = 300, height = 200, alt, ...more }: StillProps) {
  const client = useClient();
  const src = client.stillUrl({ width, height, density: 2, ...of });
  return <img {...more} src={src} crossOrigin="anonymous" alt={alt} width={width} height={height} />;
}

export interface AddressFormProps
  extends Omit<FormHTMLAttributes<HTMLFormElement>, "onSubmit">,
    Omit<BindOptions, "client" | "filled" | "cleared"> {
  onFilled?: BindOptions["filled"];
  onCleared?: BindOptions["cleared"];
  onSubmit?: FormHTMLAttributes<HTMLFormElement>["onSubmit"];
  /** Gets what the form is bound with. */
  bindingRef?: RefObject<Binding | null>;
}

/** A form whose address fields fill themselves: by its definition, or by autofill tokens without one. */
export function AddressForm({
  definition,
  record,
  trace,
  geolocation,
  isByPerson,
  several,
  onFilled,
  onCleared,
  bindingRef,
  children,
  ...form
}: AddressFormProps) {
  const client = useClient();
  const element = useRef<HTMLFormElement>(null);
  const latest = useLatest({ record, trace, geolocation, isByPerson, several, onFilled, onCleared });
  useEffect(() => {
    if (!element.current) return;
    const { record, trace, geolocation, isByPerson } = latest.current;
    const binding = bind(element.current, {
      client,
      ...(definition ? { definition } : {}),
      ...(record ? { record } : {}),
      ...(trace ? { trace } : {}),
      ...(geolocation ? { geolocation } : {}),
      ...(isByPerson ? { isByPerson } : {}),
      filled: (...found) => latest.current.onFilled?.(...found),
      cleared: (address) => latest.current.onCleared?.(address),
      several: (...candidates) => latest.current.several?.(...candidates),
    });
    if (bindingRef) bindingRef.current = binding;
    return () => {
      if (bindingRef) bindingRef.current = null;
      binding.destroy();
    };
  }, [client, definition, bindingRef]);
  return (
    <form ref={element} {...form}>
      {children}
    </form>
  );
}

export interface DefinedFormProps {
  definition: FormDefinition;
  /** Values by field of a stored record. */
  record?: Values;
  /** The person sends the form. */
  onSubmit?: (values: Values, event: SubmitEvent) => void;
  onFilled?: (answer: FormAnswer, address: string) => void;
  className?: string;
}

/** A form by its definition: fields, search, map and all of the rules. */
export function DefinedForm({ definition, record, onSubmit, onFilled, className }: DefinedFormProps) {
  const client = useClient();
  const place = useRef<HTMLDivElement>(null);
  const latest = useLatest({ record, onSubmit, onFilled });
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    let rendered: RenderedForm | undefined;
    let isGone = false;
    client.countries().then(
      ({ countries }) => {
        if (isGone || !place.current) return;
        const { record } = latest.current;
        rendered = renderForm(place.current, definition, {
          client,
          countries,
          ...(record ? { record } : {}),
          filled: (...found) => latest.current.onFilled?.(...found),
        });
        const { form, binding } = rendered;
        form.addEventListener("submit", (event) => latest.current.onSubmit?.(binding.values(), event));
      },
      (error: Error) => setTrouble(error.message),
    );
    return () => {
      isGone = true;
      rendered?.destroy();
    };
  }, [client, definition]);
  return (
    <div ref={place} className={className}>
      {trouble ? <p role="alert">{trouble}</p> : null}
    </div>
  );
}

export type { FormAnswer, FormDefinition, RecordFeature, Values };
