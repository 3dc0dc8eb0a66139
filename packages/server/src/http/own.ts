import {
  OWN_CALLS,
  type OwnAnswer,
  type OwnAsks,
  type OwnCall,
  type OwnCallName,
  type OwnPart,
  ROLES,
  type Role,
} from "@bibliotope/wire";
import express, { type Request, type RequestHandler, type Response, type Router } from "express";
import type { User } from "../users/user.ts";
import type { Session } from "../users/users.repository.ts";
import { BODY_LIMIT, HttpProblem } from "./problem.ts";
import { idOf, readQuery, readRequest } from "./read-request.ts";
import { exactRouter } from "./router.ts";
import { eventOf, type NoteSecurity } from "./security-log.ts";

/** A request of one of the workbench's own calls. */
export interface Own<N extends OwnCallName = OwnCallName> {
  /** As the call's schema reads it. */
  params: OwnAsks<N>;
  /** What is in the path. */
  parts: Readonly<Record<OwnPart<N>, string>>;
  /** Number of a thing in the path; nought, which nothing has, where it is no number. */
  id: (part?: OwnPart<N>) => number;
  /** Who asks. */
  user: User;
  session: Session;
  request: Request;
  response: Response;
}

type Handler<N extends OwnCallName> = (own: Own<N>) => OwnAnswer<N> | Promise<OwnAnswer<N>>;
/** One for every call of the workbench: the compiler finds a missing one. */
export type OwnHandlers = { readonly [N in OwnCallName]: Handler<N> };

const readJson = express.json({ limit: BODY_LIMIT, strict: false });

/** `/api/…`: the workbench's own calls, each behind the role that it needs. What comes before has found whose session it is. */
export function ownRoutes(handlers: OwnHandlers, note: NoteSecurity): Router {
  const router = exactRouter();
  for (const [name, call] of Object.entries(OWN_CALLS) as [OwnCallName, OwnCall][]) {
    const { method, path, role = "look", asks, takes, sends, status } = call;
    const read = takes || method === "GET" ? readQuery : readRequest;
    const answer: RequestHandler = async (request, response) => {
      const { session, user } = response.locals;
      const parts = request.params as Record<string, string>;
      const own = {
        ...{ params: asks ? read(request, asks) : {}, parts, session, user, request, response },
        id: (part = "id") => idOf(parts[part]),
      };
      const event = eventOf(name);
      const logEnd = (ended: string) =>
        event && note({ event, ended, user: user.id, name: user.name, address: request.ip ?? "", about: parts });
      let answered: unknown;
      try {
        answered = await (handlers[name] as (own: unknown) => unknown)(own);
        logEnd("done");
      } catch (error) {
        logEnd(error instanceof HttpProblem ? error.problem : "broken");
        throw error;
      }
      if (sends) return;
      if (answered === undefined) response.status(204).end();
      else response.status(status ?? 200).json(answered);
    };
    const steps = [needs(role, eventOf(name), note), ...(asks && !takes && method !== "GET" ? [readJson] : []), answer];
    router[method.toLowerCase() as "get"](path.replace(/\{(\w+)\}/g, ":$1"), ...steps);
  }
  return router;
}

const CAN: Readonly<Record<Role, string>> = {
  look: "view and look up",
  edit: "create and change forms",
  manage: "change keys and people",
};

/** Lets those through who may do so much. */
function needs(role: Role, event: string | undefined, note: NoteSecurity): RequestHandler {
  return (request, response, next) => {
    const { user } = response.locals;
    if (ROLES.indexOf(user.role) >= ROLES.indexOf(role)) return next();
    if (event) note({ event, ended: "not-allowed", user: user.id, name: user.name, address: request.ip ?? "" });
    throw new HttpProblem(
      "not-allowed",
      `${user.name} may only ${CAN[user.role as Role]} here. Ask a manager of this workbench.`,
    );
  };
}
