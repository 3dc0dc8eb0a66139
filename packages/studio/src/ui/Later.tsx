import { type ReactNode, Suspense } from "react";

/** Around what is loaded when it is first opened; shows that it is loading. */
export function Later({ children }: { children: ReactNode }) {
  return (
    <Suspense
      fallback={
        <p role="status" className="mt-3 text-quiet">
          Opening …
        </p>
      }
    >
      {children}
    </Suspense>
  );
}
