import type { Role } from "@bibliotope/wire";

/** What the roles may do, in words. */
export const ROLE_WORDS: Readonly<Record<Role, { name: string; can: string }>> = {
  look: { name: "view", can: "view everything and make lookups" },
  edit: { name: "edit", can: "view, look up, and create and change forms" },
  manage: { name: "manage", can: "do everything: forms, keys, people" },
};
