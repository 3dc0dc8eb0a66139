import { Dialog } from "radix-ui";
import type { ReactElement, ReactNode } from "react";

interface SheetProps {
  title: string;
  /** What opens it. */
  trigger: ReactElement;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  size?: "small" | "large" | "larger";
  children: ReactNode;
}

const SIZES = { small: "w-[26rem]", large: "w-[46rem]", larger: "w-[52rem]" };

/** A sheet over the page, which waits until it is closed; `SheetClose` closes it from within. */
export function Sheet({ title, trigger, open, onOpenChange, size = "small", children }: SheetProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-14 left-1/2 z-50 flex max-h-[calc(100dvh-7rem)] max-w-[94vw] -translate-x-1/2 flex-col overflow-y-auto rounded-md border border-edge bg-page p-5 ${SIZES[size]}`}
        >
          <Dialog.Title className="font-serif text-lg font-semibold">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

export const SheetClose = Dialog.Close;
