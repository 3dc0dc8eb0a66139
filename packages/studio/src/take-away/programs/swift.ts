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
  typeWriter,
} from "./model.ts";

const named = nameWriter(
  camel,
  "as associatedtype break case catch class continue default defer deinit do else enum extension fallthrough false fileprivate for func guard if import in init inout internal is let nil operator precedencegroup private protocol public repeat rethrows return self static struct subscript super switch throw throws true try typealias var where while params",
  (name) => `\`${name}\``,
);
/** Swift writes signs beyond ASCII by themselves, and has another way for those that end a text. */
const text = (value: string) => quoted(value).replace(/\\u([0-9a-f]{4})/gi, "\\u{$1}");

const typeOf = typeWriter(
  { text: "String", number: "Double", integer: "Int", yesNo: "Bool", any: "Held" },
  (of) => `[${of}]`,
  (of) => `[String: ${of}]`,
);
const field = ({ name, type, isOptional, words }: FieldOf) =>
  `${words ? `    /// ${commented(words)}\n` : ""}    public let ${named(name)}: ${typeOf(type)}${isOptional ? "?" : ""}`;
const struct = ({ name, words, fields }: Struct) =>
  `${words ? `/// ${commented(words)}\n` : ""}public struct ${name}: Codable, Sendable {\n${fields.map(field).join("\n")}\n}\n`;

/** The lookups of a form for Swift 5.7 and later, with nothing but Foundation. */
export function swiftOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const method = (words: string, name: string, answer: string, parameters: string, path: string, lookups: string) => `
    /// ${words}
    public func ${name}(${parameters}) async throws -> ${answer} {
        try await get(${answer}.self, path: ${path}, params: ${lookups})
    }
`;
  return `// Address lookups for "${commented(title).replace(/["\\]/g, "'")}". Swift 5.7 or later, iOS 15, macOS 12; nothing else is needed.
//
// The key is a program's key (bt_app_…): whoever has the program can read it, so it comes from the build's settings and
// not from the code. A lookup is cancelled with the task: CancellationError says so.
import Foundation
#if canImport(FoundationNetworking)
import FoundationNetworking
#endif

${structs.map(struct).join("\n")}
/// A value that may be a text, a number, or so or not.
public enum Held: Codable, Sendable, CustomStringConvertible {
    case text(String), number(Double), flag(Bool)

    public init(from decoder: Decoder) throws {
        let one = try decoder.singleValueContainer()
        if let flag = try? one.decode(Bool.self) {
            self = .flag(flag)
        } else if let number = try? one.decode(Double.self) {
            self = .number(number)
        } else {
            self = .text(try one.decode(String.self))
        }
    }

    public func encode(to encoder: Encoder) throws {
        var one = encoder.singleValueContainer()
        switch self {
        case .text(let value): try one.encode(value)
        case .number(let value): try one.encode(value)
        case .flag(let value): try one.encode(value)
        }
    }

    public var description: String {
        switch self {
        case .text(let value): return value
        case .number(let value): return String(value)
        case .flag(let value): return value ? "yes" : "no"
        }
    }
}

/// A lookup without an answer. An empty list is none of these: that is an answer.
public struct LookupFailed: Error {
    public enum Trouble: String, Sendable {
        case offline, slow, refused, limit, malformed, missing, broken
    }

    public let trouble: Trouble
    /// What the service said; nil where it said nothing.
    public var problem: Problem?
    /// Whether a retry may help, and the seconds that the service wants to be left alone.
    public var again = false
    public var after: Int?
}

public final class AddressLookups: Sendable {
    /// What this form looks for.
    private static let narrow: [String: String] = [${
      Object.entries(narrow)
        .map(([name, value]) => `${text(name)}: ${text(value)}`)
        .join(", ") || ":"
    }]

    private let service: URL
    private let key: String
    private let session: URLSession

    public init(key: String, service: URL = URL(string: ${text(service)})!) {
        self.key = key
        self.service = service
        let settings = URLSessionConfiguration.ephemeral
        settings.timeoutIntervalForRequest = 8
        session = URLSession(configuration: settings)
    }
${has("suggest") ? method("Lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record.", "suggest", "SuggestAnswer", "_ text: String", '"/v1/suggest"', '["q": text].merging(Self.narrow) { params, _ in params }') : ""}${has("forward") ? method('Candidates for an address by its parts, or as free text in "q", the likeliest first. Only "matched" needs no confirmation.', "forward", "ForwardAnswer", "_ params: [String: String]", '"/v1/forward"', "params.merging(Self.narrow) { params, _ in params }") : ""}${has("reverse") ? method("The nearest address to a position (WGS 84 degrees), then the areas around it.", "reverse", "ReverseAnswer", "lat: Double, lon: Double", '"/v1/reverse"', '["at": "\\(lat),\\(lon)"].merging(Self.narrow) { params, _ in params }') : ""}${has("record") ? method("One record by ref, as stored when the suggestion was chosen.", "record", "RecordAnswer", "_ ref: String", '"/v1/records/\\(Self.encoded(ref))"', "[:]") : ""}${has("forward") ? lookups.map(lookup).join("") : ""}
    private func get<Answer: Decodable>(_ kind: Answer.Type, path: String, params: [String: String]) async throws -> Answer {
        // a value that is missing asks for nothing
        let query = params
            .filter { !$0.value.trimmingCharacters(in: .whitespaces).isEmpty }
            .map { "\\(Self.encoded($0.key))=\\(Self.encoded($0.value))" }
            .joined(separator: "&")
        guard let url = URL(string: "\\(service.absoluteString)\\(path)?\\(query)") else {
            throw LookupFailed(trouble: .malformed)
        }
        var request = URLRequest(url: url)
        request.setValue("Bearer \\(key)", forHTTPHeaderField: "Authorization")
        request.setValue("application/json", forHTTPHeaderField: "Accept")
        let data: Data
        let response: URLResponse
        do {
            (data, response) = try await session.data(for: request)
        } catch let error as URLError where error.code == .cancelled {
            throw CancellationError()
        } catch let error as URLError where error.code == .timedOut {
            throw LookupFailed(trouble: .slow, again: true)
        } catch is URLError {
            throw LookupFailed(trouble: .offline, again: true)
        }
        guard let http = response as? HTTPURLResponse else { throw LookupFailed(trouble: .broken) }
        guard http.statusCode == 200 else { throw Self.failed(http, data) }
        do {
            return try JSONDecoder().decode(kind, from: data)
        } catch is DecodingError {
            throw LookupFailed(trouble: .broken)
        }
    }

    private static func failed(_ response: HTTPURLResponse, _ data: Data) -> LookupFailed {
        let status = response.statusCode
        let trouble: LookupFailed.Trouble
        switch status {
        case 401, 403: trouble = .refused
        case 404, 410: trouble = .missing
        case 429: trouble = .limit
        default: trouble = status >= 500 ? .broken : .malformed
        }
        let problem = try? JSONDecoder().decode(Problem.self, from: data)
        let after = response.value(forHTTPHeaderField: "Retry-After").flatMap { Int($0) }
        return LookupFailed(trouble: trouble, problem: problem, again: status == 429 || status >= 500, after: after)
    }

    private static func encoded(_ text: String) -> String {
        let plain = CharacterSet(charactersIn: "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-._~")
        return text.addingPercentEncoding(withAllowedCharacters: plain) ?? ""
    }
}
${has("suggest") ? TYPING : ""}`;
}

