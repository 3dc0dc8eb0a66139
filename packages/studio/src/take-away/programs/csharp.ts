import {
  camel,
  commented,
  type FieldOf,
  type Program,
  parametersOf,
  pascal,
  quoted,
  type Struct,
  typeWriter,
} from "./model.ts";

const typeOf = typeWriter(
  { text: "string", number: "double", integer: "long", yesNo: "bool", any: "JsonElement" },
  (of) => `IReadOnlyList<${of}>`,
  (of) => `IReadOnlyDictionary<string, ${of}>`,
);
/** A parameter: with a sign before it, no keyword is one. */
const named = (name: string) => `@${/^[a-zA-Z]/.test(camel(name)) ? camel(name) : `value${camel(name)}`}`;
const field = ({ name, type, isOptional }: FieldOf) =>
  `    [property: JsonPropertyName("${name}")] ${typeOf(type)}${isOptional ? "?" : ""} ${pascal(name)}${isOptional ? " = null" : ""}`;
const struct = ({ name, words, fields }: Struct) =>
  `${words ? `/// <summary>${commented(words).replace(/[<>&]/g, "")}</summary>\n` : ""}public sealed record ${name}(\n${fields.map(field).join(",\n")});\n`;

/** The lookups of a form for C# 10 and .NET 6 or later, with nothing but what comes with it. */
export function csharpOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const method = (words: string, name: string, answer: string, parameters: string, path: string, lookups: string) => `
    /// <summary>${words}</summary>
    public Task<${answer}> ${name}Async(${parameters}, CancellationToken cancel = default) =>
        GetAsync<${answer}>(${path}, ${lookups}, cancel);
`;
  return `// Address lookups for "${commented(title).replace(/["\\]/g, "'")}". .NET 6 or later; nothing else is needed.
//
// The key is in the environment: BIBLIOTOPE_KEY is a server key on a server (bt_srv_...), a program's key (bt_app_...) in
// what people install. A lookup is cancelled by its token: OperationCanceledException says so.
#nullable enable
using System;
using System.Collections.Generic;
using System.Globalization;
using System.Linq;
using System.Net;
using System.Net.Http;
using System.Net.Http.Headers;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Threading;
using System.Threading.Tasks;

namespace Addresses;

${structs.map(struct).join("\n")}
/// <summary>A lookup without an answer. An empty list is none of these: that is an answer.</summary>
public sealed class LookupFailed : Exception
{
    /// <summary>offline, slow, refused, limit, malformed, missing or broken.</summary>
    public string Trouble { get; }
    public Problem? Problem { get; }
    /// <summary>Whether a retry may help, and for how long the service wants to be left alone.</summary>
    public bool Again { get; }
    public TimeSpan? After { get; }

    public LookupFailed(string trouble, Problem? problem = null, bool again = false, TimeSpan? after = null, Exception? cause = null)
        : base(problem?.Detail ?? trouble, cause)
    {
        Trouble = trouble;
        Problem = problem;
        Again = again;
        After = after;
    }
}

public sealed class AddressLookups : IDisposable
{
    private const string Service = ${quoted(service)};
    /// <summary>After which a lookup is given up.</summary>
    private static readonly TimeSpan Limit = TimeSpan.FromSeconds(8);
    /// <summary>What this form looks for.</summary>
    private static readonly Dictionary<string, string?> Narrow = new()
    {
${Object.entries(narrow)
  .map(([name, value]) => `        [${quoted(name)}] = ${quoted(value)},`)
  .join("\n")}
    };

    private readonly HttpClient http;

    public AddressLookups(string? service = null, string? key = null)
    {
        string url = service ?? Environment.GetEnvironmentVariable("BIBLIOTOPE_URL") ?? Service;
        http = new HttpClient { BaseAddress = new Uri(url), Timeout = Limit };
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
            "Bearer", key ?? Environment.GetEnvironmentVariable("BIBLIOTOPE_KEY") ?? "");
        http.DefaultRequestHeaders.Accept.ParseAdd("application/json");
    }
${has("suggest") ? method("Lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record.", "Suggest", "SuggestAnswer", "string text", '"/v1/suggest"', 'With("q", text)') : ""}${has("forward") ? method("Candidates for an address by its parts, or as free text in q, the likeliest first. Only matched needs no confirmation.", "Forward", "ForwardAnswer", "IEnumerable<KeyValuePair<string, string?>> params", '"/v1/forward"', "params.Concat(Narrow)") : ""}${has("reverse") ? method("The nearest address to a position (WGS 84 degrees), then the areas around it.", "Reverse", "ReverseAnswer", "double lat, double lon", '"/v1/reverse"', 'With("at", FormattableString.Invariant($"{lat},{lon}"))') : ""}${has("record") ? method("One record by ref, as stored when the suggestion was chosen.", "Record", "RecordAnswer", "string reference", '"/v1/records/" + Uri.EscapeDataString(reference)', "Array.Empty<KeyValuePair<string, string?>>()") : ""}${has("forward") ? lookups.map(lookup).join("") : ""}
    private static IEnumerable<KeyValuePair<string, string?>> With(string name, string value) =>
        Narrow.Append(new KeyValuePair<string, string?>(name, value));

    private async Task<T> GetAsync<T>(string path, IEnumerable<KeyValuePair<string, string?>> params, CancellationToken cancel)
    {
        // a value that is missing asks for nothing
        var query = string.Join("&", params
            .Where(one => !string.IsNullOrWhiteSpace(one.Value))
            .Select(one => Uri.EscapeDataString(one.Key) + "=" + Uri.EscapeDataString(one.Value!)));
        try
        {
            using var response = await http.GetAsync(path + "?" + query, cancel).ConfigureAwait(false);
            var body = await response.Content.ReadAsStringAsync(cancel).ConfigureAwait(false);
            if (response.StatusCode != HttpStatusCode.OK) throw Failed(response, body);
            return JsonSerializer.Deserialize<T>(body) ?? throw new LookupFailed("broken");
        }
        catch (JsonException error)
        {
            throw new LookupFailed("broken", cause: error);
        }
        catch (HttpRequestException error)
        {
            throw new LookupFailed("offline", again: true, cause: error);
        }
        catch (TaskCanceledException error) when (!cancel.IsCancellationRequested)
        {
            throw new LookupFailed("slow", again: true, cause: error);
        }
    }

    private static LookupFailed Failed(HttpResponseMessage response, string body)
    {
        int status = (int)response.StatusCode;
        string trouble = status switch
        {
            401 or 403 => "refused",
            404 or 410 => "missing",
            429 => "limit",
            _ => status >= 500 ? "broken" : "malformed",
        };
        Problem? problem = null;
        try
        {
            problem = JsonSerializer.Deserialize<Problem>(body);
        }
        catch (JsonException)
        {
            // it said nothing that can be read
        }
        return new LookupFailed(trouble, problem, status == 429 || status >= 500, response.Headers.RetryAfter?.Delta);
    }

    public void Dispose() => http.Dispose();
}
${has("suggest") ? TYPING : ""}`;
}

