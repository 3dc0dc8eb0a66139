import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { FAULTS, startStandIns } from "./index.ts";

let standIns: Awaited<ReturnType<typeof startStandIns>>;
beforeAll(async () => {
  standIns = await startStandIns();
});
afterAll(() => standIns.stop());

const confirm = (body: string) =>
  fetch(`${standIns.urls.register}/register`, {
    method: "POST",
    headers: { "content-type": "application/soap+xml" },
    body: `<env:Envelope xmlns:env="http://www.w3.org/2003/05/soap-envelope"><env:Body>${body}</env:Body></env:Envelope>`,
  });

describe("the stand-ins", () => {
  it("each say on a page what they are, and what can go wrong with them", async () => {
    for (const url of Object.values(standIns.urls)) {
      const page = await (await fetch(url)).text();
      expect(page).toContain("It is a stand-in");
      for (const fault of Object.keys(FAULTS)) expect(page).toContain(`fault=${fault}`);
    }
  });

  it("collect books, by GET and POST", async () => {
    const { courier } = standIns.urls;
    expect(await (await fetch(`${courier}/days?town=Tidewell`)).json()).toMatchObject({
      town: "Tidewell",
      days: ["Monday", "Tuesday", "Thursday", "Saturday"],
    });
    expect((await fetch(`${courier}/days?town=12`)).status).toBe(404);
    const post = (body: object) =>
      fetch(`${courier}/collections`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
    expect((await (await post({ town: "Tidewell", books: 3 })).json()).collection.cost).toBe("2.85");
    expect((await post({ town: "Tidewell", books: "3" })).status).toBe(422);
  });

  it("drive a way that is longer than the straight line, for whoever has the token", async () => {
    const path = `${standIns.urls.courier}/route?from=-35.184,-21.625&to=-35.2,-21.6`;
    expect((await fetch(path)).status).toBe(401);
    const route = await (await fetch(path, { headers: { authorization: "Bearer van-and-barrow" } })).json();
    expect(route.geometry.coordinates[0]).toEqual([-21.625, -35.184]);
    expect(route.geometry.coordinates.at(-1)).toEqual([-21.6, -35.2]);
    expect(route.properties.metres).toBeGreaterThan(2800);
  });

  it("confirm a house of Lorramere, say the official form, and know nothing beyond", async () => {
    const row = await (
      await confirm(
        "<c:Confirm xmlns:c='x'><house>12</house><street>Harbour Row</street><town>Tidewell</town></c:Confirm>",
      )
    ).text();
    expect(row).toContain("<standing>otherwise</standing>");
    expect(row).toContain("<street>Harbour Rows</street>");
    const abroad =
      "<Confirm><house>3</house><street>Storgränd</street><town>Vårhamn</town><country>QS</country></Confirm>";
    expect(await (await confirm(abroad)).text()).toContain("<standing>unknown</standing>");
    const wrong = await confirm("<Other/>");
    expect(wrong.status).toBe(400);
    expect(await wrong.text()).toContain("env:Fault");
    expect(await (await fetch(`${standIns.urls.register}/register?wsdl`)).text()).toContain('name="Confirm"');
  });

  it("know the tides of a day, which are always the same", async () => {
    const ask = async () => (await fetch(`${standIns.urls.tides}/tides?harbour=A%26B&day=2026-06-01`)).text();
    const tides = await ask();
    expect(tides).toBe(await ask());
    expect(tides).toContain('harbour="A&amp;B"');
    expect(tides.match(/<tide /g)?.length).toBeGreaterThanOrEqual(3);
    const began = performance.now();
    await fetch(`${standIns.urls.tides}/tides?harbour=A&take=0.3`);
    expect(performance.now() - began).toBeGreaterThan(290);
  });
});
