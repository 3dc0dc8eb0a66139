import type { OwnCallName } from "@bibliotope/wire";
import type { Logger } from "pino";

/** What somebody did at the door, or about who may do what: of a call of the workbench, or of signing in. */
interface SecurityEvent {
  event: string;
  /** How it ended: `done`, or what it was refused for. */
  ended: string;
  /** Number and name of the person; at the door the name that was given. */
  user?: number;
  name?: string;
  /** Where it came from. */
  address: string;
  /** What it was about, by path: numbers and names, never a value that was sent. */
  about?: Readonly<Record<string, string>>;
}

export type NoteSecurity = (event: SecurityEvent) => void;

/** Calls of the workbench that are noted, and what each is called. */
const NOTED: Partial<Record<OwnCallName, string>> = {
  signOut: "signed out",
  endOtherSessions: "other sessions ended",
  changePassword: "password changed",
  beginCodes: "codes of an app begun",
  confirmCodes: "codes of an app asked for",
  dropCodes: "codes of an app turned off",
  keepPasskey: "passkey kept",
  dropPasskey: "passkey taken out",
  makePerson: "person let in",
  changePerson: "person or role changed",
  personData: "data of a person exported",
  removePerson: "person taken out",
  makeKey: "key made",
  changeKey: "key changed",
  replaceKey: "key replaced",
  withdrawKey: "key withdrawn",
  renewLinkKey: "links signed with another key",
  setSecret: "secret set",
  dropSecret: "secret taken out",
  allowHost: "host allowed",
  refuseHost: "host taken out",
  publishData: "data published",
  publishForm: "form published",
  setRetention: "time to keep things changed",
};

/** What a call is called in the log; undefined for one that is not noted. */
export const eventOf = (call: OwnCallName): string | undefined => NOTED[call];

/** The longest name at the door that is written down. */
const LONGEST = 200;

/** Notes events in a log of their own. */
export function securityNotes(log: Logger): NoteSecurity {
  return ({ event, name, ...told }) => log.info({ ...told, ...(name ? { name: name.slice(0, LONGEST) } : {}) }, event);
}
