import type { Server } from "node:http";
import type { Field, FormDefinition } from "@bibliotope/core/form";
import { Random, SAMPLE_FORMS } from "@bibliotope/islands";
import { expect, type Page, test } from "@playwright/test";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";
import { type Answered, type Kit, type Snapshot, serveWalks, type WalkEvent, walkInPage } from "./support/walk-page.ts";

/** The laws of one place in a form, over the kit in a browser: random events on the sample forms. */
const WALKS = process.env.BIBLIOTOPE_LONG ? 500 : 10;
const STEPS = 9;
const SEED = Number(process.env.BIBLIOTOPE_SEED ?? 1);

let server: Server;
let url: string;
test.beforeAll(async () => {
  ({ server, url } = await serveWalks());
});
test.afterAll(() => void server.close());

const TEXTS = [
  "",
  "12 harbour row tidewell",
  "12 Harbour Row",
  "Harbour Row",
  "12",
  "12b",
  "Tidewell",
  "reading room tidewell",
  "99 Elsewhere Lane",
  "Sandmouth",
  "ZZ9 99",
  "2000",
  "Vårhamn",
  "Skipper's Landing 3",
];
const KINDS: [WalkEvent["did"], number][] = [
  ["type", 9],
  ["take", 6],
  ["offered", 3],
  ["point", 2],
  ["marker", 2],
  ["press", 2],
  ["select", 2],
  ["script", 1],
  ["reset", 1],
];
const OFTEN = KINDS.flatMap(([did, times]) => Array<WalkEvent["did"]>(times).fill(did));

function eventsOf(random: Random): WalkEvent[] {
  return Array.from({ length: STEPS }, () => ({
    did: random.pick(OFTEN),
    which: random.next(),
    what: random.next(),
    text: random.pick(TEXTS),
    isHasty: random.chance(0.3),
  }));
}

/** Letters and digits alone. */
const bare = (text: string) =>
  text
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** What a field may say of a record: its name, its short form or its code; undefined for what tells no place. */
function sayings(
  { kind, binding, autofill }: Field,
  { parts, autofill: tokens, line }: Answered,
): string[] | undefined {
  if (kind !== "text" && kind !== "country") return undefined;
  if (binding === "{line}") return [line];
  if (binding === undefined) return autofill === "address-line1" ? [tokens["address-line1"] ?? ""] : undefined;
  const names = /^\{([a-z]+(?: or [a-z]+)*)(\.code)?\}$/.exec(binding);
  if (!names || names[1] === "unit") return undefined;
  const part = names[1]
    .split(" or ")
    .map((name) => parts[name])
    .find(Boolean);
  return names[2] ? [part?.code ?? ""] : [part?.name ?? "", part?.abbr ?? ""];
}

const addressOf = ({ address, autofill }: Field) => address ?? /section-(\S+)/.exec(autofill ?? "")?.[1] ?? "";

/** What is wrong with a form as it stands, by somebody who reads its fields and knows all that was answered. */
function wrongIn(definition: FormDefinition, { values }: Snapshot, known: readonly Answered[]): string[] {
  return [...new Set(definition.fields.map(addressOf))].flatMap((address) => {
    // a position is taken as it is here, and nothing is said of a house
    if (definition.addresses?.find(({ name }) => name === address)?.anywhere) return [];
    const its = definition.fields.filter((field) => addressOf(field) === address);
    const unseen = (binding: string) => {
      const field = its.find((one) => one.binding === binding && one.kind === "hidden");
      return field && values[field.name];
    };
    const [position, ref, confirmed] = ["{position}", "{ref}", "{confirmed}"].map(unseen);
    if (!position && !ref && confirmed !== "yes") {
      const rest = its.filter(
        ({ kind, name, binding }) => kind === "hidden" && binding !== "{confirmed}" && values[name],
      );
      return rest.map(({ name }) => `${name} is left`);
    }
    const kinds = definition.addresses?.find(({ name }) => name === address)?.kinds;
    const isMeant = (one: Answered) =>
      (!kinds?.length || kinds.some((kind) => kind === one.kind)) &&
      (!position || position === `${round(one.at.lat)},${round(one.at.lon)}`) &&
      (!ref || ref === one.ref) &&
      its.every((field) => {
        const said = sayings(field, one);
        return !said || said.some((text) => bare(text) === bare(values[field.name] ?? ""));
      });
    if (known.some(isMeant)) return [];
    const says = its.map(({ name }) => `${name}=${values[name]}`).join(" ");
    return [`“${address}” holds no record that its fields state: ${says}`];
  });
}

