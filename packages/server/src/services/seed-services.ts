import { isDeepStrictEqual } from "node:util";
import type { Service } from "@bibliotope/core/service";
import type { Knex } from "knex";
import type { Sealing } from "./sealing.ts";
import { allowHost, saveService, setSecret } from "./services.repository.ts";

/** Where the stand-ins are, by their names. */
export type StandIns = Readonly<Record<"register" | "courier" | "tides" | "survey", string>>;

/** The token that the courier's stand-in wants for a route. */
const TOKEN = { name: "courier-token", value: "van-and-barrow" };

/**
 * Stores the services of the stand-ins that are not there yet, and allows their hosts. They listen elsewhere at each start: what was
 * described of them asks them there.
 */
export async function seedServices(database: Knex, urls: StandIns | undefined, sealing: Sealing): Promise<void> {
  if (!urls) return;
  const before = await database("service_hosts").whereNotNull("stand_in").select("stand_in", "host", "port");
  await database("service_hosts").whereNotNull("stand_in").del();
  for (const [name, url] of Object.entries(urls)) {
    const { hostname, port } = new URL(url);
    const host = { scheme: "http" as const, host: hostname, port: Number(port) };
    await allowHost(database, { ...host, isInside: true, forPictures: name === "survey" }, name);
  }
  const moved = new Map(
    before.flatMap(({ stand_in: name, host, port }) =>
      name !== null && Object.hasOwn(urls, name) ? [[`http://${host}:${port}`, urls[name as keyof StandIns]]] : [],
    ),
  );
  const stored = await database("services").select("name", "definition");
  for (const { name, definition } of stored as { name: string; definition: Service }[]) {
    const from = [...moved.keys()].find((origin) => definition.ask.url.startsWith(`${origin}/`));
    if (!from) continue;
    const url = moved.get(from) + definition.ask.url.slice(from.length);
    const now = { ...definition, ask: { ...definition.ask, url } };
    await database("services")
      .where({ name })
      .update({ definition: JSON.stringify(now) });
  }
  const isKnown = await database("service_secrets").where({ name: TOKEN.name }).first();
  if (!isKnown) await setSecret(database, TOKEN.name, sealing.seal(TOKEN.name, TOKEN.value));
  for (const service of standInServices(urls)) {
    const found = await database("services").where({ name: service.name }).first();
    if (!found) await saveService(database, service, 0);
    else if (found.revision === 1 && !isDeepStrictEqual(found.definition, service))
      await database("services")
        .where({ name: service.name, revision: 1 })
        .update({ definition: JSON.stringify(service) });
  }
}

const text = (name: string, example: string, required = true) => ({
  ...{ name, kind: "text" as const, example },
  ...(required ? { required } : {}),
});

function standInServices({ register, courier, tides }: StandIns): Service[] {
  return [
    {
      name: "courier",
      title: "Loan courier, collection days",
      ask: { by: "http", method: "GET", url: `${courier}/days{?town}` },
      inputs: [text("town", "Tidewell")],
      values: [
        { name: "days", way: "/days", kind: "text", isList: true },
        { name: "next", way: "/next/day", kind: "text" },
        { name: "before", way: "/next/before", kind: "text" },
      ],
      ...{ timeLimit: 3, again: 1, keep: 600 },
    },
    {
      name: "collection",
      title: "Loan courier, a collection",
      ask: {
        by: "http",
        method: "POST",
        url: `${courier}/collections`,
        body: { kind: "json", text: '{ "town": "{town}", "books": "{books}" }' },
      },
      inputs: [text("town", "Tidewell"), { name: "books", kind: "number", required: true, example: "3" }],
      values: [
        { name: "slots", way: "/collection/slots", each: "/day", kind: "text", isList: true },
        { name: "cost", way: "/collection/cost", kind: "number" },
        { name: "insured", way: "/collection/insured", kind: "yesno" },
      ],
      timeLimit: 3,
    },
    {
      name: "route",
      title: "Loan courier, the way it drives",
      ask: {
        by: "http",
        method: "GET",
        url: `${courier}/route{?from,to}`,
        headers: [{ name: "Authorization", value: `Bearer {secret.${TOKEN.name}}` }],
      },
      inputs: [text("from", "-35.184,-21.625"), text("to", "-35.2,-21.6")],
      values: [
        { name: "metres", way: "/properties/metres", kind: "number" },
        { name: "minutes", way: "/properties/minutes", kind: "number" },
        { name: "path", way: "/geometry", kind: "line" },
      ],
      ...{ timeLimit: 3, again: 1, keep: 600 },
    },
    {
      name: "tides",
      title: "Tide table of the harbours",
      ask: { by: "http", method: "GET", url: `${tides}/tides{?harbour,day,take}` },
      inputs: [
        text("harbour", "Tidewell"),
        { name: "day", kind: "date", example: "2026-06-01" },
        { name: "take", kind: "number", example: "0" },
        { name: "patience", kind: "number", example: "2" },
      ],
      values: [
        { name: "high", way: "//tide[@kind='high']", kind: "text", isList: true },
        { name: "low", way: "//tide[@kind='low']", kind: "text", isList: true },
        { name: "metres", way: "string(//tide[@kind='high']/@metres)", kind: "number" },
      ],
      ...{ timeLimitFrom: "patience", timeLimit: 4 },
    },
    {
      name: "register",
      title: "Land register of Lorramere",
      ask: {
        by: "soap",
        version: "1.2",
        url: `${register}/register`,
        operation: "Confirm",
        namespace: "urn:land-register:lorramere:1",
        action: "urn:land-register:lorramere:1/Confirm",
      },
      inputs: [
        text("house", "12", false),
        text("street", "Harbour Row"),
        text("town", "Tidewell"),
        text("country", "QR", false),
      ],
      values: [
        { name: "standing", way: "//standing", kind: "text" },
        { name: "number", way: "string(//plot/@number)", kind: "text" },
        { name: "house", way: "//official/house", kind: "text" },
        { name: "street", way: "//official/street", kind: "text" },
        { name: "town", way: "//official/town", kind: "text" },
        { name: "owners", way: "//owner", kind: "text", isList: true },
      ],
      timeLimit: 2,
      register: { countries: ["QR"] },
    },
  ];
}
