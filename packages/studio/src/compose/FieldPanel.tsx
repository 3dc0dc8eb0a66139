import {
  addressesOf,
  addressOf,
  BUTTON_TASKS,
  type ButtonTask,
  changeRule,
  type Field,
  type FormDefinition,
  type FormExample,
  isOfBoth,
  moveField,
  removeField,
  renameField,
  takesValues,
} from "@bibliotope/core/form";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { AddressInput, NameInput, OptionsInput } from "./FieldInputs.tsx";
import { KIND_WORDS, TASK_WORDS } from "./kinds.ts";
import { INPUT, Labelled } from "./Labelled.tsx";
import { PatternInput } from "./PatternInput.tsx";
import { PicturesInput } from "./PicturesInput.tsx";
import { RulePanel } from "./RulePanel.tsx";
import { ShowChoice } from "./ShowChoice.tsx";
import { Tick } from "./Ticks.tsx";

/** The selected field: what it is called, what fills it, when it is shown, and how its address is looked up. */
export function FieldPanel({ field, examples }: { field: Field; examples: readonly FormExample[] }) {
  const dispatch = useStudioDispatch();
  const definition = useStudio((state) => state.draft.definition);
  const change = (to: Partial<Field>) => dispatch(draft.fieldChanged({ field: field.name, to }));
  const edit = (to: FormDefinition, selected?: string) => dispatch(draft.edited({ definition: to, selected }));
  const address = addressOf(field);
  const isOfAddress = takesValues(field) ? Boolean(field.binding || field.autofill) : !isOfBoth(field);
  return (
    <>
      <FieldHead field={field} definition={definition} edit={edit} />
      <FieldTexts field={field} definition={definition} edit={edit} change={change} />
      <FieldTicks field={field} change={change} />
      <div className="mt-4 grid gap-4">
        {field.kind === "map" ? (
          <PicturesInput key={field.name} pictures={field.pictures} set={(pictures) => change({ pictures })} />
        ) : null}
        {field.kind === "choice" ? <OptionsInput field={field} change={change} /> : null}
        {takesValues(field) ? <PatternInput field={field} examples={examples} change={change} /> : null}
        {field.kind === "hidden" || field.kind === "map" ? null : (
          <ShowChoice field={field} fields={definition.fields} change={change} />
        )}
      </div>
      {isOfAddress ? (
        <RulePanel
          definition={definition}
          address={address}
          change={(to) => edit(changeRule(definition, address, to))}
        />
      ) : null}
    </>
  );
}

interface PartProps {
  field: Field;
  definition: FormDefinition;
  edit: (to: FormDefinition, selected?: string) => void;
  change: (to: Partial<Field>) => void;
}

/** Its label and kind, and its actions. */
function FieldHead({ field, definition, edit }: Omit<PartProps, "change">) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 gap-y-2">
      <h2 className="font-serif text-[18px] font-semibold">{field.label}</h2>
      <span className="text-quiet">{KIND_WORDS[field.kind]}</span>
      <span className="ml-auto flex gap-1.5">
        <Button onClick={() => edit(moveField(definition, field.name, -1))} aria-label={`Move ${field.label} up`}>
          ↑
        </Button>
        <Button onClick={() => edit(moveField(definition, field.name, 1))} aria-label={`Move ${field.label} down`}>
          ↓
        </Button>
        <Button onClick={() => edit(removeField(definition, field.name), "")} aria-label={`Remove ${field.label}`}>
          Remove
        </Button>
      </span>
    </div>
  );
}

/** Its label, its name, and its hint. */
function FieldTexts({ field, definition, edit, change }: PartProps) {
  const address = addressOf(field);
  return (
    <div className="mt-3 grid grid-cols-2 gap-4">
      <Labelled label="Label">
        {(id) => (
          <input
            id={id}
            className={INPUT}
            value={field.label}
            maxLength={80}
            onChange={(event) => event.target.value && change({ label: event.target.value })}
          />
        )}
      </Labelled>
      <NameInput
        field={field}
        definition={definition}
        rename={(to) => edit(renameField(definition, field.name, to), to)}
      />
      {field.kind === "text" || field.kind === "country" || field.kind === "choice" ? (
        <Labelled label="Autofill token">
          {(id) => (
            <input
              id={id}
              className={`${INPUT} font-mono text-[13px]`}
              value={field.autofill ?? ""}
              maxLength={80}
              onChange={(event) => change({ autofill: event.target.value })}
            />
          )}
        </Labelled>
      ) : null}
      {field.kind === "button" ? (
        <Labelled label="Type">
          {(id) => (
            <select
              id={id}
              className={INPUT}
              value={field.task ?? "look"}
              onChange={({ target: { value } }) =>
                change({ task: value === "look" ? undefined : (value as ButtonTask) })
              }
            >
              {BUTTON_TASKS.map((task) => (
                <option key={task} value={task}>
                  {TASK_WORDS[task]}
                </option>
              ))}
            </select>
          )}
        </Labelled>
      ) : null}
      {isOfBoth(field) ? null : (
        <Labelled label="Belongs to">
          {(id) => (
            <AddressInput
              key={address}
              id={id}
              address={address}
              known={addressesOf(definition)}
              set={(to) => change({ address: to || undefined })}
            />
          )}
        </Labelled>
      )}
      {field.kind === "text" || field.kind === "search" ? (
        <Labelled label="Placeholder">
          {(id) => (
            <input
              id={id}
              className={INPUT}
              value={field.placeholder ?? ""}
              maxLength={80}
              onChange={(event) => change({ placeholder: event.target.value })}
            />
          )}
        </Labelled>
      ) : null}
      <Labelled label="Help">
        {(id) => (
          <input
            id={id}
            className={INPUT}
            value={field.help ?? ""}
            maxLength={200}
            onChange={(event) => change({ help: event.target.value })}
          />
        )}
      </Labelled>
    </div>
  );
}

/** What is on or off. */
function FieldTicks({ field, change }: Pick<PartProps, "field" | "change">) {
  return (
    <div className="mt-3 flex flex-wrap gap-x-5 gap-y-1">
      {["hidden", "shown", "button", "distance"].includes(field.kind) ? null : (
        <Tick
          label="Required"
          checked={field.required ?? false}
          onChange={(is) => change({ required: is || undefined })}
        />
      )}
      {field.kind === "hidden" ? null : (
        <Tick label="Half width" checked={field.half ?? false} onChange={(is) => change({ half: is || undefined })} />
      )}
      {field.kind === "map" ? (
        <>
          <Tick
            label="Opens as a dialog and fills the form on Done"
            checked={field.opens ?? false}
            onChange={(is) => change({ opens: is || undefined })}
          />
          <Tick
            label="Offers a relief view"
            checked={field.relief ?? false}
            onChange={(is) => change({ relief: is || undefined })}
          />
        </>
      ) : null}
    </div>
  );
}