const round = (degrees: number) => String(Math.round(degrees * 1e6) / 1e6);

async function walks(page: Page, definition: FormDefinition, ref: string): Promise<void> {
  const wrong: string[] = [];
  // for all walks: the client need not ask for the same twice
  const known: Answered[] = [];
  let taken = 0;
  for (let walk = 0; walk < WALKS; walk++) {
    const seed = `${SEED} ${ref} ${walk}`;
    const events = eventsOf(new Random(seed));
    const snapshots = await page.evaluate(walkInPage, { definition, events });
    for (const [step, one] of snapshots.entries()) {
      known.push(...one.answered);
      const found = wrongIn(definition, one, known);
      const isQuiet = step === 0 || !snapshots[step - 1].did.endsWith("at once");
      if (isQuiet && one.did === "press the marker" && one.asked.length) found.push(`a marker asked ${one.asked}`);
      if (!found.length) continue;
      const path = snapshots.slice(0, step + 1).map(({ did }) => did);
      wrong.push(`seed ${seed}: ${path.join("; ")}: ${found.join("; ")}`);
      break;
    }
    if (snapshots.some(({ values }) => definition.fields.some(({ kind, name }) => kind === "hidden" && values[name])))
      taken++;
  }
  expect(wrong, `seeds ${SEED} ${ref} 0 to ${WALKS - 1}`).toEqual([]);
  // walks in which nothing was found would show nothing
  expect(taken).toBeGreaterThan(WALKS / 10);
  console.log(`  ${ref}: ${WALKS} walks with seed ${SEED}, ${taken} of them with answers`);
}

for (const { ref, definition } of SAMPLE_FORMS)
  test(
    `whatever happens to ${ref}, what it holds is what it states`,
    long(ref !== SAMPLE_FORMS[0].ref),
    async ({ page }) => {
      test.setTimeout(WALKS * 6000);
      const errors: string[] = [];
      page.on("pageerror", (error) => errors.push(error.stack ?? String(error)));
      await page.goto(url);
      await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
      await walks(page, definition, ref);
      expect(errors).toEqual([]);
    },
  );

test("a stored record whose ref nothing has any more says so, and stays as it was stored", async ({ page }) => {
  const { definition } = SAMPLE_FORMS.find(({ ref }) => ref === "reading-rooms")!;
  const words = page.getByText("The stored place is no longer available.");
  const stored = page.locator("[name=ref]");
  const open = async (record: Record<string, string>) => {
    await page.goto(url);
    await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
    const answered = page.waitForResponse((response) => response.url().includes(`/v1/records/${record.ref}`));
    await page.evaluate(
      ({ definition, record }) => {
        const { renderForm, client, countries } = (window as unknown as { kit: Kit }).kit;
        renderForm(document.querySelector("main")!, definition, { client, countries, record });
      },
      { definition, record },
    );
    return (await answered).status();
  };
  const found = await page.request.get(`${ready().url}/v1/suggest?q=mill+reading+room+tidewell&kinds=place`, {
    headers: { authorization: `Bearer ${ready().keys.srv}` },
  });
  const { ref } = (await found.json()).suggestions[0];
  expect(await open({ ref, find: "Mill Reading Room", position: "-35.18,-21.62" })).toBe(200);
  await expect(words).toHaveCount(0);
  expect([404, 410]).toContain(await open({ ref: "qr-2222222", find: "Lost Reading Room", position: "-35.18,-21.62" }));
  await expect(words).toBeVisible();
  await expect(stored).toHaveValue("qr-2222222");
});
