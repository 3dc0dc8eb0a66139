import { createServer, type RequestListener, type Server } from "node:http";

const PORTS_TRIED = 100;

/** Listens on a port, or on the next free one. @throws Error that says what to do */
export async function listen(
  app: RequestListener,
  { port: wanted, host }: { port: number; host: string },
  say: (words: string) => void,
): Promise<Server> {
  for (let port = wanted; port < wanted + PORTS_TRIED; port++) {
    const server = createServer(app);
    const error = await new Promise<NodeJS.ErrnoException | undefined>((resolve) => {
      server.once("error", resolve);
      server.listen(port, host, () => resolve(undefined));
    });
    if (!error) return server;
    if (error.code !== "EADDRINUSE")
      throw new Error(`cannot listen on ${host}:${port}: ${error.message}. Set PORT to another one.`);
    say(`Port ${port} is in use, trying ${port + 1}`);
  }
  throw new Error(`ports ${wanted} to ${wanted + PORTS_TRIED - 1} are all in use. Set PORT to a free one.`);
}
