/** Gives a text to the person as a file. */
export function saveFile(name: string, text: string, type = "application/json"): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
