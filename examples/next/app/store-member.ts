"use server";

import { Client, placeOf } from "@bibliotope/kit/server";

export interface Stored {
  words: string;
}

/** Stores a member with the place of the address; without a place there is nothing to store. */
export async function storeMember(_before: Stored | undefined, form: FormData): Promise<Stored> {
  const { BIBLIOTOPE_URL, BIBLIOTOPE_SERVER_KEY } = process.env;
  const client = new Client({ url: BIBLIOTOPE_URL!, key: BIBLIOTOPE_SERVER_KEY!, retries: 1 });
  const q = ["street", "town", "postcode"].map((name) => form.get(name)).filter(Boolean);
  const place = await placeOf(client, { q: q.join(", "), field: "street" }, { exactness: "between" });
  if (!place.ok) return { words: `Not stored. ${place.problem.detail}` };
  return { words: `Stored: ${place.line} (${place.at.lat}, ${place.at.lon}).` };
}
