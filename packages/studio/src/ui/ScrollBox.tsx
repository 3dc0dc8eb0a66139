import type { ReactNode } from "react";

/** A box with more in it than it shows; it can be reached and scrolled by keyboard. */
export function ScrollBox({ label, className, children }: { label: string; className: string; children: ReactNode }) {
  return (
    <section
      aria-label={label}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: who uses no pointer scrolls it by keys
      tabIndex={0}
      className={`relative overflow-auto ${className}`}
    >
      {children}
    </section>
  );
}
