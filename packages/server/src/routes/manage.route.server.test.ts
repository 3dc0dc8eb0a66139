import { countriesAnswer, formDraft, formList, formVersions, publishedForm, tileAnswer } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { ask, json, shared, signedIn } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";
import { firstUser, makeSignInToken } from "../users/users.repository.ts";

const NEW = { title: "A test form", fields: [{ name: "town", kind: "text", label: "Town", binding: "{town}" }] };

describe("signing in", () => {
  it("is needed for everything under /api", async () => {
    for (const path of [
      "/api/session",
      "/api/forms",
      "/api/forms/become-a-reader",
      "/api/keys",
      "/api/lookups",
      "/api/nothing",
    ]) {
      const { status, body } = await json(path, { key: null });
      expect(status, path).toBe(401);
      expect(body.type).toBe("/problems/not-signed-in");
    }
    expect((await ask("/api/forms", { key: shared().keys.srv })).status).toBe(401);
  });

  it("works once for each link", async () => {
    const database = connect(shared().databaseUrl, 1);
    const link = `${shared().url}/sign-in?token=${await makeSignInToken(database, await firstUser(database))}`;
    await database.destroy();
    const first = await fetch(link, { redirect: "manual" });
    expect(first.status).toBe(303);
    const cookie = first.headers.get("set-cookie")!;
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Strict/i);
    const again = await fetch(link, { redirect: "manual" });
    expect(again.headers.get("location")).toBe("/?link=used");
    expect(again.headers.get("set-cookie")).toBeNull();
    expect((await fetch(`${shared().url}/sign-in?token=wrong`, { redirect: "manual" })).headers.get("location")).toBe(
      "/?link=used",
    );
  });

  it("ends with the session", async () => {
    const browser = await signedIn();
    expect((await browser.get("/api/session")).status).toBe(200);
    expect((await browser.send("DELETE", "/api/session", {})).status).toBe(204);
    expect((await browser.get("/api/session")).status).toBe(401);
  });
});

describe("changes", () => {
  it("need the session's CSRF token, and must not come from another site", async () => {
    const browser = await signedIn();
    expect((await browser.send("POST", "/api/forms", { definition: NEW }, { "x-csrf-token": "wrong" })).status).toBe(
      403,
    );
    expect(
      (await browser.send("POST", "/api/forms", { definition: NEW }, { "sec-fetch-site": "cross-site" })).status,
    ).toBe(403);
  });

  it("cannot be sent as a plain form", async () => {
    const browser = await signedIn();
    expect(
      (await browser.send("POST", "/api/forms", { definition: NEW }, { "content-type": "text/plain" })).status,
    ).toBe(415);
  });
});

