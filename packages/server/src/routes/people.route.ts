import { changePasswordAsking, changePersonAsking, makePersonAsking } from "@bibliotope/wire";
import type { Router } from "express";
import type { Knex } from "knex";
import { idOf, readAsking } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { needs } from "../http/session.ts";
import * as users from "../users/users.repository.ts";

/** `/api/people`: who may sign in, and what they may do; `/api/password`: one's own. */
export function peopleRoutes(database: Knex): Router {
  const router = exactRouter();

  router.put("/password", async (request, response) => {
    const { user, session } = response.locals;
    const asked = readAsking(request, changePasswordAsking);
    if (!(await users.changePassword(database, user, session.family, asked)))
      throw new HttpProblem("malformed", "The password before is another one.", [
        { parameter: "before", message: "is not the password" },
      ]);
    response.status(204).end();
  });

  router.use("/people", needs("manage", { reading: true }));
  router.get("/people", async (_request, response) => {
    response.json({ people: await users.listPeople(database) });
  });
  router.post("/people", async (request, response) => {
    const asked = readAsking(request, makePersonAsking);
    if ((await users.makePerson(database, asked)) === undefined) throw taken(asked.name);
    response.status(201).json({ people: await users.listPeople(database) });
  });
  router.put("/people/:id", async (request, response) => {
    const asked = readAsking(request, changePersonAsking);
    const done = await users.changePerson(database, idOf(request.params.id), asked);
    if (done === "taken") throw taken(asked.name ?? "");
    if (done === "missing") throw nobody();
    if (done === "last") throw last();
    response.json({ people: await users.listPeople(database) });
  });
  router.delete("/people/:id", async (request, response) => {
    const id = idOf(request.params.id);
    if (id === response.locals.user.id)
      throw new HttpProblem("conflict", "Nobody can take themselves out. Ask another one who manages.");
    const done = await users.removePerson(database, id);
    if (done === "missing") throw nobody();
    if (done === "last") throw last();
    response.status(204).end();
  });
  return router;
}

const nobody = () => new HttpProblem("not-found", "There is nobody with this number.");
const last = () => new HttpProblem("conflict", "Somebody has to manage: without one, nobody could let anybody in.");
const taken = (name: string) =>
  new HttpProblem("conflict", `Somebody is called “${name}” already.`, [{ parameter: "name", message: "is taken" }]);
