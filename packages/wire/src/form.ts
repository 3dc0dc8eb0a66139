import { BUTTON_TASKS, FIELD_KINDS, FIELD_NAME, MOST_FIELDS, REGISTER_WAYS } from "@bibliotope/core/form";
import { EXACTNESS, KINDS, PARTS } from "@bibliotope/core/place";
import * as z from "zod";
import { text } from "./text.ts";

const words = (most: number) => text(most).trim();

/** Name of a field. */
export const nameSchema = z.string().regex(FIELD_NAME, {
  error: "a name begins with a letter; letters, digits, - and _ follow",
});
/** Name of an address as in the token `section-NAME`; empty for the first. */
const addressName = z.string().regex(/^[\w-]{0,40}$/, { error: "letters, digits, - and _ name an address" });
const countryCode = z.string().regex(/^[A-Z]{2}$/, { error: "a country is named by its two letters" });

const showSchema = z
  .union([z.enum(["filled", "locked"]), z.strictObject({ field: nameSchema, is: words(200).optional() })])
  .meta({ description: "When it is shown; always when left out." });

export const fieldSchema = z
  .strictObject({
    name: nameSchema,
    kind: z.enum(FIELD_KINDS),
    label: words(80).min(1),
    autofill: words(80).optional().meta({ description: "Token of the HTML standard's autofill section." }),
    address: addressName.optional().meta({ description: "Which of a form's addresses it is of." }),
    binding: text(300).optional().meta({ description: "Pattern of what it is filled with." }),
    placeholder: words(80).optional(),
    help: words(200).optional(),
    required: z.boolean().optional(),
    half: z.boolean().optional(),
    opens: z.boolean().optional().meta({ description: "A map opens over the form, and fills it on Done alone." }),
    relief: z.boolean().optional().meta({ description: "A map offers the ground in relief." }),
    pictures: z
      .strictObject({
        name: words(60).min(1),
        url: text(1000),
        attribution: words(300).min(1).meta({ description: "Who made them; shown on the map." }),
        least: z.int().min(0).max(24).optional(),
        most: z.int().min(0).max(24).optional(),
        names: z.boolean().optional().meta({ description: "False to leave the map's own names out." }),
      })
      .optional()
      .meta({ description: "Picture tiles of one's own on a map (XYZ or WMTS), shown first." }),
    options: z
      .array(z.strictObject({ value: words(200), label: words(80).min(1) }))
      .max(200)
      .optional(),
    show: showSchema.optional(),
    task: z.enum(BUTTON_TASKS).optional().meta({ description: "What a button does; it looks up when left out." }),
  })
  .meta({ id: "FormField" });

const startSchema = z
  .discriminatedUnion("on", [
    z.strictObject({ on: z.literal("choice") }),
    z.strictObject({ on: z.literal("button"), field: nameSchema }),
    z.strictObject({ on: z.literal("leaving"), field: nameSchema }),
    z.strictObject({ on: z.literal("complete"), fields: z.array(nameSchema).max(20) }),
    z.strictObject({ on: z.literal("never") }),
  ])
  .meta({ description: "What starts a lookup; the search field's list, else the first bound field, when left out." });

export const addressRuleSchema = z
  .strictObject({
    name: addressName,
    start: startSchema.optional(),
    kinds: z.array(z.enum(KINDS)).max(KINDS.length).optional(),
    countries: z.array(countryCode).max(20).optional(),
    none: words(300).optional().meta({ description: "Words when nothing is found." }),
    takeFrom: z
      .number()
      .gt(0)
      .max(1)
      .optional()
      .meta({ description: "Score from which the first of several is taken; else the person chooses." }),
    mayDiffer: z
      .array(z.enum(PARTS))
      .max(PARTS.length)
      .optional()
      .meta({ description: "Parts that may differ from what was written without asking; the postcode when left out." }),
    exactness: z.enum(EXACTNESS).optional().meta({ description: "The least exactness that will do." }),
    anywhere: z.boolean().optional().meta({ description: "A position is taken as it is, wherever it lies." }),
    nearby: words(80).optional().meta({ description: "Words for a place; the nearest one is told." }),
    countryFirst: z.boolean().optional(),
  })
  .meta({ id: "AddressRule" });

const serviceStartSchema = z.discriminatedUnion("on", [
  z.strictObject({ on: z.literal("chosen") }),
  z.strictObject({ on: z.literal("leaving"), field: nameSchema }),
  z.strictObject({ on: z.literal("button"), field: nameSchema }),
  z.strictObject({ on: z.literal("complete"), fields: z.array(nameSchema).max(20) }),
  z.strictObject({ on: z.literal("answered"), service: text(30) }),
]);

export const serviceRuleSchema = z
  .strictObject({
    ask: text(30).meta({ description: "Name of the service." }),
    called: words(60).optional().meta({ description: "What people know it as; its name when left out." }),
    when: serviceStartSchema,
    address: addressName.optional().meta({ description: "The address whose parts go into its inputs." }),
    with: z
      .record(text(60), text(300))
      .refine((inputs) => Object.keys(inputs).length <= 40, { error: "has too many inputs" })
      .meta({ description: "A pattern for each of its inputs." }),
    register: z
      .enum(REGISTER_WAYS)
      .optional()
      .meta({ description: "It confirms the address; another form is taken, asked about, or only noted." }),
    draws: z
      .strictObject({ line: text(30), words: text(200).optional() })
      .optional()
      .meta({ description: "A value that is a line, drawn on the map, and a pattern of the words at it." }),
  })
  .meta({ id: "ServiceRule" });

/** A form's definition, as it is stored and published. */
export const formDefinitionSchema = z
  .strictObject({
    title: words(80).min(1),
    intro: words(400).optional(),
    submit: words(40).optional(),
    fields: z.array(fieldSchema).max(MOST_FIELDS, { error: `a form has at most ${MOST_FIELDS} fields` }),
    addresses: z.array(addressRuleSchema).max(10).optional(),
    services: z.array(serviceRuleSchema).max(10).optional(),
  })
  .meta({ id: "FormDefinition" });

/** The definition as JSON Schema 2020-12, for editors and other programs. */
export function formDefinitionJsonSchema(): Record<string, unknown> {
  return z.toJSONSchema(formDefinitionSchema, { target: "draft-2020-12", io: "input" }) as Record<string, unknown>;
}

export const publishedForm = z.object({
  ref: z.string(),
  version: z.int(),
  published: z.string(),
  definition: formDefinitionSchema,
});
export type PublishedForm = z.infer<typeof publishedForm>;
