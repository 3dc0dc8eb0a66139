import type { Response } from "express";
import type { HeldKey } from "../keys/keys.repository.ts";
import { HttpProblem } from "./problem.ts";

/**
 * The countries in which a lookup may look: those that were asked for, else those that its key is kept to.
 * @throws HttpProblem when one was asked for that the key may not see
 */
export function countriesFor(response: Response, asked: readonly string[] | undefined): string[] | undefined {
  const { countries = [] } = keyOf(response);
  if (!asked?.length) return countries.length ? [...countries] : undefined;
  for (const country of asked) checkCountry(response, country);
  return [...asked];
}

/** @throws HttpProblem when the key may not see a country */
export function checkCountry(response: Response, country: string | undefined): void {
  const { name, countries = [] } = keyOf(response);
  if (!countries.length || (country !== undefined && countries.includes(country))) return;
  throw new HttpProblem(
    "not-allowed",
    `The key “${name}” is for ${countries.join(", ")} only. Allow it ${country ?? "more"} in the workbench, or use another key.`,
  );
}

const keyOf = ({ locals }: Response): Partial<HeldKey> => locals.key ?? {};
