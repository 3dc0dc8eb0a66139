import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import type { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { S3Client } from "@aws-sdk/client-s3";
import { KEPT, type Store, writeWhole } from "./store.ts";

/** Where in a store of S3's protocol the files are. */
export interface Bucket {
  bucket: string;
  /** Before each name: nothing, or a path with a slash at its end. */
  prefix: string;
}

/** What the client's packages export: loaded when the store is first needed. */
type Sdk = typeof import("@aws-sdk/client-s3");

/**
 * In a bucket of S3's protocol, each object with its digest as `x-amz-meta-sha256`. Region, credentials and the endpoint of a store
 * of one's own are those of the client's usual variables (`AWS_REGION`, `AWS_ACCESS_KEY_ID`, `AWS_ENDPOINT_URL_S3`).
 */
export class S3Store implements Store {
  #loaded: Promise<{ sdk: Sdk; client: S3Client }> | undefined;

  constructor(private readonly at: Bucket) {}

  async put(name: string, path: string): Promise<void> {
    const { sdk, client } = await this.#load();
    const hash = createHash("sha256");
    await pipeline(createReadStream(path), hash);
    await client.send(
      new sdk.PutObjectCommand({
        ...this.#objectOf(name),
        Body: createReadStream(path),
        ContentLength: (await stat(path)).size,
        Metadata: { sha256: hash.digest("hex") },
      }),
    );
  }

  async fetch(name: string, path: string): Promise<boolean> {
    const { sdk, client } = await this.#load();
    try {
      const { Body, Metadata } = await client.send(new sdk.GetObjectCommand(this.#objectOf(name)));
      await writeWhole(Body as Readable, path, Metadata?.sha256 ?? "none", name);
      return true;
    } catch (error) {
      if (error instanceof sdk.NoSuchKey) return false;
      throw error;
    }
  }

  async remove(name: string): Promise<void> {
    const { sdk, client } = await this.#load();
    await client.send(new sdk.DeleteObjectCommand(this.#objectOf(name)));
  }

  async sweep(folder: string, keep: readonly string[]): Promise<void> {
    const { sdk, client } = await this.#load();
    const { bucket, prefix } = this.at;
    const pages = sdk.paginateListObjectsV2({ client }, { Bucket: bucket, Prefix: `${prefix}${folder}/` });
    for await (const { Contents = [] } of pages) {
      for (const { Key = "", LastModified } of Contents) {
        const name = Key.slice(prefix.length);
        const isOld = LastModified !== undefined && Date.now() - LastModified.getTime() > KEPT;
        if (isOld && !keep.includes(name)) await this.remove(name);
      }
    }
  }

  /** Closes its connections. */
  async close(): Promise<void> {
    (await this.#loaded)?.client.destroy();
  }

  #objectOf(name: string): { Bucket: string; Key: string } {
    if (!/^[a-z]+\/[\w-]+$/.test(name)) throw new Error(`${name} is no name of a stored file`);
    return { Bucket: this.at.bucket, Key: `${this.at.prefix}${name}` };
  }

  #load() {
    this.#loaded ??= import("@aws-sdk/client-s3").then((sdk) => {
      const { AWS_ENDPOINT_URL, AWS_ENDPOINT_URL_S3 } = process.env;
      const client = new sdk.S3Client({
        // a store of one's own has no name of its own for each bucket
        forcePathStyle: Boolean(AWS_ENDPOINT_URL_S3 || AWS_ENDPOINT_URL),
        // not every store knows the newer checksums, and each object has a digest of ours
        requestChecksumCalculation: "WHEN_REQUIRED",
        responseChecksumValidation: "WHEN_REQUIRED",
      });
      return { sdk, client };
    });
    return this.#loaded;
  }
}
