import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import express, { type Express } from "express";
import { FAULTS, playFaults } from "./faults.ts";

/** What a stand-in shows about itself on the page. */
export interface About {
  title: string;
  /** Paragraphs. */
  words: readonly string[];
  /** Requests that work, as a shell writes them; `{here}` represents its own address. */
  examples: readonly string[];
}

/** A service of the reading network that is none: an Express application with a page that explains it, and faults on demand. */
export function standIn(about: About): Express {
  const app = express();
  app.disable("x-powered-by");
  app.get("/", (request, response) => void response.type("html").send(pageOf(about, `http://${request.get("host")}`)));
  app.use(playFaults);
  return app;
}

export interface Running {
  url: string;
  stop: () => Promise<void>;
}

/** Listens on this machine alone, on a port that is free. */
export async function run(app: Express): Promise<Running> {
  const server = await new Promise<Server>((resolve, reject) => {
    const listening: Server = app.listen(0, "127.0.0.1", (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    stop: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[sign]!);

function pageOf({ title, words, examples }: About, here: string): string {
  const faults = Object.entries(FAULTS).map(
    ([name, what]) => `<dt><code>fault=${name}</code></dt><dd>${escaped(what)}</dd>`,
  );
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escaped(title)}</title>
<style>body { max-width: 42rem; margin: 3rem auto; padding: 0 1rem; font: 17px/1.55 serif; color: #20242a; background: #fcfaf3 }
pre, code { font: 13px/1.5 monospace } pre { white-space: pre-wrap } dt { margin-top: .5rem } dd { margin-left: 1.5rem }</style>
<h1>${escaped(title)}</h1>
${words.map((paragraph) => `<p>${escaped(paragraph)}</p>`).join("\n")}
<p>It is a stand-in: made up, started together with Bibliotope on this machine, for trying services without a network.</p>
${examples.map((example) => `<pre>${escaped(example.replaceAll("{here}", here))}</pre>`).join("\n")}
<h2>What can go wrong with it</h2>
<p>Every request may ask for a fault, in its query string or by the header <code>Stand-In-Fault</code>:</p>
<dl>${faults.join("\n")}</dl>
</html>
`;
}
