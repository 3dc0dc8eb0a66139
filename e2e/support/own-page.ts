import { createServer } from "node:http";
import type { AddressInfo } from "node:net";

/** A developer's own pages, on an origin of their own: each path with its HTML. */
export interface OwnPages {
  origin: string;
  close(): void;
}

/** @param pages HTML by path, `/` for the first */
export async function servePages(pages: Readonly<Record<string, string>>): Promise<OwnPages> {
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url ?? "/", "http://x");
    const html = Object.hasOwn(pages, pathname) ? pages[pathname] : undefined;
    response.writeHead(html === undefined ? 404 : 200, { "content-type": "text/html; charset=utf-8" }).end(html);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as AddressInfo;
  return { origin: `http://127.0.0.1:${port}`, close: () => void server.close() };
}

/** The page that the workbench hands out, with the key that a server would write into it. */
export const withKey = (page: string, key: string) =>
  page.replace('name="bibliotope-key" content=""', `name="bibliotope-key" content="${key}"`);
