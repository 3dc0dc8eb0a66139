import { createServer, type RequestListener, type Server } from "node:http";

/** Listens on a port, or on the next free one of so many. @throws Error that says what to do */
export async function listen(
  app: RequestListener,
  { port: wanted, host, ports = 1 }: { port: number; host: string; ports?: number },
  say: (words: string) => void,
): Promise<Server> {
  for (let port = wanted; port < wanted + ports; port++) {
    const server = createServer(app);
    const error = await new Promise<NodeJS.ErrnoException | undefined>((resolve) => {
      server.once("error", resolve);
      server.listen(port, host, () => resolve(undefined));
    });
    if (!error) return server;
    if (error.code !== "EADDRINUSE")
      throw new Error(`cannot listen on ${host}:${port}: ${error.message}. Set PORT to another one.`);
    if (port + 1 < wanted + ports) say(`Port ${port} is in use, trying ${port + 1}`);
  }
  const tried = ports === 1 ? `port ${wanted} is in use` : `ports ${wanted} to ${wanted + ports - 1} are all in use`;
  throw new Error(`${tried}. Set PORT to a free one.`);
}
