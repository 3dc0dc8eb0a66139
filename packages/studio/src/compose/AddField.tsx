import { addField, FIELD_KINDS } from "@bibliotope/core/form";
import { DropdownMenu } from "radix-ui";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { KIND_WORDS } from "./kinds.ts";

/** Adds a field behind the one in hand, or at the end. */
export function AddField() {
  const { definition, selected } = useStudio((state) => state.draft);
  const dispatch = useStudioDispatch();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button className="mx-3 mt-1 mb-3">+ field</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-40 min-w-[190px] rounded-md border border-edge bg-page p-1 shadow-lg"
        >
          {FIELD_KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className="cursor-pointer rounded px-2.5 py-1.5 outline-none data-highlighted:bg-wash"
              onSelect={() => {
                const added = addField(definition, kind, selected);
                dispatch(draft.edited({ definition: added.definition, selected: added.name }));
              }}
            >
              {KIND_WORDS[kind]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
