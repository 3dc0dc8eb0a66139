/** What to tell somebody when the browser gave no passkey; undefined for other errors. */
export function wordsOfPasskey(error: unknown): string | undefined {
  if (!(error instanceof Error)) return undefined;
  if (error.name === "NotAllowedError") return "No passkey was chosen, or it took too long.";
  if (error.name === "InvalidStateError") return "You already have a passkey on this device.";
  if (error.name === "SecurityError")
    return "Passkeys do not work on an IP address. Open the workbench by its host name, such as localhost.";
  return error.message;
}
