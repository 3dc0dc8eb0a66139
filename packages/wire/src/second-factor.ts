import * as z from "zod";
import { text } from "./text.ts";

/** A code of six digits that an authenticator app shows (RFC 6238). */
export const oneTimeCode = z
  .string()
  .transform((code) => code.replace(/\s/g, ""))
  .pipe(z.string().regex(/^\d{6}$/, { error: "a code has six digits" }));

const bytes = text(4096).regex(/^[\w-]*$/, { error: "is not written in base64url" });
/** A passkey's answer as the browser gives it (Web Authentication, level 3, `toJSON`). */
const credential = z.looseObject({
  id: bytes,
  rawId: bytes,
  type: z.literal("public-key"),
  response: z.looseObject({ clientDataJSON: bytes }),
});
/** Somebody with a password repeats it before they change how they sign in. */
const again = { before: text(1000).optional() };

export const secondFactorAnswer = z.object({
  /** When codes of an app were first requested; null while none are. */
  codesSince: z.string().nullable(),
  passkeys: z.array(z.object({ id: z.string(), name: z.string(), madeAt: z.string(), usedAt: z.string().nullable() })),
});
export const againRequest = z.strictObject(again);
export const begunCodes = z.object({
  /** The secret for the app, in base32. */
  secret: z.string(),
  uri: z.string(),
  /** The same as a code to be scanned, an SVG. */
  picture: z.string(),
});
export const confirmCodesRequest = z.strictObject({ code: oneTimeCode });
/** What a browser is requested a passkey with (`parseCreationOptionsFromJSON`, `parseRequestOptionsFromJSON`). */
export const passkeyOptions = z.object({ options: z.record(z.string(), z.unknown()) });
export const keepPasskeyRequest = z.strictObject({ name: text(60).trim().min(1), made: credential });
/** Signs in by a passkey. */
export const passkeySignInRequest = z.strictObject({ used: credential });

export type SecondFactorAnswer = z.infer<typeof secondFactorAnswer>;
export type PasskeySummary = SecondFactorAnswer["passkeys"][number];
export type BegunCodes = z.infer<typeof begunCodes>;
export type PasskeyCredential = z.infer<typeof credential>;
export type AgainRequest = z.infer<typeof againRequest>;
export type KeepPasskeyRequest = z.infer<typeof keepPasskeyRequest>;
export type PasskeySignInRequest = z.infer<typeof passkeySignInRequest>;
