import { checkDefinition, type FormDefinition } from "@bibliotope/core/form";

/** A form's definition from text, or what is wrong with it, in words. */
export async function readDefinition(text: string): Promise<FormDefinition | string> {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch (error) {
    return `This is not valid JSON: ${error instanceof Error ? error.message : ""}`;
  }
  // the schema weighs more than the rest of the menu, and few take a definition from text
  const { formDefinitionSchema } = await import("@bibliotope/wire");
  const { data, error } = formDefinitionSchema.safeParse(read);
  if (!data) {
    const [{ path, message }] = error.issues;
    return `${path.length ? path.join(".") : "The form"}: ${message}.`;
  }
  const [issue] = checkDefinition(data);
  return issue ? `${issue.field ? `${issue.field}: ` : ""}${issue.message}.` : data;
}
