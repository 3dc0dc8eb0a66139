import type { FormDefinition } from "@bibliotope/core/form";
import { BECOME_A_READER } from "./become-a-reader.ts";
import { BOOKS_ABROAD } from "./books-abroad.ts";
import { LEND_TO_A_BRANCH } from "./lend-to-a-branch.ts";
import { OFFER_A_HOUSE } from "./offer-a-house.ts";
import { READING_ROOMS } from "./reading-rooms.ts";
import { SUGGEST_A_STOP } from "./suggest-a-stop.ts";

/** The sample forms of the reading network, each with the ref. */
export const SAMPLE_FORMS: readonly { ref: string; definition: FormDefinition }[] = [
  { ref: "become-a-reader", definition: BECOME_A_READER },
  { ref: "suggest-a-stop", definition: SUGGEST_A_STOP },
  { ref: "lend-to-a-branch", definition: LEND_TO_A_BRANCH },
  { ref: "reading-rooms", definition: READING_ROOMS },
  { ref: "offer-a-house", definition: OFFER_A_HOUSE },
  { ref: "books-abroad", definition: BOOKS_ABROAD },
];
