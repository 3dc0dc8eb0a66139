import { writeFileSync } from "node:fs";
import { createInterface } from "node:readline/promises";
import type { PersonSummary } from "@bibliotope/wire";
import { ENDS, Stop } from "./ends.ts";
import { Workbench } from "./server.ts";

/** Writes all that is known of somebody. */
export async function exportPerson(name: string, { out }: { out?: string }): Promise<void> {
  const workbench = await Workbench.open();
  const { id } = await find(workbench, name);
  const data = await workbench.ask("personData", { parts: { id } });
  const written = `${JSON.stringify(data, null, 2)}\n`;
  if (out === undefined) process.stdout.write(written);
  // nobody else is to read it
  else writeFileSync(out, written, { mode: 0o600 });
}

/** Takes somebody out with all that is known of them. @param say hears what remains */
export async function erasePerson(
  name: string,
  { yes = false }: { yes?: boolean },
  say: (line: string) => void,
): Promise<void> {
  const workbench = await Workbench.open();
  const person = await find(workbench, name);
  if (!yes && !(await isSure(person.name))) throw new Stop("Nothing was erased.", ENDS.failed);
  await workbench.ask("removePerson", { parts: { id: person.id } });
  say(`${person.name} is erased.`);
  say("The name remains in log/security.log and its rotated files until they are deleted, and in existing backups.");
}

async function find(workbench: Workbench, name: string): Promise<PersonSummary> {
  const { people } = await workbench.ask("people", {});
  const plain = (text: string) => text.trim().toLowerCase();
  const found = people.find((one) => plain(one.name) === plain(name));
  if (!found)
    throw new Stop(
      `There is no person named “${name}”. Known: ${people.map((one) => one.name).join(", ")}.`,
      ENDS.nothingFound,
    );
  return found;
}

async function isSure(name: string): Promise<boolean> {
  if (!process.stdin.isTTY) throw new Stop("Use --yes: there is no terminal to ask for confirmation.", ENDS.wrongUse);
  const terminal = createInterface({ input: process.stdin, output: process.stderr });
  const said = await terminal.question(`Erase all data stored about ${name}? This cannot be undone. Type the name: `);
  terminal.close();
  return said.trim() === name;
}
