import { BUTTON_TASKS, FIELD_KINDS, FIELD_NAME, MOST_FIELDS, REGISTER_WAYS } from "@bibliotope/core/form";
import { EXACTNESS, KINDS, PARTS } from "@bibliotope/core/place";
import * as z from "zod";
import { text } from "./text.ts";

const words = (most: number) => text(most).trim();

/** Name of a field. */
export const nameSchema = z.string().regex(FIELD_NAME, {
  error: "a name starts with a letter, followed by letters, digits, - and _",
});
/** Name of an address as in the token `section-NAME`; empty for the first. */
const addressName = z.string().regex(/^[\w-]{0,40}$/, { error: "letters, digits, - and _ name an address" });
const countryCode = z.string().regex(/^[A-Z]{2}$/, { error: "a country is named by its two letters" });

const showSchema = z
  .union([z.enum(["filled", "locked"]), z.strictObject({ field: nameSchema, is: words(200).optional() })])
  .meta({ description: "When the field is visible (default: always)." });

export const fieldSchema = z
  .strictObject({
    name: nameSchema,
    kind: z.enum(FIELD_KINDS),
    label: words(80).min(1),
    autofill: words(80).optional().meta({ description: "Token of the HTML standard's autofill section." }),
    address: addressName.optional().meta({ description: "The address of the form it belongs to." }),
    binding: text(300).optional().meta({ description: "Pattern that fills the field." }),
    placeholder: words(80).optional(),
    help: words(200).optional(),
    required: z.boolean().optional(),
    half: z.boolean().optional(),
    opens: z.boolean().optional().meta({ description: "The map opens as a dialog and fills the form on Done." }),
    relief: z.boolean().optional().meta({ description: "The map offers a relief view." }),
    pictures: z
      .strictObject({
        name: words(60).min(1),
        url: text(1000),
        attribution: words(300).min(1).meta({ description: "Attribution, shown on the map." }),
        least: z.int().min(0).max(24).optional(),
        most: z.int().min(0).max(24).optional(),
        names: z.boolean().optional().meta({ description: "False to hide the map's own labels." }),
      })
      .optional()
      .meta({ description: "Your own map tiles (XYZ or WMTS), shown first." }),
    options: z
      .array(z.strictObject({ value: words(200), label: words(80).min(1) }))
      .max(200)
      .optional(),
    show: showSchema.optional(),
    task: z.enum(BUTTON_TASKS).optional().meta({ description: "What the button does (default: look up)." }),
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
  .meta({ description: "What starts a lookup (default: the search field, else the first bound field)." });

export const addressRuleSchema = z
  .strictObject({
    name: addressName,
    start: startSchema.optional(),
    kinds: z.array(z.enum(KINDS)).max(KINDS.length).optional(),
    countries: z.array(countryCode).max(20).optional(),
    none: words(300).optional().meta({ description: "Message when nothing is found." }),
    takeFrom: z
      .number()
      .gt(0)
      .max(1)
      .optional()
      .meta({ description: "Minimum score to use the first of several candidates; otherwise the user chooses." }),
    mayDiffer: z
      .array(z.enum(PARTS))
      .max(PARTS.length)
      .optional()
      .meta({ description: "Parts that may differ from what was typed without asking (default: postcode)." }),
    exactness: z.enum(EXACTNESS).optional().meta({ description: "Minimum exactness." }),
    anywhere: z.boolean().optional().meta({ description: "Accept any position as it is." }),
    nearby: words(80).optional().meta({ description: "Search text for places; the nearest one is reported." }),
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
    called: words(60).optional().meta({ description: "Display name (default: its name)." }),
    when: serviceStartSchema,
    address: addressName.optional().meta({ description: "The address whose parts go into its inputs." }),
    with: z
      .record(text(60), text(300))
      .refine((inputs) => Object.keys(inputs).length <= 40, { error: "has too many inputs" })
      .meta({ description: "A pattern for each of its inputs." }),
    register: z
      .enum(REGISTER_WAYS)
      .optional()
      .meta({ description: "It confirms the address; what to do if its spelling differs." }),
    draws: z
      .strictObject({ line: text(30), words: text(200).optional() })
      .optional()
      .meta({ description: "A line value to draw on the map, and a pattern for its label." }),
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
