import type { MadeKey } from "@bibliotope/wire";
import { Button } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { DialogClose } from "../ui/Dialog.tsx";

/** A key that was just made: the only time that it is seen. */
export function ShownOnce({ made }: { made: MadeKey }) {
  return (
    <div role="status" className="mt-3">
      <p>
        This is the key. You will not see it again: the server stores a digest, from which the key cannot be recovered.
      </p>
      <p className="mt-3 flex items-center gap-3 rounded border border-edge bg-field px-3 py-2">
        <code className="min-w-0 flex-1 font-mono text-[13px] break-all">{made.key}</code>
        <CopyButton text={made.key} />
      </p>
      <DialogClose asChild>
        <Button strong className="mt-4">
          I have copied it
        </Button>
      </DialogClose>
    </div>
  );
}
