import { CALLS, type Call, FORMER_KEY_CALLS } from "@bibliotope/wire";
import type { Incoming } from "../http/incoming.ts";
import { mayAsk } from "../http/key-check.ts";
import { jsonReply } from "../http/reply.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";

/** What the key that asks may be used for. */
export const ownKeyHandlers = { key } satisfies Partial<Handlers>;

function key(incoming: Incoming<"key">): Reply {
  const { kind, countries, endsAt, perMinute, perDay } = incoming.key;
  const allowed = (Object.values(CALLS) as Call[]).filter((call) => !call.key.always && mayAsk(call, incoming.key));
  const kinds = [...new Set(allowed.map((call) => call.key.as))];
  // kits that are already packed into pages look for the former names
  const calls = kinds.flatMap((kind) => [kind, ...(kind in FORMER_KEY_CALLS ? [FORMER_KEY_CALLS[kind]] : [])]);
  const answer = { kind, calls, countries, endsAt: endsAt?.toISOString() ?? null, perMinute, perDay };
  return { ...jsonReply(incoming, answer, performance.now()), cache: "no-store" };
}
