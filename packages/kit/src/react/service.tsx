import { createContext, type ReactNode, useContext, useMemo } from "react";
import { Client } from "../client/client.ts";

const Service = createContext<Client | undefined>(undefined);

export interface ServiceProps {
  /** A web key (`bt_web_…`), read from where the application keeps its settings. */
  webKey?: string;
  /** Where the service is; the page's own origin when not given. */
  url?: string;
  /** A client of your own, in place of key and url. */
  client?: Client;
  children?: ReactNode;
}

/** Gives a client to the hooks and components below it. */
export function BibliotopeProvider({ webKey, url, client, children }: ServiceProps) {
  const made = useMemo(
    () => client ?? new Client({ key: webKey ?? "", ...(url ? { url } : {}) }),
    [client, webKey, url],
  );
  return <Service.Provider value={made}>{children}</Service.Provider>;
}

/** The client of the provider around. @throws {Error} without one */
export function useClient(): Client {
  const client = useContext(Service);
  if (!client) throw new Error("There is no BibliotopeProvider around this component.");
  return client;
}
