import { say } from "../words/say.ts";

/** Milliseconds after which a map application would have taken over. */
const ANSWERS_WITHIN = 1500;

/** True on a device whose map application is a press away. */
export function isHandheld(): boolean {
  const { userAgentData, userAgent } = navigator as Navigator & { userAgentData?: { mobile: boolean } };
  return userAgentData?.mobile ?? /Android|iPhone|iPad|iPod|Mobile/i.test(userAgent);
}

/**
 * Waits for the device's map application, to which a link was followed: one that answers takes the page out of sight.
 * Where none does, the position is copied, and that is said.
 */
export function awaitApplication(text: string, tell: (words: string) => void): void {
  const timer = setTimeout(
    () => void copyText(text, say("No map app opened. Copied instead: {text}", { text }), tell),
    ANSWERS_WITHIN,
  );
  for (const gone of ["blur", "pagehide"]) window.addEventListener(gone, () => clearTimeout(timer), { once: true });
}

/** Copies a position and confirms it; where that is refused, the position is shown instead. */
export async function copyText(text: string, words: string, tell: (words: string) => void): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    tell(words);
  } catch {
    tell(say("Coordinates: {text}", { text }));
  }
}
