import { wordsOf } from "../state/api.ts";

/** What went wrong with a call, in words; nothing while nothing did. `className` has its colour and place. */
export function Alert({ error, className = "mt-3 text-ochre" }: { error: unknown; className?: string }) {
  if (!error) return null;
  return (
    <p role="alert" className={className}>
      {wordsOf(error)}
    </p>
  );
}
