import { readFileSync } from "node:fs";
import { join } from "node:path";
import { OWN_CALLS, type OwnCall, type PersonSummary, peopleList, type Role } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { shared, sharedHome, signedIn } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";
import { noteRight, noteTry } from "../users/guesses.ts";
import { nameKey } from "../users/name-key.ts";

type Browser = Omit<Awaited<ReturnType<typeof signedIn>>, "handIn">;
let manager: Browser;
beforeAll(async () => {
  manager = await signedIn();
});

const PASSWORD = "correct horse battery";
const people = async (browser = manager): Promise<PersonSummary[]> =>
  peopleList.parse(await (await browser.get("/api/people")).json()).people;

/** Makes somebody with a name that nobody else has. */
async function make(role: Role): Promise<{ name: string; id: number }> {
  const name = `Tester ${Math.random().toString(36).slice(2)}`;
  const response = await manager.send("POST", "/api/people", { name, role, password: PASSWORD });
  expect(response.status).toBe(201);
  return { name, id: (await people()).find((one) => one.name === name)!.id };
}

const enter = (name: string, password: string, headers: Record<string, string> = {}) =>
  fetch(`${shared().url}/sign-in`, {
    method: "POST",
    headers: { "content-type": "application/json", ...headers },
    body: JSON.stringify({ name, password }),
  });

/** Signs in by password. */
async function browserOf(name: string, password = PASSWORD): Promise<Browser> {
  const response = await enter(name, password);
  expect(response.status).toBe(204);
  const cookie = response.headers.get("set-cookie")!.split(";")[0];
  return withCookie(cookie);
}

async function withCookie(cookie: string): Promise<Browser> {
  const get = (path: string) => fetch(`${shared().url}${path}`, { headers: { cookie } });
  const { csrf } = (await (await get("/api/session")).json()) as { csrf: string };
  const send = (method: string, path: string, body: unknown, headers: Record<string, string> = {}) =>
    fetch(`${shared().url}${path}`, {
      method,
      headers: { cookie, "content-type": "application/json", "x-csrf-token": csrf, ...headers },
      body: JSON.stringify(body),
    });
  return { cookie, csrf, get, send };
}

