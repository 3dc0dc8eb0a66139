import { createHash } from "node:crypto";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { buffer } from "node:stream/consumers";

interface StoredObject {
  content: Buffer;
  metadata: Record<string, string>;
  modified: Date;
}

/** A stand-in for a store of S3's protocol: objects in memory, put, got, listed and deleted. Signatures are looked for, not verified. */
export class S3StandIn {
  readonly objects = new Map<string, StoredObject>();
  /** Objects in one page of a list. */
  page = 2;
  #server: Server | undefined;

  async start(): Promise<string> {
    this.#server = createServer(async (request, response) => {
      const content = await buffer(request);
      const url = new URL(request.url ?? "", "http://s3.example");
      const [, bucket, ...rest] = decodeURIComponent(url.pathname).split("/");
      const key = rest.join("/");
      const fail = (status: number, code: string) =>
        response
          .writeHead(status, { "content-type": "application/xml" })
          .end(`<?xml version="1.0"?><Error><Code>${code}</Code><Message>${code}</Message></Error>`);
      if (!/^AWS4-HMAC-SHA256 Credential=/.test(request.headers.authorization ?? "")) return fail(403, "AccessDenied");
      if (bucket !== "addresses") return fail(404, "NoSuchBucket");
      const told = request.headers["x-amz-content-sha256"];
      if (/^[\da-f]{64}$/.test(String(told)) && told !== createHash("sha256").update(content).digest("hex"))
        return fail(400, "XAmzContentSHA256Mismatch");
      if (request.method === "PUT") {
        const metadata = Object.entries(request.headers).filter(([name]) => name.startsWith("x-amz-meta-"));
        this.objects.set(key, {
          content,
          metadata: Object.fromEntries(metadata.map(([name, value]) => [name, String(value)])),
          modified: new Date(),
        });
        return response.writeHead(200, { etag: '"1"' }).end();
      }
      if (request.method === "DELETE") {
        this.objects.delete(key);
        return response.writeHead(204).end();
      }
      if (!key) return response.writeHead(200, { "content-type": "application/xml" }).end(this.#list(url));
      const found = this.objects.get(key);
      if (!found) return fail(404, "NoSuchKey");
      response.writeHead(200, {
        ...found.metadata,
        "content-length": found.content.length,
        "last-modified": found.modified.toUTCString(),
      });
      return response.end(found.content);
    });
    await new Promise<void>((resolve) => this.#server!.listen(0, "127.0.0.1", resolve));
    return `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}`;
  }

  stop(): void {
    this.#server?.close();
    this.#server?.closeAllConnections();
  }

  #list(url: URL): string {
    const [prefix, after] = [url.searchParams.get("prefix") ?? "", url.searchParams.get("continuation-token") ?? ""];
    const all = [...this.objects]
      .filter(([key]) => key.startsWith(prefix) && key > after)
      .sort(([a], [b]) => (a < b ? -1 : 1));
    const shown = all.slice(0, this.page);
    const contents = shown.map(
      ([key, { content, modified }]) =>
        `<Contents><Key>${key}</Key><LastModified>${modified.toISOString()}</LastModified><Size>${content.length}</Size></Contents>`,
    );
    const isMore = all.length > shown.length;
    const next = isMore ? `<NextContinuationToken>${shown.at(-1)![0]}</NextContinuationToken>` : "";
    return `<?xml version="1.0"?><ListBucketResult><Name>addresses</Name><IsTruncated>${isMore}</IsTruncated>${next}${contents.join("")}</ListBucketResult>`;
  }
}
