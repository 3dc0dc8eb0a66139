/** What to tell somebody when the browser gave no passkey; undefined for other errors. */
export function wordsOfPasskey(error: unknown): string | undefined {
  if (!(error instanceof Error)) return undefined;
  if (error.name === "NotAllowedError") return "No passkey was chosen, or it took too long.";
  if (error.name === "InvalidStateError") return "This device has a passkey of yours already.";
  if (error.name === "SecurityError")
    return "Passkeys need a name, not a number: open the workbench by its host's name, such as localhost.";
  return error.message;
}