describe("signing in by password", () => {
  it("gives a session with the role, in a cookie that no script reads", async () => {
    const { name } = await make("edit");
    const response = await enter(name.toUpperCase(), PASSWORD);
    expect(response.headers.get("set-cookie")).toMatch(/HttpOnly; SameSite=Strict/i);
    const session = await (await (await browserOf(name)).get("/api/session")).json();
    expect(session).toMatchObject({ name, role: "edit", hasPassword: true });
    expect(JSON.stringify(session)).not.toMatch(/argon|password_hash/);
  });

  it("keeps of the password an argon2id hash alone", async () => {
    const { id } = await make("look");
    const database = connect(shared().databaseUrl, 1);
    const [{ password_hash }] = await database("users").where({ id });
    await database.destroy();
    expect(password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  it("is refused alike for a wrong password and for a name that nobody has", async () => {
    const { name } = await make("look");
    const answers = await Promise.all([enter(name, "wrong password"), enter("Nobody at all", PASSWORD)]);
    expect(answers.map(({ status }) => status)).toEqual([401, 401]);
    const [one, other] = await Promise.all(answers.map((answer) => answer.json()));
    expect(one).toEqual(other);
    expect(answers[0].headers.get("set-cookie")).toBeNull();
  });

  it("is slowed down after some wrong passwords, for that name", async () => {
    const { name } = await make("look");
    const statuses = [];
    for (let i = 0; i < 6; i++) statuses.push((await enter(name, `wrong password ${i}`)).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
    const slowed = await enter(name, PASSWORD);
    expect(slowed.status).toBe(429);
    expect(Number(slowed.headers.get("retry-after"))).toBeGreaterThan(200);
    expect((await enter((await make("look")).name, PASSWORD)).status).toBe(204);
  });

  it("is slowed down for many names from one address, whichever they are", async () => {
    const database = connect(shared().databaseUrl, 1);
    try {
      // as another address: those of the other tests go on
      const tries = Array.from({ length: 60 }, (_, i) => ({ name_key: `guessed ${i}`, address: "198.51.100.7" }));
      await database("sign_in_tries").insert(tries);
      const { name } = await make("look");
      expect((await noteTry(database, name, "198.51.100.7")).isTooMany).toBe(true);
      expect((await noteTry(database, name, "198.51.100.8")).isTooMany).toBe(false);
    } finally {
      await database.destroy();
    }
  });

  it("is guessed from everywhere without keeping out whoever came in from their own address before", async () => {
    const { name, id } = await make("look");
    const database = connect(shared().databaseUrl, 1);
    try {
      const key = nameKey(name);
      await noteRight(database, id, key, "203.0.113.5");
      await database("sign_in_tries").insert(
        Array.from({ length: 60 }, (_, i) => ({ name_key: key, address: `198.51.100.${i}` })),
      );
      expect((await noteTry(database, key, "192.0.2.9")).isTooMany).toBe(true);
      expect((await noteTry(database, key, "203.0.113.5")).isTooMany).toBe(false);
      // what is older counts no more
      await database("sign_in_tries")
        .where({ name_key: key })
        .update({ at: new Date(Date.now() - 16 * 60_000) });
      expect((await noteTry(database, key, "192.0.2.9")).isTooMany).toBe(false);
    } finally {
      await database.destroy();
    }
  });

  it("counts tries that come at once as well as one after another, and no capital is a way around", async () => {
    const { name } = await make("look");
    const ways = [name, name.toUpperCase(), ` ${name}  `, name.replace("T", "\uff34")];
    const answers = await Promise.all(Array.from({ length: 12 }, (_, i) => enter(ways[i % 4], `wrong ${i}`)));
    const statuses = answers.map(({ status }) => status).sort();
    expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(5);
    expect(new Set(statuses)).toEqual(new Set([401, 429]));
  });

  it("is refused from other sites, and for what is no sign-in", async () => {
    const { name } = await make("look");
    expect((await enter(name, PASSWORD, { "sec-fetch-site": "cross-site" })).status).toBe(403);
    const wrong = await fetch(`${shared().url}/sign-in`, {
      method: "POST",
      headers: { "content-type": "application/x-www-form-urlencoded" },
      body: `name=${name}&password=${PASSWORD}`,
    });
    expect(wrong.status).toBe(415);
  });
});

describe("roles", () => {
  const FORM = { definition: { title: "By role", fields: [{ name: "a", kind: "text", label: "A" }] } };

  it("are a matrix: who may read, make forms, make keys, let people in", async () => {
    const tried: Record<string, number[]> = {};
    for (const role of ["look", "edit", "manage"] as const) {
      const browser = await browserOf((await make(role)).name);
      const key = { kind: "srv", name: `Of ${role}` };
      const requests = [
        await browser.get("/api/forms"),
        await browser.get("/api/keys"),
        await browser.get("/api/uses?days=1"),
        await browser.send("POST", "/api/lookups", { query: "suggest?q=12", outcome: "matched", found: 1 }),
        await browser.send("POST", "/api/forms", FORM),
        await browser.send("PUT", "/api/forms/become-a-reader/draft", { revision: 0, ...FORM }),
        await browser.send("POST", "/api/keys", key),
        await browser.get("/api/people"),
        await browser.send("POST", "/api/people", {
          name: `By ${role} ${Date.now()}`,
          role: "look",
          password: PASSWORD,
        }),
      ];
      tried[role] = requests.map(({ status }) => status);
    }
    expect(tried).toEqual({
      look: [200, 200, 200, 204, 403, 403, 403, 403, 403],
      edit: [200, 200, 200, 204, 201, 409, 403, 403, 403],
      manage: [200, 200, 200, 204, 201, 409, 201, 200, 201],
    });
  });

  it("stand in front of every call of the workbench, whatever is requested", async () => {
    for (const [role, above] of [
      ["look", ["edit", "manage"]],
      ["edit", ["manage"]],
    ] as const) {
      const browser = await browserOf((await make(role)).name);
      for (const [name, { method, path, role: needed }] of Object.entries(OWN_CALLS) as [string, OwnCall][]) {
        if (!needed || !(above as readonly Role[]).includes(needed)) continue;
        const at = `/api${path.replace(/\{\w+\}/g, "1")}`;
        const { status } = await (method === "GET" ? browser.get(at) : browser.send(method, at, {}));
        expect(status, `${name} by one who may ${role}`).toBe(403);
      }
    }
  });

  it("let everybody look at all but who the others are", async () => {
    const browser = await browserOf((await make("look")).name);
    for (const path of ["/api/data", "/api/jobs", "/api/batches", "/api/corrections", "/api/forms"])
      expect((await browser.get(path)).status, path).toBe(200);
    expect((await browser.get("/api/people")).status).toBe(403);
  });

  it("change at once, and are named in the refusal", async () => {
    const { name, id } = await make("edit");
    const browser = await browserOf(name);
    expect((await browser.send("POST", "/api/forms", FORM)).status).toBe(201);
    expect((await manager.send("PUT", `/api/people/${id}`, { role: "look" })).status).toBe(200);
    const refused = await browser.send("POST", "/api/forms", FORM);
    expect(refused.status).toBe(403);
    expect(((await refused.json()) as { detail: string }).detail).toContain(`${name} may only view and look up here`);
  });
});

describe("people", () => {
  it("cannot have a name twice, a short password, or a role that is not there", async () => {
    const { name } = await make("look");
    const ask = async (person: object) => (await manager.send("POST", "/api/people", person)).status;
    expect(await ask({ name: name.toLowerCase(), role: "look", password: PASSWORD })).toBe(409);
    expect(await ask({ name: "Short", role: "look", password: "short" })).toBe(400);
    expect(await ask({ name: "Odd", role: "owner", password: PASSWORD })).toBe(400);
  });

  it("are taken out with their sessions; nobody takes themselves out", async () => {
    const { name, id } = await make("manage");
    const browser = await browserOf(name);
    expect((await browser.send("DELETE", `/api/people/${id}`, {})).status).toBe(409);
    expect((await manager.send("DELETE", `/api/people/${id}`, {})).status).toBe(204);
    expect((await browser.get("/api/session")).status).toBe(401);
    expect((await manager.send("DELETE", `/api/people/${id}`, {})).status).toBe(404);
    expect((await enter(name, PASSWORD)).status).toBe(401);
  });

  it("change their own password, which ends their other sessions", async () => {
    const { name } = await make("look");
    const [here, there] = [await browserOf(name), await browserOf(name)];
    const change = (before: string) => here.send("PUT", "/api/password", { before, password: "another long one" });
    expect((await change("wrong password")).status).toBe(400);
    expect((await there.get("/api/session")).status).toBe(200);
    expect((await change(PASSWORD)).status).toBe(204);
    expect((await here.get("/api/session")).status).toBe(200);
    expect((await there.get("/api/session")).status).toBe(401);
    expect((await enter(name, PASSWORD)).status).toBe(401);
    expect((await enter(name, "another long one")).status).toBe(204);
  });

  it("keep their session while its secret is made anew", async () => {
    const { name, id } = await make("look");
    const browser = await browserOf(name);
    const database = connect(shared().databaseUrl, 1);
    const age = (interval: string) =>
      database("sessions")
        .where({ user_id: id })
        .update({ rotated_at: database.raw("now() - ?::interval", [interval]) });
    await age("25 hours");
    const rotated = await browser.get("/api/session");
    const cookie = rotated.headers.get("set-cookie")!.split(";")[0];
    expect(cookie).not.toBe(browser.cookie);
    // what was under way with the secret before goes through, with the same token
    expect((await browser.send("DELETE", "/api/lookups", {})).status).toBe(204);
    expect((await withCookie(cookie)).csrf).toBe(browser.csrf);
    await age("2 minutes");
    expect((await browser.get("/api/session")).status).toBe(401);
    expect((await (await withCookie(cookie)).get("/api/session")).status).toBe(200);
    await database.destroy();
  });
});

describe("sessions", () => {
  it("are listed for the person alone, and all others end at once where that is wanted", async () => {
    const { name } = await make("look");
    const [one, two] = [await browserOf(name), await browserOf(name)];
    const of = async (browser: Browser) => (await (await browser.get("/api/sessions")).json()).sessions;
    expect((await of(one)).map(({ isThis }: { isThis: boolean }) => isThis).sort()).toEqual([false, true]);
    expect(JSON.stringify(await of(one))).not.toMatch(/hash|family|secret/);
    expect((await of(await browserOf((await make("look")).name))).length).toBe(1);
    expect((await one.send("DELETE", "/api/sessions/others", {})).status).toBe(204);
    expect((await two.get("/api/session")).status).toBe(401);
    expect(await of(one)).toHaveLength(1);
  });

  it("end when they lie idle for a fortnight, and go on when they are used", async () => {
    const { name, id } = await make("look");
    const browser = await browserOf(name);
    const database = connect(shared().databaseUrl, 1);
    const seen = (days: number) =>
      database("sessions")
        .where({ user_id: id })
        .update({ seen_at: new Date(Date.now() - days * 86_400_000) });
    try {
      await seen(13);
      expect((await browser.get("/api/session")).status).toBe(200);
      const [{ seen_at }] = await database("sessions").where({ user_id: id });
      expect(Date.now() - seen_at.getTime()).toBeLessThan(60_000);
      await seen(15);
      expect((await browser.get("/api/session")).status).toBe(401);
    } finally {
      await database.destroy();
    }
  });
});

describe("the log of what concerns security", () => {
  it("has who did what, from where, and how it ended; never a password or a key", async () => {
    const { name, id } = await make("look");
    await enter(name, "a wrong password");
    const browser = await browserOf(name);
    await browser.send("POST", "/api/keys", { kind: "srv", name: "Not mine to make" });
    const made = await (await manager.send("POST", "/api/keys", { kind: "srv", name: "For the log" })).json();
    await manager.send("DELETE", `/api/keys/${made.id}`, {});
    await manager.send("DELETE", `/api/people/${id}`, {});
    const file = join(sharedHome(), "log", "security.log");
    const lines = () =>
      readFileSync(file, "utf8")
        .trim()
        .split("\n")
        .map((line) => JSON.parse(line));
    const of = (event: string, ended: string) =>
      lines().filter((one) => one.msg === event && one.ended === ended && one.address);
    await expect.poll(() => of("person taken out", "done").some(({ about }) => about.id === String(id))).toBe(true);
    expect(of("signed in by password", "wrong").map((one) => one.name)).toContain(name);
    expect(of("signed in by password", "done").map((one) => one.name)).toContain(name);
    expect(of("key made", "not-allowed").map((one) => one.name)).toContain(name);
    expect(of("key made", "done").length).toBeGreaterThan(0);
    expect(of("key withdrawn", "done").map(({ about }) => about.id)).toContain(String(made.id));
    const whole = readFileSync(file, "utf8");
    for (const secret of [PASSWORD, "a wrong password", made.key, browser.cookie, browser.csrf])
      expect(whole).not.toContain(secret);
  });
});
