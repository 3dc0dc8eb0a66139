import { createServer, type RequestListener, type Server } from "node:http";

const [major, minor] = process.versions.node.split(".").map(Number);

/** Whether this Node lets several threads listen on one port (`reusePort`: 22.12, 23.1 and later), the kernel handing out connections. */
export const canShareAPort =
  process.platform === "linux" && (major > 23 || (major === 23 && minor >= 1) || (major === 22 && minor >= 12));

interface Where {
  port: number;
  host: string;
  /** How many ports are tried; 0 to listen on one that other threads of this process listen on. */
  ports?: number;
  /** Whether other threads are to listen on it too. */
  isShared?: boolean;
}

/** Listens on a port, or on the next free one of so many. @throws Error with what to do */
export async function listen(
  app: RequestListener,
  { port: wanted, host, ports = 1, isShared = false }: Where,
  say: (words: string) => void,
): Promise<Server> {
  if (ports === 0) return listenOn(app, { port: wanted, host, reusePort: true });
  for (let port = wanted; port < wanted + ports; port++) {
    try {
      const server = await listenOn(app, { port, host });
      if (!isShared) return server;
      // alone first: another program that shares its port would be sent half of the requests
      await new Promise((resolve) => server.close(resolve));
      return await listenOn(app, { port, host, reusePort: true });
    } catch (error) {
      const { code, message } = error as NodeJS.ErrnoException;
      if (code !== "EADDRINUSE")
        throw new Error(`cannot listen on ${host}:${port}: ${message}. Set PORT to another one.`);
      if (port + 1 < wanted + ports) say(`Port ${port} is in use, trying ${port + 1}`);
    }
  }
  const tried = ports === 1 ? `port ${wanted} is in use` : `ports ${wanted} to ${wanted + ports - 1} are all in use`;
  throw new Error(`${tried}. Set PORT to a free one.`);
}

/** @throws Error of Node's, with its code */
function listenOn(app: RequestListener, where: { port: number; host: string; reusePort?: boolean }): Promise<Server> {
  const server = createServer(app);
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(where, () => {
      server.off("error", reject);
      resolve(server);
    });
  });
}
