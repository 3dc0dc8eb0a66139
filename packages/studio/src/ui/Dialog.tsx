import { Dialog as Radix } from "radix-ui";
import type { ReactElement, ReactNode } from "react";

interface DialogProps {
  title: string;
  /** What opens it. */
  trigger: ReactElement;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  size?: "small" | "large" | "larger";
  children: ReactNode;
}

const SIZES = { small: "w-[26rem]", large: "w-[46rem]", larger: "w-[52rem]" };

/** A dialog over the page, which waits until it is closed; `DialogClose` closes it from within. */
export function Dialog({ title, trigger, open, onOpenChange, size = "small", children }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Radix.Content
          aria-describedby={undefined}
          className={`fixed top-14 left-1/2 z-50 flex max-h-[calc(100dvh-7rem)] max-w-[94vw] -translate-x-1/2 flex-col overflow-y-auto rounded-md border border-edge bg-page p-5 ${SIZES[size]}`}
        >
          <Radix.Title className="font-serif text-lg font-semibold">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

export const DialogClose = Radix.Close;
