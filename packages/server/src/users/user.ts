import type { Role } from "@bibliotope/wire";

/** Somebody who may sign in. */
export interface User {
  id: number;
  name: string;
  role: Role;
  hasPassword: boolean;
}
