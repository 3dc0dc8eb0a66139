/** How much of something is done. @param share 0 to 1 */
export function Progress({ label, share, className = "" }: { label: string; share: number; className?: string }) {
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      className={`h-1.5 overflow-hidden rounded bg-rule ${className}`}
    >
      <div className="h-full rounded bg-verdigris forced-color-adjust-none" style={{ width: `${share * 100}%` }} />
    </div>
  );
}