const TYPING = `
/// <summary>Suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped.</summary>
public sealed class Typing
{
    private readonly AddressLookups lookups;
    private readonly Action<string, IReadOnlyList<Suggestion>> show;
    private readonly Action<LookupFailed> fail;
    private CancellationTokenSource? underWay;

    public Typing(AddressLookups lookups, Action<string, IReadOnlyList<Suggestion>> show, Action<LookupFailed> fail)
    {
        this.lookups = lookups;
        this.show = show;
        this.fail = fail;
    }

    public async Task TypedAsync(string text)
    {
        underWay?.Cancel();
        var mine = underWay = new CancellationTokenSource();
        try
        {
            IReadOnlyList<Suggestion> found = string.IsNullOrWhiteSpace(text)
                ? Array.Empty<Suggestion>()
                : (await lookups.SuggestAsync(text, mine.Token)).Suggestions;
            if (mine == underWay) show(text, found);
        }
        catch (OperationCanceledException)
        {
            // more was typed
        }
        catch (LookupFailed failed)
        {
            if (mine == underWay) fail(failed);
        }
    }
}
`;

function lookup(one: Program["lookups"][number]): string {
  const { parameters, lookups } = parametersOf(one, named);
  const words = lookups.map(({ part, parameters: own }) =>
    own.length === 1
      ? `            [${quoted(part)}] = ${own[0]},`
      : `            [${quoted(part)}] = string.Join(", ", new[] { ${own.join(", ")} }.Where(value => !string.IsNullOrWhiteSpace(value))),`,
  );
  return `
    /// <summary>Looks up what is in the form's fields, before a record is stored.</summary>
    public Task<ForwardAnswer> Find${pascal(one.name)}Async(${parameters.map((name) => `string? ${name}`).join(", ")}, CancellationToken cancel = default) =>
        ForwardAsync(new Dictionary<string, string?>
        {
${words.join("\n")}
        }, cancel);
`;
}
