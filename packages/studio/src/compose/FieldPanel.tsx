import {
  addressesOf,
  addressOf,
  BUTTON_TASKS,
  type ButtonTask,
  changeRule,
  FIELD_NAME,
  type Field,
  type FormDefinition,
  type FormExample,
  isOfBoth,
  moveField,
  removeField,
  renameField,
  takesValues,
} from "@bibliotope/core/form";
import { useState } from "react";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { KIND_WORDS, TASK_WORDS } from "./kinds.ts";
import { INPUT, Labelled } from "./Labelled.tsx";
import { PatternInput } from "./PatternInput.tsx";
import { PicturesInput } from "./PicturesInput.tsx";
import { RulePanel, Tick } from "./RulePanel.tsx";
import { ShowChoice } from "./ShowChoice.tsx";

/** The field in hand: what it is called, what fills it, when it is shown, and how its address is looked up. */
export function FieldPanel({ field, examples }: { field: Field; examples: readonly FormExample[] }) {
  const dispatch = useStudioDispatch();
  const definition = useStudio((state) => state.draft.definition);
  const change = (to: Partial<Field>) => dispatch(draft.fieldChanged({ field: field.name, to }));
  const edit = (to: FormDefinition, selected?: string) => dispatch(draft.edited({ definition: to, selected }));
  const address = addressOf(field);
  const isOfAddress = takesValues(field) ? Boolean(field.binding || field.autofill) : !isOfBoth(field);
  return (
    <>
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

/** The name under which a field is sent; taken when it is left, if it can be a name and is free. */
function NameInput({
  field,
  definition,
  rename,
}: {
  field: Field;
  definition: FormDefinition;
  rename: (to: string) => void;
}) {
  const [name, setName] = useState(field.name);
  const isTaken = name !== field.name && definition.fields.some((existing) => existing.name === name);
  const wrong = isTaken
    ? "another field has this name"
    : FIELD_NAME.test(name)
      ? ""
      : "a name starts with a letter, followed by letters, digits, - and _";
  const take = () => {
    if (wrong) setName(field.name);
    else if (name !== field.name) rename(name);
  };
  return (
    <Labelled label="Name">
      {(id) => (
        <>
          <input
            id={id}
            className={`${INPUT} font-mono text-[13px]`}
            value={name}
            maxLength={40}
            spellCheck={false}
            aria-invalid={wrong !== ""}
            aria-describedby={`${id}-wrong`}
            onChange={(event) => setName(event.target.value)}
            onBlur={take}
            onKeyDown={(event) => event.key === "Enter" && take()}
          />
          <p id={`${id}-wrong`} role="status" className="text-[12.5px] text-madder empty:hidden">
            {wrong}
          </p>
        </>
      )}
    </Labelled>
  );
}

interface AddressInputProps {
  id: string;
  address: string;
  known: readonly string[];
  set: (to: string) => void;
}

/** Which of a form's addresses a field is of; the first has no name. */
function AddressInput({ id, address, known, set }: AddressInputProps) {
  const [name, setName] = useState(address);
  return (
    <>
      <input
        id={id}
        list={`${id}-known`}
        className={`${INPUT} font-mono text-[13px]`}
        value={name}
        placeholder="first address"
        maxLength={40}
        spellCheck={false}
        onChange={(event) => setName(event.target.value.replace(/[^\w-]/g, ""))}
        onBlur={() => name !== address && set(name)}
        onKeyDown={(event) => event.key === "Enter" && name !== address && set(name)}
      />
      <datalist id={`${id}-known`}>
        {known.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}

/** What a choice offers: a line for each, `value: words` or words alone. */
function OptionsInput({ field, change }: { field: Field; change: (to: Partial<Field>) => void }) {
  const [text, setText] = useState(() =>
    (field.options ?? []).map(({ value, label }) => `${value}: ${label}`).join("\n"),
  );
  const read = () =>
    text.split("\n").flatMap((line) => {
      const [, value, label] = /^\s*([^:]+?)\s*(?::\s*(.*?))?\s*$/.exec(line) ?? [];
      return value ? [{ value, label: label || value }] : [];
    });
  return (
    <Labelled label="Options, one per line, as value: label">
      {(id) => (
        <textarea
          id={id}
          rows={3}
          className={`${INPUT} h-auto py-1.5`}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            const options = read();
            if (options.length) change({ options });
          }}
        />
      )}
    </Labelled>
  );
}
