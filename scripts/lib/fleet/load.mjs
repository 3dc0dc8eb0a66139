import { Agent, request } from "node:https";

// Asks a fleet from a host of its own: lookups at a steady rate and things to save, whatever becomes of them. Told what to do by
// messages; says what came.

const [base, key] = process.argv.slice(2);
/** Milliseconds between two lookups, between two things to save, and that an answer may take. */
const [LOOKUP_EVERY, SAVE_EVERY, WITHIN] = [10, 50, 15_000];
const LOOKUPS = [
  "/v1/suggest?q=12+harb",
  "/v1/suggest?q=osterg",
  "/v1/suggest?q=tidew",
  "/v1/forward?q=12+Harbour+Row+Tidewell",
  "/v1/reverse?at=-35.83,-21.83",
  "/v1/records/qr-hgwrp5",
];
const agent = new Agent({ keepAlive: true, maxSockets: 256, rejectUnauthorized: false });

function ask(path, { method = "GET", headers = {}, body } = {}) {
  const began = performance.now();
  return new Promise((resolve, reject) => {
    const sent = request(`${base}${path}`, { method, agent, headers }, (response) => {
      let text = "";
      response.setEncoding("utf8");
      response.on("data", (piece) => (text += piece));
      response.on("end", () =>
        resolve({ status: response.statusCode, headers: response.headers, text, took: performance.now() - began }),
      );
      response.on("error", reject);
    });
    sent.setTimeout(WITHIN, () => sent.destroy(new Error("no answer in time")));
    sent.on("error", reject);
    sent.end(body);
  });
}

const withKey = (own = key) => ({ authorization: `Bearer ${own}` });

/** What came of one kind of request since it was begun. */
class Tally {
  sent = 0;
  answered = 0;
  lost = [];
  slowest = 0;
  longestGap = 0;
  #last = performance.now();

  async take(asked, isGood) {
    this.sent++;
    try {
      const { status, took, text } = await asked;
      if (!isGood(status)) throw new Error(`${status} ${text.slice(0, 120)}`);
      this.answered++;
      this.slowest = Math.max(this.slowest, took);
      this.longestGap = Math.max(this.longestGap, performance.now() - this.#last);
      this.#last = performance.now();
      return true;
    } catch (error) {
      this.lost.push(error.message);
      return false;
    }
  }

  get told() {
    const { sent, answered, lost, slowest, longestGap } = this;
    return { sent, answered, lost: lost.length, why: [...new Set(lost)].slice(0, 3), slowest, longestGap };
  }
}

let running;

/** @param limited a key that may ask for so many lookups a minute */
function begin({ name, limited }) {
  const [lookups, saves] = [new Tally(), new Tally()];
  const acknowledged = [];
  const waiting = new Set();
  let [number, granted, refused] = [0, 0, 0];
  const follow = (promise) => {
    waiting.add(promise);
    promise.finally(() => waiting.delete(promise));
  };
  const asking = setInterval(() => {
    const path = LOOKUPS[lookups.sent % LOOKUPS.length];
    follow(lookups.take(ask(path, { headers: withKey() }), (status) => status === 200));
  }, LOOKUP_EVERY);
  const limiting = setInterval(() => {
    if (!limited) return;
    follow(
      ask("/v1/suggest?q=harb", { headers: withKey(limited) }).then(
        ({ status }) => {
          if (status === 200) granted++;
          else if (status === 429) refused++;
        },
        () => undefined,
      ),
    );
  }, SAVE_EVERY);
  const saving = setInterval(() => {
    const text = `${name} ${++number}`;
    const headers = { ...withKey(), "content-type": "application/json" };
    const body = JSON.stringify({ ref: "qr-hgwrp5", text });
    const saved = ask("/v1/reports", { method: "POST", headers, body });
    follow(
      saves
        .take(saved, (status) => status === 202)
        .then((isSaved) => {
          if (isSaved) acknowledged.push(text);
        }),
    );
  }, SAVE_EVERY);
  running = {
    end: async () => {
      for (const timer of [asking, limiting, saving]) clearInterval(timer);
      await Promise.all(waiting);
      return { lookups: lookups.told, saves: saves.told, acknowledged, granted, refused };
    },
  };
}

let session;

/** Signs in, as a browser does. */
async function enter({ signIn }) {
  const { headers } = await ask(new URL(signIn).pathname + new URL(signIn).search);
  const cookie = (headers["set-cookie"] ?? []).map((one) => one.split(";", 1)[0]).join("; ");
  const { csrf } = JSON.parse((await ask("/api/session", { headers: { cookie } })).text);
  session = { cookie, "x-csrf-token": csrf };
}

async function own({ method, path, body }) {
  const isText = typeof body === "string";
  const type = isText ? "application/octet-stream" : "application/json";
  const headers = { ...session, ...(body === undefined ? {} : { "content-type": type }) };
  const { status, text } = await ask(`/api${path}`, {
    method,
    headers,
    body: isText || body === undefined ? body : JSON.stringify(body),
  });
  if (status >= 300) throw new Error(`${method} ${path}: ${status} ${text.slice(0, 300)}`);
  return text ? JSON.parse(text) : null;
}

const does = { begin, enter, own, end: () => running.end(), ask: ({ path }) => ask(path, { headers: withKey() }) };
process.on("message", async ({ id, call, options }) => {
  try {
    process.send({ id, result: await does[call](options) });
  } catch (error) {
    process.send({ id, failed: error.message });
  }
});
