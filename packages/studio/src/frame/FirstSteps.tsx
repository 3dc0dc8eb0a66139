import { Popover } from "radix-ui";
import { Link } from "react-router";
import { firstSteps, STEPS, type Step } from "../state/first-steps.slice.ts";
import { useMayEdit } from "../state/may.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";

/** What each is, how it is done, and where: a view of a form, or a path. */
const ABOUT: Readonly<Record<Step, { title: string; words: string; to: string }>> = {
  tried: {
    title: "Try a form",
    words: "Type into the search field, for example 12 harb, and choose a suggestion.",
    to: "rehearse",
  },
  changed: {
    title: "Change a field",
    words: "Drag an address part to a field, or rename one. Changes are saved as a draft.",
    to: "compose",
  },
  taken: {
    title: "Put it into your page",
    words: "Copy the code: a page, a component, a program or a form you already have.",
    to: "take-away",
  },
  imported: {
    title: "Import your data",
    words: "A CSV or GeoJSON file becomes a draft that you check and publish.",
    to: "/data/import",
  },
};

/** What somebody new may do next. It goes away once all is done, or when it is put away. */
export function FirstSteps() {
  const { done, isHidden } = useStudio((state) => state.firstSteps);
  const form = useStudio(({ draft }) => draft.ref);
  const dispatch = useStudioDispatch();
  const mayEdit = useMayEdit();
  if (isHidden || !mayEdit || done.length === STEPS.length) return null;
  const next = STEPS.find((step) => !done.includes(step));
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          className="whitespace-nowrap rounded border max-[480px]:hidden border-rule bg-page px-2.5 py-1 text-[13px] hover:bg-wash"
        >
          <span className="max-[900px]:sr-only">First steps </span>
          <span className="tabular-nums text-quiet">
            {done.length}/{STEPS.length}
          </span>
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          aria-label="First steps"
          className="z-20 w-[23rem] max-w-[94vw] rounded-md border border-edge bg-page shadow-sm"
        >
          <ol>
            {STEPS.map((step, i) => {
              const { title, words, to } = ABOUT[step];
              const isDone = done.includes(step);
              return (
                <li key={step} className="border-rule not-first:border-t">
                  <Popover.Close asChild>
                    <Link
                      to={to.startsWith("/") ? to : form ? `/forms/${form}/${to}` : "/forms"}
                      aria-current={step === next ? "step" : undefined}
                      className="grid grid-cols-[1.6rem_1fr] gap-x-2 px-4 py-2.5 hover:bg-wash"
                    >
                      <span aria-hidden="true" className={isDone ? "text-verdigris" : "text-quiet"}>
                        {isDone ? "✓" : i + 1}
                      </span>
                      <span>
                        <span className={`font-serif text-[15.5px] ${isDone ? "text-quiet" : "font-semibold"}`}>
                          {title}
                          {isDone ? <span className="sr-only">, done</span> : null}
                        </span>
                        {isDone ? null : <span className="mt-0.5 block text-[13px] text-quiet">{words}</span>}
                      </span>
                    </Link>
                  </Popover.Close>
                </li>
              );
            })}
          </ol>
          <p className="border-t border-rule px-4 py-2 text-right text-[13px]">
            <button type="button" className="underline" onClick={() => dispatch(firstSteps.hidden())}>
              Do not show again
            </button>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
