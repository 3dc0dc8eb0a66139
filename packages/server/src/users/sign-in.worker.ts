import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from "@simplewebauthn/server";
import { toString as drawCode } from "qrcode";
import { ownPort } from "../jobs/port.ts";
import { whyRefused } from "./common-passwords.ts";

/** What takes long to load, or to read, and is seldom needed. */
const work = {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  drawCode: (text: string) => drawCode(text, { type: "svg", margin: 2 }),
  whyRefused: ({ password, name }: { password: string; name: string }) => whyRefused(password, name),
};

export type SignInWork = typeof work;
export type SignInCall = keyof SignInWork;
export interface SignInTask {
  id: number;
  call: SignInCall;
  options: unknown;
}
export type SignInResult = { id: number; result: unknown } | { id: number; failed: string };

const port = ownPort();
port.on("message", async ({ id, call, options }: SignInTask) => {
  try {
    const result: unknown = await work[call](options as never);
    port.postMessage({ id, result } satisfies SignInResult);
  } catch (error) {
    port.postMessage({ id, failed: String(error) } satisfies SignInResult);
  }
});
