import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import { Button } from "../ui/Button.tsx";
import { Dialog, DialogClose } from "../ui/Dialog.tsx";

const EVERYWHERE: [string, string][] = [
  ["?", "Show these shortcuts"],
  ["Esc", "Close a dialog or panel"],
];
const REHEARSE: [string, string][] = [
  ["↓ ↑", "Move through the suggestions"],
  ["Enter", "Use the highlighted suggestion"],
  ["Esc", "Close the suggestions"],
  ["Arrow keys", "Pan the map, when it has focus"],
  ["+ −", "Zoom the map"],
  ["Enter", "On the map: use the address at the centre"],
];
const COMPOSE: [string, string][] = [
  ["Enter", "On a part: select it; on a field: bind the selected part"],
  ["Delete", "On a bound part: unbind it"],
  ["Ctrl Z", "Undo"],
  ["Ctrl Shift Z", "Redo"],
];

const LOOKUPS: [string, string][] = [
  ["Enter", "Look up"],
  ["↓ ↑ ← →", "Move through the response tree, when it has focus"],
  ["Enter", "In the tree: expand or collapse"],
  ["Enter", "On the map: look up the centre"],
];

const REVIEW: [string, string][] = [
  ["Enter", "Accept the marked candidate"],
  ["1 2 3 …", "Accept the candidate with that number"],
  ["E", "Correct the text and look it up again"],
  ["L", "Skip the row"],
  ["B", "Undo the last decision"],
  ["↓ ↑", "Mark another candidate"],
  ["J K", "Next or previous row"],
];

/** The keys of a view, by its address. */
function keysOf(pathname: string): [string, string][] {
  if (pathname.startsWith("/lookups")) return LOOKUPS;
  if (/^\/batches\/\d/.test(pathname)) return REVIEW;
  if (pathname.endsWith("/compose")) return COMPOSE;
  return pathname.endsWith("/rehearse") ? REHEARSE : [];
}

/** `?` shows the keys of the view. */
export function KeysDialog() {
  const [open, setOpen] = useState(false);
  const { pathname } = useLocation();
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.key === "?" && !target.closest("input, textarea, select, [contenteditable]")) setOpen(true);
    };
    document.addEventListener("keydown", pressed);
    return () => document.removeEventListener("keydown", pressed);
  }, []);
  const own = keysOf(pathname);
  return (
    <Dialog
      title="Keyboard"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          className="size-7 flex-none rounded border border-edge text-quiet hover:bg-wash"
          aria-label="Shortcuts in this view"
        >
          ?
        </button>
      }
    >
      <dl className="mt-3 grid grid-cols-[7rem_1fr] gap-y-1.5">
        {[...own, ...EVERYWHERE].map(([keys, what]) => (
          <div key={`${keys} ${what}`} className="contents">
            <dt className="font-mono text-[12.5px]">{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <DialogClose asChild>
        <Button className="mt-4 self-start">Close</Button>
      </DialogClose>
    </Dialog>
  );
}
