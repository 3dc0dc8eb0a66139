export { Client, type ClientOptions } from "./client.ts";
export { LookupError, type LookupTrouble } from "./errors.ts";
