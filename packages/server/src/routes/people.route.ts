import type { Knex } from "knex";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import * as users from "../users/users.repository.ts";

/** Who may sign in, and what they may do; and one's own password. */
export function peopleHandlers(database: Knex) {
  return {
    sessions,
    endOtherSessions,
    changePassword,
    people,
    makePerson,
    changePerson,
    removePerson,
  } satisfies Partial<OwnHandlers>;

  async function changePassword({ asked, user, session }: Own<"changePassword">) {
    if (await users.changePassword(database, user, session.family, asked)) return;
    throw new HttpProblem("malformed", "The password before is another one.", [
      { parameter: "before", message: "is not the password" },
    ]);
  }

  async function sessions({ user, session }: Own<"sessions">) {
    return { sessions: await users.listSessions(database, user, session.family) };
  }

  async function endOtherSessions({ user, session }: Own<"endOtherSessions">) {
    await users.endOtherSessions(database, user, session.family);
  }

  async function people() {
    return { people: await users.listPeople(database) };
  }

  async function makePerson({ asked }: Own<"makePerson">) {
    if ((await users.makePerson(database, asked)) === undefined) throw taken(asked.name);
    return people();
  }

  async function changePerson({ asked, id }: Own<"changePerson">) {
    const done = await users.changePerson(database, id(), asked);
    if (done === "taken") throw taken(asked.name ?? "");
    if (done === "missing") throw nobody();
    if (done === "last") throw last();
    return people();
  }

  async function removePerson({ id, user }: Own<"removePerson">) {
    if (id() === user.id)
      throw new HttpProblem("conflict", "Nobody can take themselves out. Ask another one who manages.");
    const done = await users.removePerson(database, id());
    if (done === "missing") throw nobody();
    if (done === "last") throw last();
  }
}

const nobody = () => new HttpProblem("not-found", "There is nobody with this number.");
const last = () => new HttpProblem("conflict", "Somebody has to manage: without one, nobody could let anybody in.");
const taken = (name: string) =>
  new HttpProblem("conflict", `Somebody is called “${name}” already.`, [{ parameter: "name", message: "is taken" }]);
