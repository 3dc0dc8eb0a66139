import { useEffect, useState } from "react";

/** Copies a text, and confirms it for a moment. */
export function CopyButton({
  text,
  label = "Copy",
  className = "underline",
  onCopied,
}: {
  text: string;
  label?: string;
  className?: string;
  onCopied?: () => void;
}) {
  const [said, setSaid] = useState("");
  useEffect(() => {
    if (!said) return;
    const timer = setTimeout(() => setSaid(""), 1600);
    return () => clearTimeout(timer);
  }, [said]);
  const copy = () =>
    navigator.clipboard.writeText(text).then(
      () => {
        setSaid("Copied");
        onCopied?.();
      },
      () => setSaid("Copying is not allowed here"),
    );
  return (
    <button type="button" className={className} onClick={copy}>
      <span aria-live="polite">{said || label}</span>
    </button>
  );
}
