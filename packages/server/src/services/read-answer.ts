import { readValues, type Service, type ServiceValues } from "@bibliotope/core/service";
import { faultIn, waysInto } from "./answer.ts";
import { CallFailed, type CameBack } from "./call-failed.ts";

/** What forms may use of what came back. @throws CallFailed */
export function readAnswer(service: Service, came: CameBack): ServiceValues {
  const { status } = came;
  if (status === 401 || status === 403 || status === 407)
    throw new CallFailed("refused", `It refused the request (${status}).`, came);
  if (status === 204 || status === 404 || status === 410)
    throw new CallFailed("none", `It found nothing for these inputs (${status}).`, came);
  if (status >= 500 && service.ask.by !== "soap")
    throw new CallFailed("down", `It reported an error of its own (${status}).`, came);
  const follow = waysIntoFault(came, status);
  const fault = service.ask.by === "soap" ? faultIn(follow) : undefined;
  if (fault !== undefined) throw new CallFailed("refused", `It returned a fault: ${fault}`, came);
  if (status >= 400) throw new CallFailed("refused", `It rejected the request (${status}).`, came);
  const { values, found } = readValues(service, follow);
  if (!found && service.values.length)
    throw new CallFailed("none", "It responded, but without any of the values.", came);
  return values;
}

/** The ways into an answer; into the refusal, where a status refuses and what comes with it cannot be read. */
function waysIntoFault(came: CameBack, status: number) {
  try {
    return waysInto(came);
  } catch (error) {
    if (status >= 500) throw new CallFailed("down", `It reported an error of its own (${status}).`, came);
    if (status >= 400) throw new CallFailed("refused", `It rejected the request (${status}).`, came);
    throw error;
  }
}
