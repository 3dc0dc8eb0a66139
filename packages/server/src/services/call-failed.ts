import type { ServiceOutcome } from "@bibliotope/core/service";

/** Why a service did not answer, in words for a developer. */
export class CallFailed extends Error {
  constructor(
    readonly outcome: Exclude<ServiceOutcome, "answered" | "outside">,
    message: string,
    /** What came back, where anything did. */
    readonly came?: CameBack,
  ) {
    super(message);
  }
}

/** What a service sent. */
export interface CameBack {
  status: number;
  headers: { name: string; value: string }[];
  mediaType: string;
  text: string;
}
