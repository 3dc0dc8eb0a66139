import type { LookupAddress } from "node:dns";
import { lookup } from "node:dns/promises";
import { isIP, type LookupFunction } from "node:net";
import type { AllowedHost } from "@bibliotope/wire";
import ipaddr from "ipaddr.js";
import { CallFailed } from "./call-failed.ts";

/** Finds the addresses of a name. */
export type Resolve = (name: string) => Promise<LookupAddress[]>;
const resolveName: Resolve = (name) => lookup(name, { all: true });

/** Addresses within this machine or this network, which only a host that is marked as inside may have. */
const INSIDE = new Set(["private", "loopback", "linkLocal", "uniqueLocal", "carrierGradeNat"]);

/** True for an address that may be called. @param isInside of a host that is marked so */
export function mayReach(address: string, isInside: boolean): boolean {
  if (!ipaddr.isValid(address)) return false;
  // an address of IPv4 within one of IPv6 is what it is without
  const range = ipaddr.process(address).range();
  return range === "unicast" || (isInside && INSIDE.has(range));
}

/** The entry that lets a URL be asked. @throws CallFailed where there is none */
export function allowedFor(url: URL, hosts: readonly AllowedHost[]): AllowedHost {
  const scheme = url.protocol.slice(0, -1);
  const port = Number(url.port || (scheme === "https" ? 443 : 80));
  const host = url.hostname.toLowerCase().replace(/\.$/, "");
  const found = hosts.find((one) => one.scheme === scheme && one.host === host && one.port === port);
  if (found) return found;
  throw new CallFailed("refused", `${scheme}://${url.host} is not allowed. A manager of this workbench can allow it.`);
}

/**
 * Looks a host's name up once, and gives the connection the addresses that were checked: a name that leads elsewhere the next
 * time is not looked up again.
 */
export const guardedLookup =
  (isInside: boolean, resolve?: Resolve): LookupFunction =>
  (name, options, callback) => {
    addressesOf(name, isInside, resolve).then(
      (found) => {
        if (options.all) callback(null, found);
        else callback(null, found[0].address, found[0].family);
      },
      (error: NodeJS.ErrnoException) => callback(error, "", 0),
    );
  };

/** @throws CallFailed for a name that leads nowhere, or where nobody may ask */
export async function addressesOf(
  name: string,
  isInside: boolean,
  resolve: Resolve = resolveName,
): Promise<LookupAddress[]> {
  const bare = name.replace(/^\[|\]$/g, "");
  const family = isIP(bare);
  const all = family
    ? [{ address: bare, family }]
    : await resolve(name).catch(() => {
        throw new CallFailed("down", `The host ${name} has no address.`);
      });
  const found = all.filter(({ address }) => mayReach(address, isInside));
  if (found.length) return found;
  throw new CallFailed("refused", `The host ${name} is in the internal network, but not marked as internal.`);
}
