import { Random } from "@bibliotope/islands";
import { percentile } from "./measure.ts";

/*
 * A fleet on paper: what a machine with some processes answers, how often a fleet leases permits, and what a fleet of any size
 * needs. `npm run bench -- fleet` measures the constants and compares what is worked out here with one, two and three processes;
 * docs/scale.md has what comes of it.
 */

/** One machine that answers lookups. */
export interface Machine {
  processes: number;
  cores: number;
  /** Milliseconds of processor time of lookups in the thread that answers; each lookup is one of them. */
  costs: readonly number[];
  /** Milliseconds of processor time that a lookup takes in other threads of the process. */
  beside: number;
  /** Milliseconds of processor time that asking takes on the same machine; 0 for a load from outside. */
  asking: number;
}

/** What came of a load. */
export interface Answered {
  /** Lookups answered a second. */
  rate: number;
  /** Milliseconds from asking to the answer. */
  median: number;
  p99: number;
  /** Share of the cores that was busy, 0 to 1. */
  busy: number;
}

interface Work {
  /** Milliseconds of processor time that are left. */
  left: number;
  done: () => void;
}

/**
 * A load of so many lookups a second, at random moments, dealt out in turn. Each process does one lookup after the other; all
 * that have something to do share the cores equally.
 * @param rate lookups a second; Infinity to ask as fast as is answered, 16 at a time
 */
export function answersOf(machine: Machine, rate: number, seconds: number, seed: number | string = 1): Answered {
  const random = new Random(seed);
  const { processes, cores, costs, beside, asking } = machine;
  // who asks, then the processes, then what runs beside each
  const queues = Array.from({ length: 1 + 2 * processes }, (): Work[] => []);
  const took: number[] = [];
  let [now, busy, asked, next] = [0, 0, 0, 0];
  const isClosed = rate === Number.POSITIVE_INFINITY;
  const end = seconds * 1000;
  const put = (queue: number, left: number, done: () => void = () => undefined) => queues[queue].push({ left, done });
  const ask = () => {
    const process = 1 + (asked++ % processes);
    put(0, asking / 2, () => {
      const began = now;
      put(process + processes, beside);
      put(process, random.pick(costs), () =>
        put(0, asking / 2, () => {
          took.push(now - began);
          if (isClosed && now < end) ask();
        }),
      );
    });
  };
  if (isClosed) for (let i = 0; i < AT_ONCE; i++) ask();
  for (;;) {
    const running = queues.filter((queue) => queue.length);
    if (now >= end) break;
    const speed = Math.min(1, cores / running.length);
    const soonest = running.reduce((least, [{ left }]) => Math.min(least, left / speed), Number.POSITIVE_INFINITY);
    const arrival = isClosed ? Number.POSITIVE_INFINITY : next - now;
    const passed = Math.min(soonest, arrival, end - now);
    now += passed;
    busy += passed * Math.min(cores, running.length);
    for (const [work] of running) work.left -= passed * speed;
    for (const queue of running) if (queue[0].left <= TINY) queue.shift()!.done();
    if (!isClosed && now >= next) {
      ask();
      next = now - (Math.log(1 - random.next()) * 1000) / rate;
    }
  }
  return {
    rate: took.length / seconds,
    median: percentile(took, 0.5),
    p99: percentile(took, 0.99),
    busy: busy / (cores * end),
  };
}

/** Lookups under way where it is asked as fast as is answered. */
export const AT_ONCE = 16;
/** Milliseconds that are nothing. */
const TINY = 1e-9;

/** Seconds until a process gives back what it has not used, and until one that got nothing looks again: see `server/keys/permits`. */
const [IDLE, LOOK_AGAIN] = [1, 0.25];

/** How a key's permits went in one window. */
interface Leases {
  /** Blocks taken, tried to take and given back: each writes one row. */
  writes: number;
  /** Lookups that were refused before the limit was used up. */
  refused: number;
}

/**
 * How a key's permits are leased and given back in one window, by processes that are asked in turn.
 * @param most lookups that the key may ask in a window
 * @param rate lookups a second of all processes together
 * @param seconds how long a window is
 */
