import type { FormDefinition, FormExample } from "@bibliotope/core/form";
import { problemsOf } from "@bibliotope/core/form";
import { useMemo } from "react";
import { draft } from "../state/draft.slice.ts";
import { useStudioDispatch } from "../state/store.ts";

/** Problems of the form; each leads to the field. */
export function Problems({ definition, examples }: { definition: FormDefinition; examples: readonly FormExample[] }) {
  const dispatch = useStudioDispatch();
  const problems = useMemo(() => problemsOf(definition, examples), [definition, examples]);
  const fields = new Set(problems.map(({ field }) => field)).size;
  const labelOf = (name: string) => definition.fields.find((field) => field.name === name)?.label ?? name;
  return (
    <section aria-label="Worth checking" className="flex max-h-[124px] flex-none gap-6 pt-3">
      <div className="w-[140px] flex-none">
        <h2 className="font-serif text-[15px] font-semibold">Worth checking</h2>
        <p className="text-[12.5px] text-quiet">
          {problems.length ? `${fields} of ${definition.fields.length} fields` : "nothing"}
        </p>
      </div>
      {problems.length ? (
        <ul className="min-w-0 flex-1 overflow-y-auto">
          {problems.map(({ field, kind, message }) => (
            <li
              key={`${field} ${kind}`}
              className="flex items-baseline gap-2.5 border-b border-rule py-1.5 text-[13px] first:pt-0"
            >
              <span aria-hidden className={kind === "duplicate token" ? "text-madder" : "text-ochre"}>
                ◆
              </span>
              <span className="min-w-0">
                <strong>{labelOf(field)}</strong> {message}
              </span>
              <button
                type="button"
                className="ml-auto flex-none underline"
                onClick={() => dispatch(draft.selected(field))}
                aria-label={`Show ${labelOf(field)}: ${kind}`}
              >
                show
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="text-quiet">Every field bound to an address is filled in every country.</p>
      )}
    </section>
  );
}
