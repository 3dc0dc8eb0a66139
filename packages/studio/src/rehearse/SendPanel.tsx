import {
  ADDRESS_STATES,
  type AddressGoingOut,
  type FormDefinition,
  type GoingOut,
  type goingOut,
  type Origin,
  startingField,
} from "@bibliotope/core/form";
import { RowHead, Table } from "../ui/Table.tsx";

interface SendPanelProps {
  definition: FormDefinition;
  going: ReturnType<typeof goingOut>;
  close: () => void;
}

const ORIGIN_WORDS: Readonly<Record<Origin, string>> = {
  empty: "empty",
  typed: "typed",
  corrected: "edited",
  record: "from the record",
  left: "from the previous place",
  stored: "as stored",
  service: "from a service",
  form: "set by the form",
};

/** What the form would send now: each value with where it comes from, and what each address is. */
export function SendPanel({ definition, going, close }: SendPanelProps) {
  return (
    <aside
      id="would-send"
      aria-label="Submitted values"
      className="flex min-h-0 flex-col overflow-y-auto border-l border-rule px-4 py-3.5"
      onKeyDown={(event) => event.key === "Escape" && close()}
    >
      <div className="flex items-center">
        <h2 className="font-serif text-lg font-semibold">Submitted values</h2>
        <button type="button" className="ml-auto text-quiet underline" onClick={close}>
          Close
        </button>
      </div>
      {going.addresses.map((one) => (
        <StateLine key={one.address} definition={definition} going={one} isOnly={going.addresses.length === 1} />
      ))}
      <Table heads={["Field", "Value", "Source"]} hidesHeads className="mt-3 w-full border-t border-rule text-[13px]">
        {going.values.map((one) => (
          <tr key={one.field} className="border-b border-rule align-baseline">
            <RowHead className="py-1.5 pr-3 font-mono text-[12px] break-words text-quiet">{one.field}</RowHead>
            <td className="py-1.5 pr-3 font-mono text-[12px] [overflow-wrap:anywhere]">{one.value || "–"}</td>
            <td className="py-1.5 text-right text-[12px] whitespace-nowrap text-quiet">
              <OriginWords {...one} />
            </td>
          </tr>
        ))}
      </Table>
      <p className="mt-3 text-[12.5px] text-quiet">
        Nothing is sent. A saved rehearsal expects these values and address states.
      </p>
    </aside>
  );
}

function OriginWords({ origin, was, isUnseen }: GoingOut) {
  if (isUnseen && origin !== "empty") return <span className="text-ochre">hidden: not stored</span>;
  return (
    <span className={origin === "left" ? "text-madder" : origin === "corrected" ? "text-ochre" : ""}>
      {ORIGIN_WORDS[origin]}
      {was ? <span className="block whitespace-normal">was {was}</span> : null}
    </span>
  );
}

const STATE_COLOURS = {
  empty: "text-quiet",
  typed: "text-ochre",
  chosen: "text-verdigris",
  registered: "text-verdigris",
  changed: "text-madder",
};

function StateLine({
  definition,
  going: { address, state, isConfirmed, isUnseen },
  isOnly,
}: {
  definition: FormDefinition;
  going: AddressGoingOut;
  isOnly: boolean;
}) {
  const label = definition.fields.find(({ name }) => name === startingField(definition, address))?.label ?? address;
  if (isUnseen) return <p className="mt-2 text-[12.5px] text-quiet">{label}: hidden at the moment, so not stored.</p>;
  return (
    <p className="mt-2 flex flex-wrap items-baseline gap-x-2 text-[12.5px] text-quiet">
      <span>{isOnly ? "The address:" : `${label}:`}</span>
      {ADDRESS_STATES.map((one) =>
        one === state ? (
          <strong key={one} className={`rounded-full border border-current px-2 py-px ${STATE_COLOURS[one]}`}>
            {one}
          </strong>
        ) : (
          <span key={one} aria-hidden className="opacity-60">
            {one}
          </span>
        ),
      )}
      {state === "chosen" ? <span>{isConfirmed ? "and confirmed" : "and not confirmed"}</span> : null}
    </p>
  );
}
