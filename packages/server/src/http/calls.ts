import { type CallAt, callAt } from "./call-paths.ts";
import { HttpProblem } from "./problem.ts";

/** The call that a request makes. @throws HttpProblem 404 for a path that is none, 405 for a method that it does not take */
export function callOf(path: string, method: string | undefined): CallAt {
  const found = callAt(path);
  if (!found) throw new HttpProblem("not-found", "There is no such path. /v1/openapi.json lists all of them.");
  const { methods } = found.call;
  if (methods.some((one) => one === method || (one === "GET" && method === "HEAD"))) return found;
  throw new HttpProblem("wrong-method", `This path accepts ${methods.join(" and ")}.`, undefined, {
    Allow: methods.join(", "),
  });
}