export function leasesOf(processes: number, most: number, rate: number, seconds: number): Leases {
  const part = 1 / Math.max(8, 2 * processes);
  const unused = new Float64Array(processes);
  const usedAt = new Float64Array(processes).fill(Number.NEGATIVE_INFINITY);
  const lookedAt = new Float64Array(processes).fill(Number.NEGATIVE_INFINITY);
  let [taken, used, writes, refused, tendedAt] = [0, 0, 0, 0, 0];
  for (let i = 0; i < rate * seconds && used < most; i++) {
    const now = i / rate;
    const process = i % processes;
    // once a second
    for (; tendedAt + IDLE <= now; tendedAt += IDLE)
      for (let p = 0; p < processes; p++) {
        if (!unused[p] || now - usedAt[p] <= IDLE) continue;
        taken -= unused[p];
        unused[p] = 0;
        writes++;
      }
    if (!unused[process] && now - lookedAt[process] >= LOOK_AGAIN) {
      const left = most - taken;
      unused[process] = Math.min(left, Math.max(1, Math.floor(left * part)));
      taken += unused[process];
      lookedAt[process] = left ? Number.NEGATIVE_INFINITY : now;
      writes++;
    }
    if (unused[process]) {
      unused[process]--;
      used++;
      usedAt[process] = now;
    } else refused++;
  }
  return { writes, refused };
}

/** What was measured of one process; `npm run bench -- fleet`, and docs/benchmarks.md. */
export interface Constants {
  /** Bytes of the index for each address. */
  indexBytes: number;
  /** Addresses that one segment can hold. */
  segmentHolds: number;
  /** Bytes of a process without its index. */
  baseBytes: number;
  /** Bytes of each further thread that answers. */
  threadBytes: number;
  /** Microseconds for each address: from tables to a segment. */
  buildMicroseconds: number;
  /** Milliseconds of processor time of a lookup, all threads of the process. */
  lookup: number;
  /** Transactions a second that a process with nothing to do makes in the database. */
  idleTransactions: number;
  /** Connections that it holds then. */
  connections: number;
  /** Transactions that write how keys were used: a second, while it is asked. */
  useTransactions: number;
  /** Transactions a second of one row's lock, one after the other. */
  rowTransactions: number;
}

/** A fleet on paper. */
export interface Fleet {
  machines: number;
  threads: number;
  addresses: number;
  /** Bytes a second that the store gives out. */
  storeBytes: number;
}

/** What a fleet needs. */
export interface Needs {
  segments: number;
  /** Bytes of memory of each machine, while the next index is opened beside the one that answers. */
  memory: number;
  /** Seconds of processor time until the segments of everything are built. */
  build: number;
  /** Bytes that a publication sends to all machines, and seconds that the store takes for it. */
  sent: number;
  sending: number;
  /** Lookups a second at two thirds of what all can. */
  lookups: number;
  connections: number;
  /** Transactions a second in the database. */
  transactions: number;
  /** Writes a second on the row of one key with 100,000 lookups a minute, asked of all machines in turn. */
  keyTransactions: number;
  /** The same where a balancer sends all lookups of a key to the same few threads. */
  heldTransactions: number;
  /** What a database takes of one row, as parts of it: above 1, lookups of the key wait for each other. */
  keyShare: number;
}

/** A window of permits, in seconds, and lookups in it of a key that all machines use. */
const [WINDOW, OF_ONE_KEY] = [60, 100_000];
/** Threads that one key's lookups are sent to, where the balancer sees to that. */
const HELD_BY = 8;

export function needsOf({ machines, threads, addresses, storeBytes }: Fleet, constants: Constants): Needs {
  const index = addresses * constants.indexBytes;
  const answering = machines * threads;
  const writes = (processes: number) => leasesOf(processes, OF_ONE_KEY, OF_ONE_KEY / WINDOW, WINDOW).writes / WINDOW;
  const keyTransactions = writes(answering);
  return {
    segments: Math.ceil(addresses / constants.segmentHolds),
    memory: constants.baseBytes + (threads - 1) * constants.threadBytes + 2 * index,
    build: (addresses * constants.buildMicroseconds) / 1e6,
    sent: machines * index,
    sending: (machines * index) / storeBytes,
    lookups: ((answering * 1000) / constants.lookup) * (2 / 3),
    connections: answering * constants.connections,
    transactions: answering * (constants.idleTransactions + constants.useTransactions),
    keyTransactions,
    heldTransactions: writes(Math.min(HELD_BY, answering)),
    keyShare: keyTransactions / constants.rowTransactions,
  };
}
