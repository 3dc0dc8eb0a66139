import {
  commented,
  type FieldOf,
  nameWriter,
  type Program,
  parametersOf,
  type Struct,
  snake,
  typeWriter,
} from "./model.ts";

const named = nameWriter(
  snake,
  "and as assert async await break class continue def del elif else except finally for from global if import in is lambda none nonlocal not or pass raise return true false try while with yield self client call params",
  (name) => `${name}_`,
);
const text = (value: string) => JSON.stringify(value);

const typeOf = typeWriter(
  { text: "str", number: "float", integer: "int", yesNo: "bool", any: "Any" },
  (of) => `List[${of}]`,
  (of) => `Dict[str, ${of}]`,
);

const fieldLine = ({ name, type, isOptional, words }: FieldOf) =>
  `    ${named(name)}: ${isOptional ? `Optional[${typeOf(type)}] = None` : typeOf(type)}${words ? `  # ${commented(words)}` : ""}`;

const struct = ({ name, words, fields }: Struct) => `@dataclass(frozen=True)
class ${name}:
${words ? `    """${commented(words)}"""\n\n` : ""}${fields.map(fieldLine).join("\n")}
`;

/** The lookups of a form for Python 3.9 and later, with nothing but its standard library. */
export function pythonOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const narrowed = Object.keys(narrow).length ? `{**NARROW, **more}` : "more";
  return `"""Address lookups for "${commented(title).replace(/["\\\\]/g, "'")}". Python 3.9 or later; nothing else is needed.

The key stands in the environment: BIBLIOTOPE_KEY is a server key on a server (bt_srv_...), a program's key (bt_app_...)
in what people install.
"""

from __future__ import annotations

import http.client
import json
import os
import socket
import ssl
import sys
import threading
from dataclasses import dataclass, fields, is_dataclass
from typing import Any, Callable, Dict, List, Optional, Union, get_args, get_origin, get_type_hints
from urllib.parse import quote, urlencode, urlsplit

SERVICE = os.environ.get("BIBLIOTOPE_URL", ${text(service)})
# Seconds after which a lookup is given up.
TIMEOUT = 8.0
${Object.keys(narrow).length ? `# What this form looks for.\nNARROW = ${JSON.stringify(narrow)}\n` : ""}

${structs.map(struct).join("\n\n")}

class LookupFailed(Exception):
    """A lookup without an answer. An empty list is none of these: that is an answer.

    trouble: offline, slow, refused, limit, malformed, missing or broken
    again: whether a retry may help; after: seconds that the service wants to be left alone
    """

    def __init__(self, trouble: str, problem: Optional[Problem] = None, again: bool = False, after: Optional[int] = None):
        super().__init__(problem.detail if problem else trouble)
        self.trouble, self.problem, self.again, self.after = trouble, problem, again, after


class Cancelled(Exception):
    """Nobody wants the answer any more."""


class Call:
    """A lookup under way, which may be cancelled from another thread."""

    def __init__(self) -> None:
        self.cancelled = False
        self._connection: Optional[http.client.HTTPConnection] = None

    def cancel(self) -> None:
        self.cancelled = True
        sock = getattr(self._connection, "sock", None)
        if sock:
            try:
                sock.shutdown(socket.SHUT_RDWR)
            except OSError:
                pass  # it has ended by itself


class Client:
    """Asks the service. Every lookup takes a Call by which it can be cancelled."""

    def __init__(self, key: Optional[str] = None, service: str = SERVICE, timeout: float = TIMEOUT):
        self._key = key if key is not None else os.environ.get("BIBLIOTOPE_KEY", "")
        self._service, self._timeout = urlsplit(service), timeout
${
  has("suggest")
    ? `
    def suggest(self, text: str, call: Optional[Call] = None, **more: str) -> SuggestAnswer:
        """Lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record."""
        return self._get(SuggestAnswer, "/v1/suggest", {"q": text, **${narrowed}}, call)
`
    : ""
}${
  has("forward")
    ? `
    def forward(self, params: Dict[str, str], call: Optional[Call] = None, **more: str) -> ForwardAnswer:
        """Candidates for an address by its parts, or as free text in "q", the likeliest first.

        Only "matched" needs no confirmation.
        """
        return self._get(ForwardAnswer, "/v1/forward", {**params, **${narrowed}}, call)
`
    : ""
}${
  has("reverse")
    ? `
    def reverse(self, lat: float, lon: float, call: Optional[Call] = None, **more: str) -> ReverseAnswer:
        """The nearest address to a position (WGS 84 degrees), then the areas around it."""
        return self._get(ReverseAnswer, "/v1/reverse", {"at": f"{lat},{lon}", **${narrowed}}, call)
`
    : ""
}${
  has("record")
    ? `
    def record(self, ref: str, call: Optional[Call] = None, **more: str) -> RecordAnswer:
        """One record by ref, as stored when the suggestion was chosen."""
        return self._get(RecordAnswer, f"/v1/records/{quote(ref, safe='')}", more, call)
`
    : ""
}
    def _get(self, kind: Any, path: str, params: Dict[str, str], call: Optional[Call]) -> Any:
        call = call or Call()
        if call.cancelled:
            raise Cancelled()
        host, secure = self._service.netloc, self._service.scheme == "https"
        make = http.client.HTTPSConnection if secure else http.client.HTTPConnection
        connection = make(host, timeout=self._timeout)
        call._connection = connection
        # a value that is missing asks for nothing
        query = urlencode({name: value for name, value in params.items() if value not in (None, "")})
        headers = {"Authorization": f"Bearer {self._key}", "Accept": "application/json"}
        try:
            connection.request("GET", f"{self._service.path}{path}?{query}", headers=headers)
            response = connection.getresponse()
            body = response.read()
        except (socket.timeout, TimeoutError) as error:
            raise (Cancelled() if call.cancelled else LookupFailed("slow", again=True)) from error
        except (OSError, http.client.HTTPException, ssl.SSLError) as error:
            raise (Cancelled() if call.cancelled else LookupFailed("offline", again=True)) from error
        finally:
            connection.close()
        if call.cancelled:
            raise Cancelled()
        try:
            answer = json.loads(body.decode("utf-8"))
        except ValueError as error:
            raise LookupFailed("broken", again=response.status >= 500) from error
        if response.status != 200:
            raise _failed(response, answer)
        return _read(kind, answer)


