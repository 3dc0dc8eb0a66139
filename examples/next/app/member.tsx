"use client";

import { type ReactNode, useActionState } from "react";
import { type Stored, storeMember } from "./store-member";

/** The form; what it sends is looked up again on the server, by a server action. */
export function Member({ children }: { children: ReactNode }) {
  const [stored, store, isStoring] = useActionState<Stored | undefined, FormData>(storeMember, undefined);
  return (
    <form aria-label="By tokens" action={store}>
      {children}
      <label>
        Street <input name="street" autoComplete="address-line1" />
      </label>
      <label>
        Town <input name="town" autoComplete="address-level2" />
      </label>
      <label>
        Postcode <input name="postcode" autoComplete="postal-code" />
      </label>
      <button type="submit" disabled={isStoring}>
        Store
      </button>
      <p role="status">{stored?.words}</p>
    </form>
  );
}
