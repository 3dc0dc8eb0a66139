import { createHash, createHmac, generateKeyPairSync, randomBytes, sign } from "node:crypto";

/** A code of RFC 6238, by the RFC's own words: HMAC-SHA-1 over the count of half minutes, cut to six digits. */
export function codeAt(secret: string, milliseconds: number): string {
  const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
  let bits = "";
  for (const letter of secret) bits += letters.indexOf(letter).toString(2).padStart(5, "0");
  const key = Buffer.from(bits.match(/.{8}/g)!.map((eight) => Number.parseInt(eight, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(milliseconds / 30_000)));
  const digest = createHmac("sha1", key).update(counter).digest();
  const at = digest[19] & 15;
  return String((digest.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, "0");
}

const sha256 = (bytes: string | Buffer) => createHash("sha256").update(bytes).digest();
const base64url = (bytes: Buffer) => bytes.toString("base64url");

/** As much of CBOR (RFC 8949) as a passkey needs. */
function cbor(value: number | string | Buffer | Map<number | string, unknown>): Buffer {
  const head = (kind: number, size: number) =>
    size < 24
      ? Buffer.from([(kind << 5) | size])
      : size < 256
        ? Buffer.from([(kind << 5) | 24, size])
        : Buffer.from([(kind << 5) | 25, size >> 8, size & 255]);
  if (typeof value === "number") return value < 0 ? head(1, -1 - value) : head(0, value);
  if (typeof value === "string") return Buffer.concat([head(3, value.length), Buffer.from(value)]);
  if (Buffer.isBuffer(value)) return Buffer.concat([head(2, value.length), value]);
  const pairs = [...value].flatMap(([key, known]) => [cbor(key), cbor(known as Buffer)]);
  return Buffer.concat([head(5, value.size), ...pairs]);
}

/** What may be wrong with what an authenticator answers. */
interface Faults {
  origin?: string;
  host?: string;
  /** The person was not requested a finger or a number. */
  isUnverified?: boolean;
  challenge?: string;
}

/** An authenticator in software, by the words of Web Authentication: ES256, no attestation, one passkey. */
export class Authenticator {
  readonly #keys = generateKeyPairSync("ec", { namedCurve: "P-256" });
  readonly #id = randomBytes(32);
  #count = 0;

  constructor(private readonly origin: string) {}

  /** What a page gets for a new passkey. */
  make({ challenge }: { challenge: string }, faults: Faults = {}) {
    const { x, y } = this.#keys.publicKey.export({ format: "jwk" });
    const key = new Map<number, unknown>([
      [1, 2],
      [3, -7],
      [-1, 1],
      [-2, Buffer.from(x!, "base64url")],
      [-3, Buffer.from(y!, "base64url")],
    ]);
    const length = Buffer.from([0, this.#id.length]);
    const known = Buffer.concat([this.#data(faults, 0x40), Buffer.alloc(16), length, this.#id, cbor(key)]);
    const attestation = new Map<string, unknown>([
      ["fmt", "none"],
      ["attStmt", new Map()],
      ["authData", known],
    ]);
    return this.#credential({
      clientDataJSON: base64url(this.#client("webauthn.create", challenge, faults)),
      attestationObject: base64url(cbor(attestation)),
      transports: ["internal"],
    });
  }

  /** What a page gets for signing in. */
  use({ challenge }: { challenge: string }, faults: Faults = {}) {
    const client = this.#client("webauthn.get", challenge, faults);
    const known = this.#data(faults, 0);
    const signature = sign("sha256", Buffer.concat([known, sha256(client)]), this.#keys.privateKey);
    return this.#credential({
      clientDataJSON: base64url(client),
      authenticatorData: base64url(known),
      signature: base64url(signature),
    });
  }

  #credential<R>(response: R) {
    const id = base64url(this.#id);
    return { id, rawId: id, type: "public-key" as const, clientExtensionResults: {}, response };
  }

  #client(type: string, challenge: string, { origin = this.origin, challenge: other }: Faults): Buffer {
    return Buffer.from(JSON.stringify({ type, challenge: other ?? challenge, origin, crossOrigin: false }));
  }

  #data({ host = new URL(this.origin).hostname, isUnverified }: Faults, more: number): Buffer {
    const count = Buffer.alloc(4);
    count.writeUInt32BE(++this.#count);
    return Buffer.concat([sha256(host), Buffer.from([(isUnverified ? 1 : 5) | more]), count]);
  }
}
