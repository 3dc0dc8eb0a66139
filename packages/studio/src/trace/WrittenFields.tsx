import { useStudio } from "../state/store.ts";
import { RowHead, Table } from "../ui/Table.tsx";
import type { Written } from "./lay-out.ts";

/** What was written into the fields of a form, and by which rule. */
export function WrittenFields({ written }: { written: readonly Written[] }) {
  const fields = useStudio(({ draft }) => draft.definition.fields);
  const label = (name: string) => fields.find((field) => field.name === name)?.label ?? name;
  return (
    <Table heads={["Field", "Value", "Written by"]} className="mt-2 w-full text-[13px]">
      {written.map(({ field, value, by }) => (
        <tr key={field} className="border-t border-rule align-baseline">
          <RowHead>{label(field)}</RowHead>
          <td className="py-1 pr-3 font-serif break-words">{value || "–"}</td>
          <td className="py-1 font-mono text-[12px] break-words">{by ?? "the user"}</td>
        </tr>
      ))}
    </Table>
  );
}
