import type { SessionAnswer } from "@bibliotope/wire";
import { lazy, useState } from "react";
import { Dialog } from "../ui/Dialog.tsx";
import { Later } from "../ui/Later.tsx";

const AccountPanel = lazy(() => import("./AccountPanel.tsx"));

/** Who is signed in; opens what they can do about it. */
export function Account({ session }: { session: SessionAnswer }) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog
      title={session.name}
      open={open}
      onOpenChange={setOpen}
      size={session.role === "manage" ? "large" : "small"}
      trigger={
        <button type="button" className="min-w-0 truncate text-quiet hover:text-ink max-[480px]:max-w-[7rem]">
          <span className="sr-only">Account: </span>
          {session.name}
        </button>
      }
    >
      {open ? (
        <Later>
          <AccountPanel session={session} />
        </Later>
      ) : null}
    </Dialog>
  );
}
