import { createHash, randomBytes } from "node:crypto";

/** A new secret of 160 random bits, URL-safe. */
export function newSecret(): string {
  return randomBytes(20).toString("base64url");
}

/** What is kept of a secret. Secrets are long and random, so a plain digest is enough; there is nothing to guess. */
export function hashOf(secret: string): string {
  return createHash("sha256").update(secret).digest("base64url");
}