def _failed(response: http.client.HTTPResponse, answer: Any) -> LookupFailed:
    status, after = response.status, response.getheader("Retry-After", "")
    troubles = {401: "refused", 403: "refused", 404: "missing", 410: "missing", 429: "limit"}
    trouble = troubles.get(status, "broken" if status >= 500 else "malformed")
    problem = _read(Problem, answer) if isinstance(answer, dict) else None
    return LookupFailed(trouble, problem, status == 429 or status >= 500, int(after) if after.isdigit() else None)


def _read(kind: Any, value: Any) -> Any:
    """A value of JSON as what it is to be; what is missing is None, and what is not known here is left aside."""
    if value is None:
        return None
    if get_origin(kind) is Union:
        return _read(get_args(kind)[0], value)
    if get_origin(kind) is list:
        return [_read(get_args(kind)[0], one) for one in value]
    if get_origin(kind) is dict:
        return {name: _read(get_args(kind)[1], one) for name, one in value.items()}
    if is_dataclass(kind):
        hints = get_type_hints(kind, sys.modules[__name__].__dict__)
        return kind(**{one.name: _read(hints[one.name], value.get(_wire(one.name))) for one in fields(kind)})
    return value


def _wire(name: str) -> str:
    first, *rest = name.rstrip("_").split("_")
    return first + "".join(word.capitalize() for word in rest)
${
  has("suggest")
    ? `

class Typing:
    """Suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped."""

    def __init__(self, client: Client, show: Callable[[str, List[Suggestion]], None], fail: Callable[[LookupFailed], None]):
        self._client, self._show, self._fail = client, show, fail
        self._call: Optional[Call] = None

    def typed(self, text: str) -> None:
        if self._call:
            self._call.cancel()
        self._call = call = Call()
        if text.strip():
            threading.Thread(target=self._ask, args=(text, call), daemon=True).start()
        else:
            self._show(text, [])

    def _ask(self, text: str, call: Call) -> None:
        try:
            answer = self._client.suggest(text, call)
        except Cancelled:
            return
        except LookupFailed as failed:
            if not call.cancelled:
                self._fail(failed)
            return
        if not call.cancelled:
            self._show(text, answer.suggestions)
`
    : ""
}${has("forward") ? lookups.map(lookup).join("") : ""}

if __name__ == "__main__":
    client = Client()
    try:
${main(calls)}
    except LookupFailed as failed:
        print(f"{failed.trouble}: {failed}", file=sys.stderr)
        sys.exit(1)
`;
}

/** A form's own question, by the names of the fields. */
function lookup(one: Program["lookups"][number]): string {
  const { parameters, lookups } = parametersOf(one, named);
  const words = lookups.map(({ part, parameters: own }) =>
    own.length === 1 ? `"${part}": ${own[0]}` : `"${part}": ", ".join(value for value in (${own.join(", ")}) if value)`,
  );
  return `

def find_${named(one.name)}(client: Client, ${parameters.map((name) => `${name}: str = ""`).join(", ")}) -> ForwardAnswer:
    """Looks up what stands in the form's fields, before a record is stored."""
    return client.forward({${words.join(", ")}})
`;
}

function main(calls: Program["calls"]): string {
  if (calls.includes("suggest"))
    return `        text = " ".join(sys.argv[1:]) or input("Address: ")
        for suggestion in client.suggest(text).suggestions:
            print(f"{suggestion.ref}  {suggestion.line}")`;
  if (!calls.includes("forward"))
    return `        answer = client.reverse(float(sys.argv[1]), float(sys.argv[2]))
        for feature in answer.features:
            print(f"{feature.id}  {feature.properties.line}")`;
  return `        text = " ".join(sys.argv[1:]) or input("Address: ")
        answer = client.forward({"q": text})
        print(answer.outcome)
        for feature in answer.features:
            print(f"{feature.id}  {feature.properties.line}")`;
}
