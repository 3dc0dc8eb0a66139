import { createCipheriv, createDecipheriv, createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import { readFile, writeFile } from "node:fs/promises";

const [CIPHER, KEY_BYTES, NONCE_BYTES, TAG_BYTES] = ["aes-256-gcm", 32, 12, 16] as const;

/** Seals texts with AES-256-GCM: a nonce of its own each, and the name as what must fit. */
export class Sealing {
  constructor(private readonly key: Buffer) {}

  seal(name: string, text: string): Buffer {
    const nonce = randomBytes(NONCE_BYTES);
    const cipher = createCipheriv(CIPHER, this.key, nonce).setAAD(Buffer.from(name));
    const sealed = Buffer.concat([cipher.update(text, "utf8"), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), sealed]);
  }

  /** @returns undefined for what was sealed with another key, under another name, or was changed */
  open(name: string, sealed: Buffer): string | undefined {
    try {
      const nonce = sealed.subarray(0, NONCE_BYTES);
      const tag = sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES);
      // without the length, Node also takes the beginning of a tag for one
      const decipher = createDecipheriv(CIPHER, this.key, nonce, { authTagLength: TAG_BYTES })
        .setAAD(Buffer.from(name))
        .setAuthTag(tag);
      const text = decipher.update(sealed.subarray(NONCE_BYTES + TAG_BYTES));
      return Buffer.concat([text, decipher.final()]).toString("utf8");
    } catch {
      return undefined;
    }
  }

  /** Signs bytes for a purpose: HMAC-SHA-256 by a key of its own, which is made of this one and the purpose. */
  sign(purpose: string, bytes: Uint8Array): Buffer {
    return hmac(hmac(this.key, `sign ${purpose}`), bytes);
  }

  isSigned(purpose: string, bytes: Uint8Array, signature: Uint8Array): boolean {
    return signature.length === MAC_BYTES && timingSafeEqual(this.sign(purpose, bytes), signature);
  }
}

const hmac = (key: Buffer, bytes: Uint8Array | string) => createHmac("sha256", key).update(bytes).digest();

const MAC_BYTES = 32;

/**
 * The key that secrets are sealed with: 64 hexadecimal digits of the environment, or else those of a file that only its owner may
 * read, made when it is not there.
 * @throws Error for one that is no such key
 */
export async function readSealing(given: string | undefined, file: string): Promise<Sealing> {
  const made = randomBytes(KEY_BYTES).toString("hex");
  const text = given ?? (await keptIn(file, made));
  if (!/^[0-9a-f]{64}$/i.test(text.trim())) throw new Error(`${file} must hold 64 hexadecimal digits.`);
  return new Sealing(Buffer.from(text.trim(), "hex"));
}

/** What a file holds; where it is not there, it is made with another text. */
async function keptIn(file: string, otherwise: string): Promise<string> {
  try {
    await writeFile(file, otherwise, { mode: 0o600, flag: "wx" });
    return otherwise;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
    return readFile(file, "utf8");
  }
}
