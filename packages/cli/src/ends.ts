/** What the command ends with. */
export const ENDS = { done: 0, failed: 1, wrongUse: 2, noAnswer: 3, nothingFound: 4 } as const;

/** Why the command cannot go on, in words for whoever called it. */
export class Stop extends Error {
  constructor(
    message: string,
    /** What the command ends with. */
    readonly end: number = ENDS.failed,
    /** The status of an answer, where there was one. */
    readonly status?: number,
  ) {
    super(message);
  }
}