describe("forms", () => {
  it("are made, listed, changed, and published", async () => {
    const browser = await signedIn();
    const made = formDraft.parse(await (await browser.send("POST", "/api/forms", { definition: NEW })).json());
    expect(made).toMatchObject({ revision: 1, publishedVersion: null, changed: true });
    expect((await ask(`/v1/forms/${made.ref}`)).status).toBe(404);

    const changed = { ...NEW, title: "A better form" };
    const saved = formDraft.parse(
      await (await browser.send("PUT", `/api/forms/${made.ref}/draft`, { revision: 1, definition: changed })).json(),
    );
    expect(saved.revision).toBe(2);
    const { forms } = formList.parse(await (await browser.get("/api/forms")).json());
    expect(forms.find(({ ref }) => ref === made.ref)).toMatchObject({ title: "A better form", fields: 1 });

    const live = formDraft.parse(
      await (await browser.send("POST", `/api/forms/${made.ref}/publish`, { revision: 2 })).json(),
    );
    expect(live).toMatchObject({ publishedVersion: 1, changed: false });
    const { body } = await json(`/v1/forms/${made.ref}`);
    expect(publishedForm.parse(body).definition).toEqual(changed);

    await browser.send("PUT", `/api/forms/${made.ref}/draft`, { revision: 2, definition: NEW });
    expect((await json(`/v1/forms/${made.ref}`)).body.definition.title).toBe("A better form");
  });

  it("keep every version that was published, the newest first", async () => {
    const browser = await signedIn();
    const { ref } = formDraft.parse(await (await browser.send("POST", "/api/forms", { definition: NEW })).json());
    const versions = async () =>
      formVersions.parse(await (await browser.get(`/api/forms/${ref}/versions`)).json()).versions;
    expect(await versions()).toEqual([]);
    await browser.send("POST", `/api/forms/${ref}/publish`, { revision: 1 });
    const rules = { ...NEW, addresses: [{ name: "", start: { on: "never" }, takeFrom: 0.9 }] };
    await browser.send("PUT", `/api/forms/${ref}/draft`, { revision: 1, definition: rules });
    // who still looks at the first draft does not publish the one that came after it
    const late = await browser.send("POST", `/api/forms/${ref}/publish`, { revision: 1 });
    expect([late.status, (await late.json()).detail]).toEqual([
      409,
      expect.stringContaining("saved elsewhere in the meantime"),
    ]);
    expect(await versions()).toHaveLength(1);
    await browser.send("POST", `/api/forms/${ref}/publish`, { revision: 2 });
    const [second, first] = await versions();
    expect(second).toMatchObject({ number: 2, revision: 2, definition: rules });
    expect(first).toMatchObject({ number: 1, revision: 1, definition: NEW });
    expect((await browser.get("/api/forms/none/versions")).status).toBe(404);
  });

  it("have a definition whose JSON Schema can be read", async () => {
    const browser = await signedIn();
    const response = await browser.get("/api/forms/schema.json");
    expect(response.headers.get("content-type")).toContain("application/schema+json");
    expect((await response.json()) as object).toMatchObject({ $ref: "#/$defs/FormDefinition" });
    const rule = { ...NEW, addresses: [{ name: "", start: { on: "leaving", field: "nobody" } }] };
    const refused = await browser.send("POST", "/api/forms", { definition: rule });
    expect(refused.status).toBe(400);
    expect(((await refused.json()) as { detail: string }).detail).toContain("“nobody”, which is not a field");
  });

  it("are not overwritten by a change that was made from an older draft", async () => {
    const browser = await signedIn();
    const { ref } = formDraft.parse(await (await browser.send("POST", "/api/forms", { definition: NEW })).json());
    const save = (title: string) =>
      browser.send("PUT", `/api/forms/${ref}/draft`, { revision: 1, definition: { ...NEW, title } });
    const both = await Promise.all([save("one"), save("two")]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const conflict = (await both.find(({ status }) => status === 409)!.json()) as { detail: string };
    expect(conflict.detail).toContain("revision 2");
  });

  it("are refused with what is wrong in them", async () => {
    const browser = await signedIn();
    const { ref } = formDraft.parse(await (await browser.send("POST", "/api/forms", { definition: NEW })).json());
    const wrong = { ...NEW, fields: [{ ...NEW.fields[0], binding: "{town" }] };
    const response = await browser.send("PUT", `/api/forms/${ref}/draft`, { revision: 1, definition: wrong });
    expect(response.status).toBe(400);
    expect((await response.json()) as object).toMatchObject({
      issues: [{ parameter: "town", message: expect.stringContaining("column 1") }],
    });
    expect(
      (await browser.send("PUT", `/api/forms/${ref}/draft`, { revision: 1, definition: { title: "x" } })).status,
    ).toBe(400);
    expect((await browser.send("PUT", "/api/forms/none/draft", { revision: 1, definition: NEW })).status).toBe(404);
    expect((await browser.send("POST", "/api/forms/none/publish", { revision: 1 })).status).toBe(404);
    expect((await browser.get("/api/forms/none")).status).toBe(404);
  });
});

describe("countries", () => {
  it("are listed with their profiles", async () => {
    const { body } = await json("/v1/countries");
    expect(
      countriesAnswer
        .parse(body)
        .countries.map(({ code }) => code)
        .sort(),
    ).toEqual(["QR", "QV", "QY"]);
    const { body: one } = await json("/v1/countries/qy");
    expect(one).toMatchObject({ code: "QY", name: "Θαλμύρα" });
    // every example can be looked up
    for (const { code, postcode } of countriesAnswer.parse(body).countries)
      for (const example of postcode?.examples ?? []) {
        const { body: found } = await json(`/v1/postcodes/${code}?starts=${encodeURIComponent(example)}`);
        expect(found).toMatchObject({
          outcome: "matched",
          features: [{ properties: { parts: { postcode: { name: example } } } }],
        });
      }
  });
});

describe("pages", () => {
  it("stand behind a strict policy: no inline script, a new nonce each time", async () => {
    const [one, two] = await Promise.all([
      ask("/", { key: null }),
      ask("/forms/become-a-reader/compose", { key: null }),
    ]);
    const policy = one.headers.get("content-security-policy")!;
    expect(policy).toContain("script-src 'self';");
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toMatch(/unsafe|\*/);
    expect(two.headers.get("content-security-policy")).not.toBe(policy);
    const nonce = /nonce-([^']+)/.exec(policy)![1];
    expect(await one.text()).toContain(`content="${nonce}"`);
  });

  it("of a form carry a web key and no other", async () => {
    const page = await (await ask("/f/become-a-reader", { key: null })).text();
    const { keys } = shared();
    expect(page).toContain(`data-key="${keys.web}"`);
    for (const secret of [keys.srv, keys.app, keys.try]) expect(page).not.toContain(secret);
    expect((await ask("/f/nothing", { key: null })).status).toBe(404);
  });

  it("write a form's title as text", async () => {
    const browser = await signedIn();
    const { ref } = formDraft.parse(
      await (
        await browser.send("POST", "/api/forms", { definition: { ...NEW, title: `<script>alert("x")</script>` } })
      ).json(),
    );
    await browser.send("POST", `/api/forms/${ref}/publish`, { revision: 1 });
    const page = await (await ask(`/f/${ref}`, { key: null })).text();
    expect(page).toContain("&lt;script&gt;alert(&quot;x&quot;)&lt;/script&gt;");
    expect(page).not.toContain("<script>alert");
  });

  it("that are not there are a page for a person, and JSON for a program", async () => {
    const person = await ask("/f/<b>nothing", { key: null, headers: { accept: "text/html,application/xhtml+xml" } });
    expect(person.status).toBe(404);
    expect(person.headers.get("content-type")).toContain("text/html");
    expect(await person.text()).toContain("No form with this ref is published.");
    const program = await ask("/v1/nothing", { headers: { accept: "text/html" } });
    expect(program.headers.get("content-type")).toContain("application/problem+json");
  });

  it("of errors are never stored", async () => {
    expect((await ask("/nowhere", { key: null })).headers.get("cache-control")).toBe("no-store");
  });
});

describe("the service itself", () => {
  it("says that it lives and that it is ready", async () => {
    expect((await json("/healthz", { key: null })).body).toEqual({ status: "ok" });
    expect((await json("/readyz", { key: null })).body).toMatchObject({
      status: "ok",
      segment: expect.stringMatching(/^[0-9a-f]{24}$/),
    });
  });

  it("serves its OpenAPI document to everybody", async () => {
    const { status, body } = await json("/v1/openapi.json", { key: null });
    expect(status).toBe(200);
    expect(Object.keys(body.paths)).toContain("/v1/suggest");
  });

  it("serves map features by tile, cached by ETag", async () => {
    const first = await ask("/v1/tiles/features/8/112/154");
    expect(first.headers.get("content-type")).toContain("application/geo+json");
    const { features } = tileAnswer.parse(await first.json());
    expect(features.length).toBeGreaterThan(0);
    const again = await ask("/v1/tiles/features/8/112/154", {
      headers: { "if-none-match": first.headers.get("etag")!, "cache-control": "" },
    });
    expect(again.status).toBe(304);
  });
});

describe("earlier lookups", () => {
  it("are kept for their user, the same one once, and forgotten on request", async () => {
    const { send, get } = await signedIn();
    const keep = (query: string, found = 1) => send("POST", "/api/lookups", { query, outcome: "matched", found });
    const list = async () => (await get("/api/lookups")).json();
    await send("PUT", "/api/lookups/keeping", { keeps: true });
    await send("DELETE", "/api/lookups", {});
    expect((await keep("forward?q=one")).status).toBe(204);
    expect((await keep("forward?q=two")).status).toBe(204);
    expect((await keep("forward?q=one", 3)).status).toBe(204);
    expect(await list()).toMatchObject({
      keeps: true,
      days: 30,
      lookups: [
        { query: "forward?q=one", found: 3 },
        { query: "forward?q=two", found: 1 },
      ],
    });
    for (const wrong of ["forms/x?q=1", "forward", "javascript:alert(1)", "records/a/b?x"])
      expect((await keep(wrong)).status).toBe(400);
    await send("PUT", "/api/lookups/keeping", { keeps: false });
    await keep("forward?q=three");
    expect(await list()).toMatchObject({ keeps: false, lookups: [] });
    await send("PUT", "/api/lookups/keeping", { keeps: true });
  });
});
