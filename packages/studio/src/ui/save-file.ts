/** Gives a text to the person as a file. */
export function saveFile(name: string, text: string, type = "application/json"): void {
  saveBlob(name, new Blob([text], { type }));
}

/** Gives anything to the person as a file. */
export function saveBlob(name: string, blob: Blob): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
