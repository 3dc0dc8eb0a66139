import type { ComponentProps } from "react";
import { Link } from "react-router";

const LOOK =
  "inline-flex h-[34px] items-center gap-1.5 rounded border border-edge bg-field px-3 text-ink enabled:hover:bg-wash disabled:text-quiet disabled:opacity-60";

const STRONG =
  "inline-flex h-[34px] items-center gap-1.5 rounded border border-ink bg-ink px-3 font-semibold text-page";

/** A button; `strong` for the one thing that a view is about. */
export function Button({ strong, className = "", ...rest }: ComponentProps<"button"> & { strong?: boolean }) {
  const classes = strong ? `${STRONG} enabled:hover:opacity-90 disabled:opacity-50` : LOOK;
  return <button type="button" className={`${classes} ${className}`} {...rest} />;
}

/** A link to the page that a view is for, which looks like a strong button. */
export function RouteButton({ className = "", ...rest }: ComponentProps<typeof Link>) {
  return <Link className={`${STRONG} hover:opacity-90 ${className}`} {...rest} />;
}

/** A link that looks like a button. */
export function ButtonLink({ className = "", ...rest }: ComponentProps<"a">) {
  return <a className={`${LOOK} hover:bg-wash ${className}`} {...rest} />;
}
