import { useSessionQuery } from "./api.ts";

/** Roles of people, each with the ones that it includes. */
const INCLUDES = { look: ["look"], edit: ["look", "edit"], manage: ["look", "edit", "manage"] } as const;
type Role = keyof typeof INCLUDES;

/** Whether a person of a role may do what another role is needed for; nobody may while the role is unknown. */
export const includesRole = (role: Role | undefined, needed: Role) =>
  role !== undefined && (INCLUDES[role] as readonly Role[]).includes(needed);

/** Whether the person may edit. False while the session is loading, so that nothing is offered and then taken away. */
export const useMayEdit = () => includesRole(useSessionQuery().data?.role, "edit");

/** Whether the person may manage keys, people and hosts. False while the session is loading. */
export const useMayManage = () => includesRole(useSessionQuery().data?.role, "manage");
