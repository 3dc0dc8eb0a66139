import { lazy, type ReactNode, useState } from "react";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { Later } from "../ui/Later.tsx";

const Versions = lazy(() => import("./Versions.tsx"));
const Definition = lazy(() => import("./Definition.tsx"));

/** Actions on a form: its versions, and its definition as JSON. */
export function FormMenu({ formRef }: { formRef: string }) {
  return (
    <>
      <Named title="Versions">{(close) => <Versions formRef={formRef} close={close} />}</Named>
      <Named title="Definition">{(close) => <Definition close={close} />}</Named>
    </>
  );
}

/** A button that opens a dialog with the name. */
function Named({ title, children }: { title: string; children: (close: () => void) => ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog title={title} open={open} onOpenChange={setOpen} size="large" trigger={<Button>{title}</Button>}>
      <Later>{children(() => setOpen(false))}</Later>
    </Dialog>
  );
}
