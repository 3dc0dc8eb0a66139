import { type RefObject, useInsertionEffect, useRef } from "react";

/** A ref to the value of the latest render, for handlers that outlive it; read it in effects and handlers only. */
export function useLatest<T>(value: T): Readonly<RefObject<T>> {
  const latest = useRef(value);
  // before all effects of the same render, and never during it
  useInsertionEffect(() => {
    latest.current = value;
  });
  return latest;
}
