import { type ServiceInput, VALUE_KINDS } from "@bibliotope/core/service";
import { Table } from "../ui/Table.tsx";
import { ChoiceInPlace, TextInPlace } from "./InPlace.tsx";
import { VALUE_WORDS } from "./words.ts";

export interface TriedProps {
  /** Values that it is tried with, by the names of inputs. */
  tried: Readonly<Record<string, string>>;
  setTried: (tried: Record<string, string>) => void;
}

interface InputsProps extends TriedProps {
  inputs: readonly ServiceInput[];
  set: (inputs: ServiceInput[]) => void;
  /** Only the values that it is tried with are changed. */
  isFixed: boolean;
}

/** What a service is called with, each beside the value that it is tried with. */
export function Inputs({ inputs, set, tried, setTried, isFixed }: InputsProps) {
  const change = (at: number, to: Partial<ServiceInput>) =>
    set(inputs.map((input, i) => (i === at ? { ...input, ...to } : input)));
  return (
    <div className="relative my-2 overflow-x-auto">
      <Table
        heads={["input", "type", "test value", { hidden: "Actions" }]}
        className="w-full border-y border-rule font-sans text-[13px] leading-[1.5]"
      >
        {inputs.map(({ name, kind, required, example }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a name changes while it is written
          <tr key={i} className="border-t border-rule">
            <td className="py-1">
              <TextInPlace
                aria-label="Input name"
                disabled={isFixed}
                value={name}
                change={(to) => change(i, { name: to })}
              />
            </td>
            <td>
              <ChoiceInPlace
                aria-label={`Type of ${name}`}
                disabled={isFixed}
                value={kind}
                options={VALUE_KINDS.map((one) => [one, VALUE_WORDS[one]] as const)}
                change={(to) => change(i, { kind: to })}
              />
              <label className="ml-2 inline-flex items-baseline gap-1 text-quiet">
                <input
                  type="checkbox"
                  disabled={isFixed}
                  checked={required ?? false}
                  onChange={(event) => change(i, { required: event.target.checked || undefined })}
                />
                required
              </label>
            </td>
            <td>
              <TextInPlace
                aria-label={`Value of ${name}`}
                value={tried[name] ?? example ?? ""}
                size={12}
                change={(to) => setTried({ ...tried, [name]: to })}
              />
            </td>
            <td className="text-right">
              <button
                type="button"
                disabled={isFixed}
                className="underline"
                onClick={() => set(inputs.toSpliced(i, 1))}
              >
                remove<span className="sr-only">: {name}</span>
              </button>
            </td>
          </tr>
        ))}
      </Table>
      <button
        type="button"
        disabled={isFixed}
        className="font-sans text-[12.5px] text-quiet underline"
        onClick={() => set([...inputs, { name: freeName(inputs), kind: "text" }])}
      >
        + an input
      </button>
    </div>
  );
}

function freeName(inputs: readonly ServiceInput[]): string {
  let name = "input";
  for (let i = 2; inputs.some((input) => input.name === name); i++) name = `input${i}`;
  return name;
}
