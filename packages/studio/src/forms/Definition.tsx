import { formJson } from "@bibliotope/core/form";
import { useState } from "react";
import { draft } from "../state/draft.slice.ts";
import { callUrl } from "../state/own.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { DialogClose } from "../ui/Dialog.tsx";
import { saveFile } from "../ui/save-file.ts";
import { readDefinition } from "./read-definition.ts";

/** The definition as JSON: to be copied, saved as a file, or changed and taken back. */
export default function Definition({ close }: { close: () => void }) {
  const { definition, ref } = useStudio((state) => state.draft);
  const dispatch = useStudioDispatch();
  const [text, setText] = useState(() => formJson(definition));
  const [wrong, setWrong] = useState("");
  const take = async () => {
    const read = await readDefinition(text);
    if (typeof read === "string") {
      setWrong(read);
      return;
    }
    dispatch(draft.edited({ definition: read, selected: "" }));
    close();
  };
  return (
    <>
      <label htmlFor="definition-json" className="mt-2 mb-1 block text-[12.5px] text-quiet">
        The form as a JSON document. Schema:{" "}
        <a className="underline" href={callUrl("formSchema", {})} target="_blank" rel="noreferrer">
          /api/forms/schema.json
        </a>
        .
      </label>
      <textarea
        id="definition-json"
        className="h-[380px] w-full rounded border border-edge bg-field px-3 py-2 font-mono text-[12.5px]"
        spellCheck={false}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setWrong("");
        }}
      />
      <p role="alert" className="min-h-5 text-[12.5px] text-madder">
        {wrong}
      </p>
      <div className="mt-2 flex items-center gap-3">
        <Button strong onClick={() => void take()}>
          Use this definition
        </Button>
        <Button onClick={() => saveFile(`${ref}.json`, text)}>Save as a file</Button>
        <CopyButton text={text} className="underline" />
        <DialogClose asChild>
          <Button className="ml-auto">Close</Button>
        </DialogClose>
      </div>
    </>
  );
}
