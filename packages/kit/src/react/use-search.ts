import type { RecordFeature, Suggestion } from "@bibliotope/wire";
import {
  type ChangeEvent,
  type CompositionEvent,
  type HTMLAttributes,
  type InputHTMLAttributes,
  type KeyboardEvent,
  type LiHTMLAttributes,
  type MouseEvent,
  useEffect,
  useId,
  useRef,
  useState,
} from "react";
import { LookupError } from "../client/errors.ts";
import { lacking } from "../client/lacking.ts";
import { isWrittenFromRight, ListKeys } from "../search/list-keys.ts";
import { SearchMachine, type SearchState } from "../search/machine.ts";
import { pressLine } from "../search/press.ts";
import { say } from "../words/say.ts";
import { useClient } from "./service.tsx";

export interface UseSearchOptions {
  /** Text at first. */
  text?: string;
  /** Only these countries (ISO 3166). */
  countries?: readonly string[];
  /** Only these kinds of record, such as `address`. */
  kinds?: readonly string[];
  /** A line was chosen, and its record is there. */
  onFound?: (record: RecordFeature) => void;
  /** The person changed the text, so that nothing is chosen any more. */
  onLost?: () => void;
}

/** A search: what it shows, and the attributes of the elements that show it. */
export interface Search extends SearchState {
  /** The chosen place; undefined while the text is anything else. */
  record: RecordFeature | undefined;
  inputProps: InputHTMLAttributes<HTMLInputElement>;
  listProps: HTMLAttributes<HTMLUListElement>;
  optionProps(index: number): LiHTMLAttributes<HTMLLIElement>;
  choose(index: number): void;
  /** Goes on to the numbers of a street or the units of a building. */
  enter(index: number): boolean;
  /** Shows a text without requesting it. */
  setText(text: string): void;
}

const IDLE = (text: string): SearchState => ({ status: "idle", text, suggestions: [], active: -1 });

/** A search box without styles: the state and the attributes, after the ARIA combobox pattern. */
export function useSearch(options: UseSearchOptions = {}): Search {
  const client = useClient();
  const id = useId();
  const [state, setState] = useState(() => IDLE(options.text ?? ""));
  const [record, setRecord] = useState<RecordFeature>();
  const latest = useRef({ options, client, chosen: 0 });
  latest.current.options = options;
  latest.current.client = client;
  const [parts] = useState(() => {
    const machine = new SearchMachine({ change: setState });
    machine.set(options.text ?? "");
    const keys = new ListKeys(machine, { choose, enter: (index) => machine.enter(index) });
    return { machine, keys };

    function choose(index: number): void {
      const choice = machine.choose(index);
      if (choice) void resolve(choice.suggestion, choice.typed);
    }

    async function resolve({ ref }: Suggestion, typed: number): Promise<void> {
      const mine = ++latest.current.chosen;
      try {
        const found = await latest.current.client.record(ref, { typed });
        if (mine !== latest.current.chosen) return;
        setRecord(found);
        latest.current.options.onFound?.(found);
      } catch (error) {
        if (mine !== latest.current.chosen) return;
        const words =
          error instanceof LookupError ? error.message : say("The address search does not work at the moment.");
        setState((now) => ({ ...now, status: "error", words }));
      }
    }
  });
  const { machine, keys } = parts;

  useEffect(() => {
    machine.answerBy((text, signal, inside) => {
      const { countries, kinds } = latest.current.options;
      return latest.current.client.suggest(
        text,
        { countries: countries?.join(",") || undefined, kinds: kinds?.join(",") || undefined, inside },
        signal,
      );
    });
    return () => machine.close();
  }, [machine]);

  useEffect(() => {
    let isHere = true;
    void lacking(client, ["suggest", "records"]).then((lacks) => {
      const words = say("Address search is not allowed on this page.");
      if (lacks.length && isHere) setState((now) => (now.status === "idle" ? { ...now, words } : now));
    });
    return () => {
      isHere = false;
    };
  }, [client]);

  useEffect(() => keys.shown(state), [keys, state]);

  const lose = () => {
    latest.current.chosen++;
    if (record) latest.current.options.onLost?.();
    setRecord(undefined);
  };
  // while the next answer is under way the list before stays, so that nothing flickers
  const isOpen = (state.status === "open" || state.status === "loading") && state.suggestions.length > 0;
  const optionId = (index: number) => `${id}-${index}`;
  return {
    ...state,
    record,
    inputProps: {
      role: "combobox",
      value: state.text,
      autoComplete: "off",
      spellCheck: false,
      "aria-autocomplete": "list",
      "aria-expanded": isOpen,
      "aria-controls": `${id}-list`,
      "aria-busy": state.status === "loading",
      ...(isOpen && state.active >= 0 ? { "aria-activedescendant": optionId(state.active) } : {}),
      onChange: ({ target: { value } }: ChangeEvent<HTMLInputElement>) => {
        lose();
        keys.typed();
        machine.input(value);
      },
      onCompositionStart: ({ currentTarget }: CompositionEvent<HTMLInputElement>) =>
        machine.compose(true, currentTarget.value),
      onCompositionEnd: ({ currentTarget }: CompositionEvent<HTMLInputElement>) =>
        machine.compose(false, currentTarget.value),
      onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => {
        const { selectionStart, selectionEnd, value } = event.currentTarget;
        const isAtEnd = selectionStart === value.length && selectionEnd === value.length;
        const { key, altKey, nativeEvent } = event;
        const isRightToLeft = isWrittenFromRight(event.currentTarget);
        const pressed = { key, altKey, isComposing: nativeEvent.isComposing, isAtEnd, isRightToLeft };
        if (keys.pressed(pressed)) event.preventDefault();
      },
      onBlur: () => machine.close(),
    },
    listProps: { role: "listbox", id: `${id}-list`, "aria-label": say("Suggestions"), hidden: !isOpen },
    optionProps: (index) => ({
      role: "option",
      id: optionId(index),
      "aria-selected": index === state.active,
      "data-sure": state.suggestions[index]?.sure,
      onPointerDown: (event) => pressLine(machine, event),
      onPointerMove: () => machine.point(index),
      onClick: (event: MouseEvent) => {
        if ((event.target as Element).closest(".bt-more")) machine.enter(index);
        else keys.take(index);
      },
    }),
    choose: (index) => keys.take(index),
    enter: (index) => machine.enter(index),
    setText: (text) => {
      lose();
      machine.set(text);
    },
  };
}
