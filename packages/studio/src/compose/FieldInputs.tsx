import { FIELD_NAME, type Field, type FormDefinition } from "@bibliotope/core/form";
import { useState } from "react";
import { INPUT, Labelled } from "./Labelled.tsx";

/** The name under which a field is sent; taken when it is left, if it can be a name and is free. */
export function NameInput({
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
export function AddressInput({ id, address, known, set }: AddressInputProps) {
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
export function OptionsInput({ field, change }: { field: Field; change: (to: Partial<Field>) => void }) {
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
