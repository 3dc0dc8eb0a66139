import {
  camel,
  commented,
  type FieldOf,
  nameWriter,
  type Program,
  parametersOf,
  pascal,
  quoted,
  type Struct,
  type TypeOf,
  typeWriter,
} from "./model.ts";

const named = nameWriter(
  camel,
  "assert await break case catch class const continue default do else enum extends false final finally for if in is new null rethrow return super switch this throw true try var void while with yield params call",
  (name) => `${name}Value`,
);

const typeOf = typeWriter(
  { text: "String", number: "double", integer: "int", yesNo: "bool", any: "Object" },
  (of) => `List<${of}>`,
  (of) => `Map<String, ${of}>`,
);

/** How a value of JSON is read. */
function read(type: TypeOf, value: string): string {
  switch (type.is) {
    case "text":
      return `${value} as String`;
    case "number":
      return `(${value} as num).toDouble()`;
    case "integer":
      return `(${value} as num).toInt()`;
    case "yesNo":
      return `${value} as bool`;
    case "any":
      return `${value} as Object`;
    case "list":
      return `[for (final one in ${value} as List<dynamic>) ${read(type.of, "one")}]`;
    case "map":
      return `{for (final MapEntry<String, dynamic> one in (${value} as Map<String, dynamic>).entries) one.key: ${read(type.of, "one.value")}}`;
    case "struct":
      return `${type.name}.of(${value} as Map<String, dynamic>)`;
  }
}
const field = ({ name, type, isOptional, words }: FieldOf) =>
  `${words ? `  /// ${commented(words)}\n` : ""}  final ${typeOf(type)}${isOptional ? "?" : ""} ${named(name)};`;
const reading = ({ name, type, isOptional }: FieldOf) => {
  const entry = `json[${quoted(name)}]`;
  return `        ${named(name)}: ${isOptional ? `${entry} == null ? null : ${read(type, entry)}` : read(type, entry)},`;
};
const struct = ({ name, words, fields }: Struct) => `${words ? `/// ${commented(words)}\n` : ""}class ${name} {
  const ${name}({
${fields.map(({ name: own, isOptional }) => `    ${isOptional ? "" : "required "}this.${named(own)},`).join("\n")}
  });

  factory ${name}.of(Map<String, dynamic> json) => ${name}(
${fields.map(reading).join("\n")}
      );

${fields.map(field).join("\n")}
}
`;

/** The lookups of a form for Dart 2.17 and later, with nothing but its standard library. */
export function dartOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const method = (words: string, name: string, answer: string, parameters: string, path: string, lookups: string) => `
  /// ${words}
  Future<${answer}> ${name}(${parameters}, [Call? call]) async => ${answer}.of(await _get(${path}, ${lookups}, call));
`;
  return `// Address lookups for "${commented(title).replace(/["\\]/g, "'")}". Dart 2.17 or later; nothing else is needed.
//
// The key is a program's key (bt_app_…): whoever has the program can read it, so it comes from the build's settings and
// not from the code.
import 'dart:async';
import 'dart:convert';
import 'dart:io';

${structs.map(struct).join("\n")}
/// A lookup without an answer. An empty list is none of these: that is an answer.
class LookupFailed implements Exception {
  const LookupFailed(this.trouble, {this.problem, this.again = false, this.after});

  /// offline, slow, refused, limit, malformed, missing or broken.
  final String trouble;

  /// What the service said; null where it said nothing.
  final Problem? problem;

  /// Whether a retry may help, and the seconds that the service wants to be left alone.
  final bool again;
  final int? after;

  @override
  String toString() => problem?.detail ?? trouble;
}

/// Nobody wants the answer any more.
class Cancelled implements Exception {
  const Cancelled();
}

/// A lookup under way, which may be cancelled.
class Call {
  bool isCancelled = false;
  HttpClientRequest? _request;

  void cancel() {
    isCancelled = true;
    _request?.abort(const Cancelled());
  }
}

class AddressLookups {
  AddressLookups(this._key, {String service = ${quoted(service)}}) : _service = service;

  final String _key;
  final String _service;
  final HttpClient _http = HttpClient();

  /// After which a lookup is given up.
  static const _limit = Duration(seconds: 8);

