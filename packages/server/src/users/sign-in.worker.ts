import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from "@simplewebauthn/server";
import { toString as drawCode } from "qrcode";
import { doWork } from "../jobs/do-work.ts";
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

doWork(work);
