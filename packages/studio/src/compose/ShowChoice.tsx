import type { Field, Show } from "@bibliotope/core/form";
import { Choices, INPUT, Labelled } from "./Labelled.tsx";

interface ShowChoiceProps {
  field: Field;
  fields: readonly Field[];
  change: (to: Partial<Field>) => void;
}

/** When a field is shown. */
export function ShowChoice({ field, fields, change }: ShowChoiceProps) {
  const { show } = field;
  const others = fields.filter(({ name, kind }) => name !== field.name && kind !== "map" && kind !== "still");
  const way = show === undefined ? "always" : typeof show === "object" ? "by" : show;
  const set = (to: Show | undefined) => change({ show: to });
  const by = typeof show === "object" ? show : undefined;
  const found = by && fields.find(({ name }) => name === by.field);
  return (
    <div className="grid gap-2">
      <Choices
        label="Visibility"
        value={way}
        options={[
          ["always", "always"],
          ["filled", "when there is something to edit"],
          ["locked", "read-only until unlocked"],
          ...(others.length ? [["by", "depends on another field"] as const] : []),
        ]}
        onChange={(to) => set(to === "always" ? undefined : to === "by" ? { field: others[0].name } : to)}
      />
      {by ? (
        <div className="grid grid-cols-2 gap-4">
          <Labelled label="When this field">
            {(id) => (
              <select
                id={id}
                className={INPUT}
                value={by.field}
                onChange={(event) => set({ field: event.target.value })}
              >
                {others.map(({ name, label }) => (
                  <option key={name} value={name}>
                    {label}
                  </option>
                ))}
              </select>
            )}
          </Labelled>
          <Labelled label="has">
            {(id) =>
              found?.kind === "choice" ? (
                <select
                  id={id}
                  className={INPUT}
                  value={by.is ?? ""}
                  onChange={(event) =>
                    set({ field: by.field, ...(event.target.value ? { is: event.target.value } : {}) })
                  }
                >
                  <option value="">any value</option>
                  {found.options?.map(({ value, label }) => (
                    <option key={value} value={value}>
                      {label}
                    </option>
                  ))}
                </select>
              ) : (
                <input
                  id={id}
                  className={INPUT}
                  value={by.is ?? ""}
                  placeholder="any value"
                  maxLength={200}
                  onChange={(event) =>
                    set({ field: by.field, ...(event.target.value ? { is: event.target.value } : {}) })
                  }
                />
              )
            }
          </Labelled>
        </div>
      ) : null}
    </div>
  );
}
