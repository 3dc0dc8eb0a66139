import { createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import { readFileSync, renameSync, statSync, writeFileSync } from "node:fs";

/** A key that links are signed with. */
interface LinkKey {
  id: string;
  /** Hexadecimal digits of 256 bits. */
  key: string;
  madeAt: string;
}

/** Bytes of a signature that stand in a link: nobody guesses 192 bits. */
const SIGNED_BYTES = 24;

/**
 * The keys that links are signed with: the first signs, all of them prove. They stand in a file that only its owner may
 * read; where another process has put in a new one, it is read again.
 */
export class LinkKeys {
  #keys: LinkKey[] = [];
  /** Which file was read: it is replaced as a unit. */
  #mark = "";

  /** @throws Error for a file that holds no such keys */
  constructor(private readonly file: string) {
    if (!this.#read()) this.#write([newKey()]);
  }

  /** When the key that signs was made, and how many prove. */
  get standing(): { madeAt: string; count: number } {
    this.#read();
    return { madeAt: this.#keys[0].madeAt, count: this.#keys.length };
  }

  /** @returns the text with what proves it behind it */
  sign(text: string): string {
    this.#read();
    const signed = `${this.#keys[0].id}.${text}`;
    return `${signed}.${macOf(this.#keys[0], signed).toString("base64url")}`;
  }

  /** @returns the text that was signed; undefined for what no key here has signed, or what was changed since */
  open(token: string): string | undefined {
    this.#read();
    const end = token.lastIndexOf(".");
    const [signed, mac] = [token.slice(0, end), token.slice(end + 1)];
    const start = signed.indexOf(".");
    const key = this.#keys.find(({ id }) => id === signed.slice(0, start));
    if (!key || end < 0 || start < 0) return undefined;
    const [given, right] = [Buffer.from(mac, "base64url"), macOf(key, signed)];
    // the same bytes may be written in several ways: only one of them is a link
    if (given.length !== right.length || right.toString("base64url") !== mac) return undefined;
    return timingSafeEqual(given, right) ? signed.slice(start + 1) : undefined;
  }

  /** From now on another key signs. @param endsOld whether links that were signed before are none any more */
  renew(endsOld: boolean): void {
    this.#read();
    this.#write([newKey(), ...(endsOld ? [] : this.#keys)]);
  }

  /** @returns whether there is a file */
  #read(): boolean {
    const stats = statSync(this.file, { throwIfNoEntry: false });
    if (!stats) return false;
    const mark = `${stats.ino} ${stats.mtimeMs}`;
    if (mark === this.#mark) return true;
    const keys = JSON.parse(readFileSync(this.file, "utf8")) as LinkKey[];
    if (!Array.isArray(keys) || !keys.length || keys.some(({ id, key }) => !id || !/^[0-9a-f]{64}$/.test(key)))
      throw new Error(`${this.file} holds no keys for links.`);
    this.#keys = keys;
    this.#mark = mark;
    return true;
  }

  #write(keys: LinkKey[]): void {
    const aside = `${this.file}.${process.pid}.part`;
    writeFileSync(aside, JSON.stringify(keys, null, 2), { mode: 0o600 });
    renameSync(aside, this.file);
    this.#read();
  }
}

const newKey = (): LinkKey => ({
  id: randomBytes(3).toString("base64url").replace(/[_-]/g, "x"),
  key: randomBytes(32).toString("hex"),
  madeAt: new Date().toISOString(),
});

const macOf = ({ key }: LinkKey, text: string) =>
  createHmac("sha256", Buffer.from(key, "hex")).update(text).digest().subarray(0, SIGNED_BYTES);