const TYPING = `
/// Suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped.
@MainActor
public final class Typing {
    private let lookups: AddressLookups
    private let show: (String, [Suggestion]) -> Void
    private let fail: (LookupFailed) -> Void
    private var underWay: Task<Void, Never>?

    public init(
        _ lookups: AddressLookups,
        show: @escaping (String, [Suggestion]) -> Void,
        fail: @escaping (LookupFailed) -> Void
    ) {
        self.lookups = lookups
        self.show = show
        self.fail = fail
    }

    public func typed(_ text: String) {
        underWay?.cancel()
        guard !text.trimmingCharacters(in: .whitespaces).isEmpty else {
            show(text, [])
            return
        }
        underWay = Task {
            do {
                let answer = try await lookups.suggest(text)
                if !Task.isCancelled { show(text, answer.suggestions) }
            } catch let failed as LookupFailed {
                if !Task.isCancelled { fail(failed) }
            } catch {
                // more was typed
            }
        }
    }
}
`;

function lookup(one: Program["lookups"][number]): string {
  const { parameters, lookups } = parametersOf(one, named);
  const words = lookups.map(({ part, parameters: own }) =>
    own.length === 1
      ? `            ${text(part)}: ${own[0]},`
      : `            ${text(part)}: [${own.join(", ")}].filter { !$0.isEmpty }.joined(separator: ", "),`,
  );
  return `
    /// Looks up what is in the form's fields, before a record is stored.
    public func find${pascal(one.name)}(${parameters.map((name) => `${name}: String = ""`).join(", ")}) async throws -> ForwardAnswer {
        try await forward([
${words.join("\n")}
        ])
    }
`;
}
