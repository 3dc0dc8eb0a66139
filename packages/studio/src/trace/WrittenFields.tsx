import { useStudio } from "../state/store.ts";
import type { Written } from "./lay-out.ts";

/** What was written into the fields of a form, and by which rule. */
export function WrittenFields({ written }: { written: readonly Written[] }) {
  const fields = useStudio(({ draft }) => draft.definition.fields);
  const label = (name: string) => fields.find((field) => field.name === name)?.label ?? name;
  return (
    <table className="mt-2 w-full text-[13px]">
      <thead className="text-left text-[12px] text-quiet">
        <tr>
          {["Field", "Value", "Written by"].map((head) => (
            <th key={head} className="pr-3 font-normal">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {written.map(({ field, value, by }) => (
          <tr key={field} className="border-t border-rule align-baseline">
            <th scope="row" className="py-1 pr-3 text-left font-normal text-quiet">
              {label(field)}
            </th>
            <td className="py-1 pr-3 font-serif break-words">{value || "–"}</td>
            <td className="py-1 font-mono text-[12px] break-words">{by ?? "the user"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
