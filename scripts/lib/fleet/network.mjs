import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { hear, must } from "../run.mjs";
import { Trouble } from "../say.mjs";

const SWITCH = "bt-switch";
/** Characters that a name of an interface may have in all. */
const spaceOf = (host) => `bt-${host}`;

/** Why network namespaces cannot be made here, or undefined. */
export async function whyNoNamespaces() {
  if (process.getuid?.() !== 0) return "this is not root";
  if (!existsSync("/usr/sbin/ip") && !existsSync("/sbin/ip")) return "Debian's package iproute2 is missing";
  const made = await hear("ip", ["netns", "add", "bt-try"]);
  if (made.code !== 0) return made.output.trim();
  const bridge = await hear("ip", ["netns", "exec", "bt-try", "ip", "link", "add", "bridge", "type", "bridge"]);
  await hear("ip", ["netns", "del", "bt-try"]);
  return bridge.code === 0 ? undefined : bridge.output.trim();
}

/** Hosts of their own, each with one address, on one switch: network namespaces of Linux. */
export class Network {
  #hosts = new Map();

  static async make() {
    const network = new Network();
    await ip("netns", "add", SWITCH);
    await within(SWITCH, "link", "add", "bridge", "type", "bridge");
    await within(SWITCH, "link", "set", "bridge", "up");
    return network;
  }

  /** @param address IPv4, of a network of 24 bits */
  async add(host, address) {
    const space = spaceOf(host);
    await ip("netns", "add", space);
    this.#hosts.set(host, address);
    await within(SWITCH, "link", "add", `to-${host}`, "type", "veth", "peer", "name", "eth0", "netns", space);
    await within(SWITCH, "link", "set", `to-${host}`, "master", "bridge", "up");
    await within(space, "address", "add", `${address}/24`, "dev", "eth0");
    await within(space, "link", "set", "eth0", "up");
    await within(space, "link", "set", "lo", "up");
  }

  addressOf(host) {
    return this.#hosts.get(host);
  }

  /** Pulls a host's cable: nobody is told anything. */
  cut(host) {
    return within(SWITCH, "link", "set", `to-${host}`, "down");
  }

  mend(host) {
    return within(SWITCH, "link", "set", `to-${host}`, "up");
  }

  /** Starts a program on a host. */
  start(host, file, args, options = {}) {
    return spawn("ip", ["netns", "exec", spaceOf(host), file, ...args], { stdio: "ignore", ...options });
  }

  /** Runs one on a host to its end. @throws Trouble with what it wrote */
  run(host, what, file, args, options = {}) {
    return must(what, "ip", ["netns", "exec", spaceOf(host), file, ...args], options);
  }

  async remove() {
    for (const host of this.#hosts.keys()) await hear("ip", ["netns", "del", spaceOf(host)]);
    await hear("ip", ["netns", "del", SWITCH]);
  }
}

async function ip(...args) {
  const { code, output } = await hear("ip", args);
  if (code === 0) return;
  const again = /File exists/.test(output) ? "\nAnother fleet is running, or one was killed: ip -all netns delete" : "";
  throw new Trouble(`ip ${args.join(" ")}: ${output.trim()}${again}`);
}

const within = (space, ...args) => ip("-n", space, ...args);
