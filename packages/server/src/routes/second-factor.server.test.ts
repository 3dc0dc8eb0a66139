import { secondFactorAnswer } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { Authenticator, codeAt } from "../../testing/authenticator.ts";
import { shared, signedIn } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";

const PASSWORD = "kettle orbit walnut seven";
type Send = (method: string, path: string, body: unknown) => Promise<Response>;
let manager: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  manager = await signedIn();
});

const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${shared().url}${path}`, {
    method: "POST",
    headers: { "content-type": "application/json", ...headers },
    body: JSON.stringify(body),
  });
const enter = (name: string, more: object = {}) => post("/sign-in", { name, password: PASSWORD, ...more });

/** Somebody new, signed in by their password. */
async function person(): Promise<{ name: string; id: number; send: Send; cookie: string }> {
  const name = `Factor ${Math.random().toString(36).slice(2)}`;
  const made = await manager.send("POST", "/api/people", { name, role: "look", password: PASSWORD });
  const { people } = (await made.json()) as { people: { name: string; id: number }[] };
  const cookie = (await enter(name)).headers.get("set-cookie")!.split(";")[0];
  const session = await fetch(`${shared().url}/api/session`, { headers: { cookie } });
  const { csrf } = (await session.json()) as { csrf: string };
  const send: Send = (method, path, body) =>
    fetch(`${shared().url}${path}`, {
      method,
      headers: { cookie, "content-type": "application/json", "x-csrf-token": csrf },
      ...(method === "GET" ? {} : { body: JSON.stringify(body) }),
    });
  return { name, id: people.find((one) => one.name === name)!.id, send, cookie };
}

const again = { before: PASSWORD };
const issueOf = async (response: Response) =>
  ((await response.json()) as { issues?: { parameter: string; message: string }[] }).issues?.[0];

describe("one-time codes", () => {
  /** Turns codes on. @returns the secret, and the time of the code that was used up by it */
  async function turnOn(send: Send): Promise<{ secret: string; usedAt: number }> {
    const begun = await send("POST", "/api/second-factor/codes", again);
    expect(begun.status).toBe(201);
    const { secret, uri, picture } = (await begun.json()) as { secret: string; uri: string; picture: string };
    expect(secret).toMatch(/^[A-Z2-7]{32}$/);
    expect(uri).toContain(`secret=${secret}`);
    expect(picture).toContain("<svg");
    const usedAt = Date.now();
    const code = codeAt(secret, usedAt);
    const confirmed = await send("PUT", "/api/second-factor/codes", { code: `${code.slice(0, 3)} ${code.slice(3)}` });
    expect(secondFactorAnswer.parse(await confirmed.json()).codesSince).not.toBeNull();
    return { secret, usedAt };
  }

  it("are those of RFC 6238", () => {
    // its appendix B, with the last six of the eight digits
    const secret = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ";
    for (const [seconds, code] of [
      [59, "287082"],
      [1_111_111_109, "081804"],
      [1_234_567_890, "005924"],
      [20_000_000_000, "353130"],
    ] as const)
      expect(codeAt(secret, seconds * 1000)).toBe(code);
  });

  it("are requested beside the password once one was confirmed, and none works twice", async () => {
    const { name, send } = await person();
    const { secret, usedAt } = await turnOn(send);
    const without = await enter(name);
    expect(without.status).toBe(401);
    expect(await issueOf(without)).toMatchObject({ parameter: "code", message: "is needed" });
    // the one that confirmed them is used up
    expect((await enter(name, { code: codeAt(secret, usedAt) })).status).toBe(401);
    const next = codeAt(secret, usedAt + 30_000);
    expect((await enter(name, { code: next })).status).toBe(204);
    const twice = await enter(name, { code: next });
    expect(await issueOf(twice)).toMatchObject({ parameter: "code", message: "is not valid" });
  });

  it("count as tries at the door when they are wrong", async () => {
    const { name, send } = await person();
    const { secret, usedAt } = await turnOn(send);
    const statuses = new Set<number>();
    for (let i = 0; i < 8; i++) statuses.add((await enter(name, { code: String(100_000 + i) })).status);
    expect([...statuses]).toEqual([401, 429]);
    expect((await enter(name, { code: codeAt(secret, usedAt + 30_000) })).status).toBe(429);
  });

  it("lie sealed in the database, and end other sessions when they begin", async () => {
    const { name, id, send } = await person();
    const elsewhere = (await enter(name)).headers.get("set-cookie")!.split(";")[0];
    const { secret } = await turnOn(send);
    expect((await fetch(`${shared().url}/api/session`, { headers: { cookie: elsewhere } })).status).toBe(401);
    expect((await send("GET", "/api/session", undefined)).status).toBe(200);
    const database = connect(shared().databaseUrl, 1);
    try {
      const [{ codes_secret }] = await database("users").where({ id });
      expect(codes_secret?.toString("latin1")).not.toContain(secret);
    } finally {
      await database.destroy();
    }
  });

  it("are begun and turned off by the password alone, and by somebody who manages", async () => {
    const { name, id, send } = await person();
    const wrong = await send("POST", "/api/second-factor/codes", { before: "another password" });
    expect(await issueOf(wrong)).toMatchObject({ parameter: "before" });
    expect((await send("POST", "/api/second-factor/codes", {})).status).toBe(400);
    await turnOn(send);
    expect((await send("POST", "/api/second-factor/codes", again)).status).toBe(409);
    expect((await send("POST", "/api/second-factor/codes/off", {})).status).toBe(400);
    expect((await send("POST", "/api/second-factor/codes/off", again)).status).toBe(200);
    expect((await enter(name)).status).toBe(204);
    await turnOn(send);
    const people = await manager.send("PUT", `/api/people/${id}`, { dropSecondFactor: true });
    const known = ((await people.json()) as { people: { id: number; hasSecondFactor: boolean }[] }).people;
    expect(known.find((one) => one.id === id)?.hasSecondFactor).toBe(false);
    expect((await enter(name)).status).toBe(204);
  });

  it("are not requested while none was confirmed", async () => {
    const { name, send } = await person();
    expect((await send("POST", "/api/second-factor/codes", again)).status).toBe(201);
    expect((await send("PUT", "/api/second-factor/codes", { code: "000000" })).status).toBe(400);
    expect((await send("PUT", "/api/second-factor/codes", { code: "12345" })).status).toBe(400);
    expect((await enter(name)).status).toBe(204);
  });
});

describe("passkeys", () => {
  const { origin } = new URL(shared().url);
  const request = async (response: Response) =>
    ((await response.json()) as { options: { challenge: string; rpId?: string; rp?: { id: string } } }).options;
  async function withPasskey() {
    const somebody = await person();
    const authenticator = new Authenticator(origin);
    const options = await request(await somebody.send("POST", "/api/passkeys/options", again));
    const kept = await somebody.send("POST", "/api/passkeys", { name: "A phone", made: authenticator.make(options) });
    return { ...somebody, authenticator, kept };
  }
  const askedAtTheDoor = async () => request(await post("/sign-in/passkey/options", {}));

  it("sign in by themselves", async () => {
    const { name, authenticator, kept, send } = await withPasskey();
    expect(secondFactorAnswer.parse(await kept.json()).passkeys).toMatchObject([{ name: "A phone", usedAt: null }]);
    const response = await post("/sign-in/passkey", { used: authenticator.use(await askedAtTheDoor()) });
    expect(response.status).toBe(204);
    const cookie = response.headers.get("set-cookie")!.split(";")[0];
    const session = await (await fetch(`${shared().url}/api/session`, { headers: { cookie } })).json();
    expect(session).toMatchObject({ name, role: "look" });
    const { passkeys } = secondFactorAnswer.parse(await (await send("GET", "/api/second-factor", undefined)).json());
    expect(passkeys[0].usedAt).not.toBeNull();
  });

  it("are refused for whatever does not fit", async () => {
    const { authenticator } = await withPasskey();
    const mine = await person();
    const forNew = await request(await mine.send("POST", "/api/passkeys/options", again));
    const use = (faults: object) => (challenge: string) => authenticator.use({ challenge }, faults);
    for (const wrong of [
      use({ origin: "https://elsewhere.example" }),
      use({ host: "elsewhere.example" }),
      use({ isUnverified: true }),
      // made up, cut, none, and one that was handed out for something else
      use({ challenge: Buffer.alloc(56, 7).toString("base64url") }),
      (challenge: string) => authenticator.use({ challenge: challenge.slice(0, -2) }),
      use({ challenge: "" }),
      use({ challenge: forNew.challenge }),
      (challenge: string) => new Authenticator(origin).use({ challenge }),
      (challenge: string) => ({ ...authenticator.use({ challenge }), id: "AAAA", rawId: "AAAA" }),
      (challenge: string) => ({ ...authenticator.use({ challenge }), response: { clientDataJSON: "AAAA" } }),
    ]) {
      const { challenge } = await askedAtTheDoor();
      expect((await post("/sign-in/passkey", { used: wrong(challenge) })).status).toBe(401);
    }
    const { challenge } = await askedAtTheDoor();
    expect((await post("/sign-in/passkey", { used: use({})(challenge) })).status).toBe(204);
  });

  it("answer each challenge once", async () => {
    const { authenticator } = await withPasskey();
    const options = await askedAtTheDoor();
    const used = authenticator.use(options);
    expect((await post("/sign-in/passkey", { used })).status).toBe(204);
    expect((await post("/sign-in/passkey", { used })).status).toBe(401);
    expect((await post("/sign-in/passkey", { used: authenticator.use(options) })).status).toBe(401);
  });

  it("belong to whoever was asked for them, once, by their password", async () => {
    const one = await person();
    const other = await withPasskey();
    expect((await one.send("POST", "/api/passkeys/options", {})).status).toBe(400);
    const options = await request(await one.send("POST", "/api/passkeys/options", again));
    const stolen = await other.send("POST", "/api/passkeys", {
      name: "Mine",
      made: new Authenticator(origin).make(options),
    });
    expect(stolen.status).toBe(400);
    // held already, by another person
    const known = await one.send("POST", "/api/passkeys", { name: "Mine", made: other.authenticator.make(options) });
    expect(known.status).toBe(400);
    const { passkeys } = secondFactorAnswer.parse(
      await (await other.send("GET", "/api/second-factor", undefined)).json(),
    );
    expect((await one.send("POST", `/api/passkeys/${passkeys[0].id}/off`, again)).status).toBe(404);
    expect((await other.send("POST", `/api/passkeys/${passkeys[0].id}/off`, again)).status).toBe(200);
    const used = other.authenticator.use(await askedAtTheDoor());
    expect((await post("/sign-in/passkey", { used })).status).toBe(401);
  });

  it("are refused from other sites, and for what is none", async () => {
    const elsewhere = { "sec-fetch-site": "cross-site" };
    expect((await post("/sign-in/passkey", { used: {} }, elsewhere)).status).toBe(403);
    expect((await post("/sign-in/passkey/options", {}, elsewhere)).status).toBe(403);
    for (const used of [null, 7, {}, { id: "a b", rawId: "", type: "public-key", response: {} }])
      expect((await post("/sign-in/passkey", { used })).status).toBe(400);
  });
});

describe("passwords", () => {
  it("are refused when everybody tries them first, with something around them, or when they are the name", async () => {
    const name = "Wendeline Oakhurst";
    for (const password of [
      "1q2w3e4r5t",
      "Password123",
      "!!football2024!!",
      "BASKETBALL",
      "wendeline oakhurst",
      "Wendelineoakhurst1",
      "aaaaaaaaaaaa",
      "ababababab",
    ]) {
      const refused = await manager.send("POST", "/api/people", { name, role: "look", password });
      expect(refused.status, password).toBe(400);
      expect(await issueOf(refused), password).toMatchObject({ parameter: "password" });
    }
    const { send, id } = await person();
    const own = await send("PUT", "/api/password", { ...again, password: "iloveyou123" });
    expect(await issueOf(own)).toMatchObject({ parameter: "password" });
    expect((await manager.send("PUT", `/api/people/${id}`, { password: "iloveyou123" })).status).toBe(400);
    expect((await send("PUT", "/api/password", { ...again, password: "harbour lamp forty pebbles" })).status).toBe(204);
  });
});
