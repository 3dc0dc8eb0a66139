import type { Knex } from "knex";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { dataOfPerson } from "../users/person-data.ts";
import { signInThread } from "../users/sign-in-thread.ts";
import * as users from "../users/users.repository.ts";
import { addressOf } from "./sign-in.route.ts";

/** Who may sign in, and what they may do; and one's own password. */
export function peopleHandlers(database: Knex) {
  return {
    sessions,
    endOtherSessions,
    changePassword,
    people,
    makePerson,
    changePerson,
    personData,
    removePerson,
  } satisfies Partial<OwnHandlers>;

  async function changePassword({ params, user, session, request }: Own<"changePassword">) {
    await checkPassword(params.password, user.name);
    if (await users.changePassword(database, user, session.family, params, addressOf(request))) return;
    throw notThePassword();
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

  async function makePerson({ params }: Own<"makePerson">) {
    await checkPassword(params.password, params.name);
    if ((await users.makePerson(database, params)) === undefined) throw taken(params.name);
    return people();
  }

  async function changePerson({ params, id }: Own<"changePerson">) {
    if (params.password !== undefined) {
      const name = params.name ?? (await users.listPeople(database)).find((person) => person.id === id())?.name ?? "";
      await checkPassword(params.password, name);
    }
    const done = await users.changePerson(database, id(), params);
    if (done === "taken") throw taken(params.name ?? "");
    if (done === "missing") throw nobody();
    if (done === "last") throw last();
    return people();
  }

  async function personData({ id }: Own<"personData">) {
    const data = await dataOfPerson(database, id());
    if (!data) throw nobody();
    return data;
  }

  async function removePerson({ id, user }: Own<"removePerson">) {
    if (id() === user.id) throw new HttpProblem("conflict", "You cannot remove yourself. Ask another manager.");
    const done = await users.removePerson(database, id());
    if (done === "missing") throw nobody();
    if (done === "last") throw last();
  }
}

async function checkPassword(password: string, name: string): Promise<void> {
  const why = await signInThread.run("whyRefused", { password, name });
  if (why)
    throw new HttpProblem("malformed", `The password ${why}. Choose another one, for example four unrelated words.`, [
      { parameter: "password", message: why },
    ]);
}

/** Somebody did not say their own password, or said wrong ones too often. */
export const notThePassword = () =>
  new HttpProblem("malformed", "The current password is wrong, or there were too many wrong attempts.", [
    { parameter: "before", message: "is not the password" },
  ]);

const nobody = () => new HttpProblem("not-found", "There is no such person.");
const last = () => new HttpProblem("conflict", "There has to be at least one manager.");
const taken = (name: string) =>
  new HttpProblem("conflict", `There is already a person named “${name}”.`, [
    { parameter: "name", message: "is taken" },
  ]);
