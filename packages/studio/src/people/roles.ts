import type { Role } from "@bibliotope/wire";

/** What the roles may do, in words. */
export const ROLE_WORDS: Readonly<Record<Role, { name: string; can: string }>> = {
  look: { name: "look", can: "look at everything and ask" },
  edit: { name: "edit", can: "look, ask, and make and change forms" },
  manage: { name: "manage", can: "do everything here: forms, keys, people" },
};