  /// What this form looks for.
  static const _narrow = <String, String>{${Object.entries(narrow)
    .map(([name, value]) => `${quoted(name)}: ${quoted(value)}`)
    .join(", ")}};
${has("suggest") ? method("Lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record.", "suggest", "SuggestAnswer", "String text", "'/v1/suggest'", '{..._narrow, "q": text}') : ""}${has("forward") ? method('Candidates for an address by its parts, or as free text in "q", the likeliest first. Only "matched" needs no confirmation.', "forward", "ForwardAnswer", "Map<String, String?> params", "'/v1/forward'", "{..._narrow, ...params}") : ""}${has("reverse") ? method("The nearest address to a position (WGS 84 degrees), then the areas around it.", "reverse", "ReverseAnswer", "double lat, double lon", "'/v1/reverse'", '{..._narrow, "at": "$lat,$lon"}') : ""}${has("record") ? method("One record by ref, as stored when the suggestion was chosen.", "record", "RecordAnswer", "String ref", "'/v1/records/' + Uri.encodeComponent(ref)", "const {}") : ""}${has("forward") ? lookups.map(lookup).join("") : ""}
  Future<Map<String, dynamic>> _get(String path, Map<String, String?> params, Call? call) async {
    // a value that is missing asks for nothing
    final query = [
      for (final one in params.entries)
        if ((one.value ?? '').trim().isNotEmpty)
          '\${Uri.encodeQueryComponent(one.key)}=\${Uri.encodeQueryComponent(one.value!)}',
    ].join('&');
    try {
      final request = await _http.getUrl(Uri.parse('$_service$path?$query')).timeout(_limit);
      call?._request = request;
      if (call?.isCancelled ?? false) throw const Cancelled();
      request.headers.set(HttpHeaders.authorizationHeader, 'Bearer $_key');
      request.headers.set(HttpHeaders.acceptHeader, 'application/json');
      final response = await request.close().timeout(_limit);
      final body = await response.transform(utf8.decoder).join().timeout(_limit);
      if (call?.isCancelled ?? false) throw const Cancelled();
      if (response.statusCode != 200) throw _failed(response, body);
      return jsonDecode(body) as Map<String, dynamic>;
    } on TimeoutException {
      throw const LookupFailed('slow', again: true);
    } on FormatException {
      throw const LookupFailed('broken');
    } on IOException {
      if (call?.isCancelled ?? false) throw const Cancelled();
      throw const LookupFailed('offline', again: true);
    }
  }

  LookupFailed _failed(HttpClientResponse response, String body) {
    final status = response.statusCode;
    final trouble = const {401: 'refused', 403: 'refused', 404: 'missing', 410: 'missing', 429: 'limit'}[status] ??
        (status >= 500 ? 'broken' : 'malformed');
    Problem? problem;
    try {
      problem = Problem.of(jsonDecode(body) as Map<String, dynamic>);
    } on FormatException {
      problem = null;
    } on TypeError {
      problem = null;
    }
    final after = int.tryParse(response.headers.value(HttpHeaders.retryAfterHeader) ?? '');
    return LookupFailed(trouble, problem: problem, again: status == 429 || status >= 500, after: after);
  }

  void close() => _http.close(force: true);
}
${has("suggest") ? TYPING : ""}`;
}

const TYPING = `
/// Suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped.
class Typing {
  Typing(this._lookups, {required this.show, required this.fail});

  final AddressLookups _lookups;
  final void Function(String text, List<Suggestion> suggestions) show;
  final void Function(LookupFailed failed) fail;
  Call? _underWay;

  Future<void> typed(String text) async {
    _underWay?.cancel();
    final mine = _underWay = Call();
    if (text.trim().isEmpty) {
      show(text, const []);
      return;
    }
    try {
      final answer = await _lookups.suggest(text, mine);
      if (!mine.isCancelled) show(text, answer.suggestions);
    } on LookupFailed catch (failed) {
      if (!mine.isCancelled) fail(failed);
    } on Cancelled {
      // more was typed
    }
  }
}
`;

function lookup(one: Program["lookups"][number]): string {
  const { parameters, lookups } = parametersOf(one, named);
  const words = lookups.map(({ part, parameters: own }) =>
    own.length === 1
      ? `        ${quoted(part)}: ${own[0]},`
      : `        ${quoted(part)}: [${own.join(", ")}].where((value) => value.trim().isNotEmpty).join(', '),`,
  );
  return `
  /// Looks up what is in the form's fields, before a record is stored.
  Future<ForwardAnswer> find${pascal(one.name)}({${parameters.map((name) => `String ${name} = ''`).join(", ")}}) => forward({
${words.join("\n")}
      });
`;
}
