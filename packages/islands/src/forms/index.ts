import type { FormDefinition } from "@bibliotope/core/form";
import { BECOME_A_READER } from "./become-a-reader.ts";

/** The sample forms of the reading network, each with its ref. */
export const SAMPLE_FORMS: readonly { ref: string; definition: FormDefinition }[] = [
  { ref: "become-a-reader", definition: BECOME_A_READER },
];
