import { type Field, placeField, takesValues } from "@bibliotope/core/form";
import { type DragEvent, useState } from "react";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { partColour } from "../ui/part-colour.ts";
import { DRAGGED, DRAGGED_FIELD } from "./dragged.ts";

interface FieldCardProps {
  field: Field;
  isSelected: boolean;
  /** Part picked by keyboard. */
  picked: string | undefined;
  /** Parts that fill it. */
  parts: readonly string[];
}

/** A field of the form being composed; takes a part that is dropped on it, or the picked one. */
export function FieldCard({ field, isSelected, picked, parts }: FieldCardProps) {
  const dispatch = useStudioDispatch();
  const definition = useStudio((state) => state.draft.definition);
  const [isOver, setOver] = useState(false);
  /** Where a field that is dragged over this one would be let down. */
  const [side, setSide] = useState<"before" | "behind">();
  const takes = takesValues(field);
  const bind = (name: string) => dispatch(draft.bound({ field: field.name, name }));
  const press = () => {
    if (picked && takes) bind(picked);
    else dispatch(draft.selected(field.name));
  };
  const sideOf = (event: DragEvent) => {
    const { top, height } = event.currentTarget.getBoundingClientRect();
    return event.clientY < top + height / 2 ? "before" : "behind";
  };
  const leave = () => {
    setOver(false);
    setSide(undefined);
  };
  const line = { before: "shadow-[0_-2px_0_var(--verdigris)]", behind: "shadow-[0_2px_0_var(--verdigris)]" };
  return (
    <li
      data-field={field.name}
      data-selected={isSelected}
      className={`group mb-1 rounded-md border px-3 py-1.5 ${side ? line[side] : ""} ${isSelected ? "border-ink bg-field" : isOver ? "border-dashed border-verdigris bg-wash" : "border-transparent"}`}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(DRAGGED_FIELD)) {
          event.preventDefault();
          event.dataTransfer.dropEffect = "move";
          setSide(sideOf(event));
          return;
        }
        if (!takes || !event.dataTransfer.types.includes(DRAGGED)) return;
        event.preventDefault();
        event.dataTransfer.dropEffect = "link";
        setOver(true);
      }}
      onDragLeave={leave}
      onDrop={(event) => {
        event.preventDefault();
        leave();
        const moved = event.dataTransfer.getData(DRAGGED_FIELD);
        if (moved)
          dispatch(
            draft.edited({ definition: placeField(definition, moved, sideOf(event), field.name), selected: moved }),
          );
        const name = event.dataTransfer.getData(DRAGGED);
        if (name && takes) bind(name);
      }}
    >
      <button
        type="button"
        onClick={press}
        draggable
        title="Drag to reorder"
        onDragStart={(event) => {
          event.dataTransfer.setData(DRAGGED_FIELD, field.name);
          event.dataTransfer.effectAllowed = "move";
        }}
        className="flex w-full cursor-grab items-baseline justify-between gap-3 text-left"
        aria-label={picked && takes ? `Bind ${picked} to ${field.label}` : `Show ${field.label}`}
      >
        <span className={isSelected ? "font-semibold" : "text-quiet"}>{field.label}</span>
        <span className="truncate font-mono text-[11.5px] text-quiet">
          {field.kind === "text" ? field.autofill : field.kind}
        </span>
      </button>
      {takes ? (
        <div
          data-socket
          className="mt-1 flex min-h-[32px] flex-wrap items-center gap-1.5 rounded border border-edge bg-field px-2 py-1"
        >
          {parts.length === 0 ? (
            <span className="text-quiet">{isOver ? "drop here to bind" : "filled by hand"}</span>
          ) : null}
          {parts.map((name) => (
            <Chip key={name} field={field} name={name} />
          ))}
        </div>
      ) : null}
    </li>
  );
}

/** A bound part; one that comes from the autofill token has nothing to unbind. */
function Chip({ field, name }: { field: Field; name: string }) {
  const dispatch = useStudioDispatch();
  const unbind = () => dispatch(draft.unbound({ field: field.name, name }));
  const classes =
    "inline-flex items-center gap-1 rounded-[3px] border border-current px-1.5 text-[12.5px] font-semibold";
  const paint = (element: HTMLElement | null) => element?.style.setProperty("color", partColour(name));
  if (field.binding === undefined)
    return (
      <span ref={paint} className={classes} title="By autofill token">
        {name}
      </span>
    );
  return (
    <span ref={paint} className={classes}>
      {name}
      <button
        type="button"
        className="px-0.5 text-[13px] leading-4"
        aria-label={`Unbind ${name} from ${field.label}`}
        onClick={unbind}
        onKeyDown={(event) => (event.key === "Delete" || event.key === "Backspace") && unbind()}
      >
        ×
      </button>
    </span>
  );
}
