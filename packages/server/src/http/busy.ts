/** More is waiting already than can be done soon: a refusal with the time to come back. */
export class Busy extends Error {
  /** @param seconds after which there will be room */
  constructor(readonly seconds: number) {
    super(`too many requests are waiting; try again in ${seconds} s`);
  }
}
