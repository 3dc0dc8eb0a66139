/**
 * What a name is found by: the same for all ways of writing it with other capitals, widths and spaces. It is stored beside the
 * name, so that nothing else (the database's own idea of lower case) decides what is the same.
 */
export function nameKey(name: string): string {
  return name.normalize("NFKC").trim().replace(/\s+/gu, " ").toLowerCase().normalize("NFC");
}
