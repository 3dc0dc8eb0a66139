import { FIELD_KINDS } from "@bibliotope/core/form";
import * as z from "zod";

const words = (most: number) => z.string().trim().max(most);

export const fieldSchema = z.strictObject({
  name: z
    .string()
    .regex(/^[A-Za-z][\w-]{0,39}$/, { error: "a name begins with a letter; letters, digits, - and _ follow" }),
  kind: z.enum(FIELD_KINDS),
  label: words(80).min(1),
  autofill: words(80).optional(),
  binding: z.string().max(300).optional(),
  placeholder: words(80).optional(),
  help: words(200).optional(),
  required: z.boolean().optional(),
  half: z.boolean().optional(),
});

/** A form's definition, as it is stored and published. */
export const formDefinitionSchema = z
  .strictObject({
    title: words(80).min(1),
    intro: words(400).optional(),
    submit: words(40).optional(),
    fields: z.array(fieldSchema).max(60),
  })
  .meta({ id: "FormDefinition" });

export const publishedForm = z.object({
  ref: z.string(),
  version: z.int(),
  published: z.string(),
  definition: formDefinitionSchema,
});
export type PublishedForm = z.infer<typeof publishedForm>;
