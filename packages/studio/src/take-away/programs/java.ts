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
  "abstract assert boolean break byte case catch char class const continue default do double else enum extends final finally float for goto if implements import instanceof int interface long native new package private protected public return short static strictfp super switch synchronized this throw throws transient try void volatile while true false null var record yield client params",
  (name) => `${name}Value`,
);

const typeOf = typeWriter(
  { text: "String", number: "Double", integer: "Long", yesNo: "Boolean", any: "Object" },
  (of) => `List<${of}>`,
  (of) => `Map<String, ${of}>`,
);

const field = ({ name, type }: FieldOf) => `${typeOf(type)} ${named(name)}`;
const struct = ({
  name,
  words,
  fields,
}: Struct) => `${words ? `    /** ${commented(words)} */\n` : ""}    public record ${name}(
        ${fields.map(field).join(",\n        ")}) {}
`;

/** The lookups of a form for Java 17 and later, with nothing but its standard library. */
export function javaOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const method = (words: string, name: string, answer: string, parameters: string, path: string, lookups: string) => `
    /** ${words} */
    public CompletableFuture<${answer}> ${name}(${parameters}) {
        return get(${answer}.class, ${path}, ${lookups});
    }
`;
  return `import java.io.IOException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/**
 * Address lookups for "${commented(title).replace(/[\\"]/g, "'")}". Java 17 or later; nothing else is needed. What is missing in an answer is null.
 * The key is in the environment: BIBLIOTOPE_KEY is a server key on a server (bt_srv_…), a program's key (bt_app_…) in
 * what people install. A lookup is cancelled by its future: future.cancel(true).
 */
public final class AddressLookups {
    private static final String SERVICE = ${quoted(service)};
    /** After which a lookup is given up. */
    private static final Duration TIMEOUT = Duration.ofSeconds(8);
    /** What this form looks for. */
    private static final Map<String, String> NARROW = Map.of(${Object.entries(narrow).flat().map(quoted).join(", ")});

${structs.map(struct).join("\n")}
    /** A lookup without an answer. An empty list is none of these: that is an answer. */
    public static final class LookupFailed extends RuntimeException {
        private static final long serialVersionUID = 1;
        /** offline, slow, refused, limit, malformed, missing or broken. */
        public final String trouble;
        /** What the service said; null where it said nothing. */
        public final transient Problem problem;
        /** Whether a retry may help, and the seconds that the service wants to be left alone; 0 where it did not say. */
        public final boolean again;
        public final long after;

        LookupFailed(String trouble, Problem problem, boolean again, long after) {
            super(problem == null ? trouble : problem.detail());
            this.trouble = trouble;
            this.problem = problem;
            this.again = again;
            this.after = after;
        }
    }

    private final HttpClient http = HttpClient.newBuilder().connectTimeout(TIMEOUT).build();
    private final String service;
    private final String key;

    public AddressLookups(String service, String key) {
        this.service = service;
        this.key = key;
    }

    public AddressLookups() {
        this(System.getenv().getOrDefault("BIBLIOTOPE_URL", SERVICE), System.getenv().getOrDefault("BIBLIOTOPE_KEY", ""));
    }
${has("suggest") ? method("Lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record.", "suggest", "SuggestAnswer", "String text", '"/v1/suggest"', 'with(NARROW, "q", text)') : ""}${has("forward") ? method('Candidates for an address by its parts, or as free text in "q", the likeliest first. Only "matched" needs no confirmation.', "forward", "ForwardAnswer", "Map<String, String> params", '"/v1/forward"', "joined(NARROW, params)") : ""}${has("reverse") ? method("The nearest address to a position (WGS 84 degrees), then the areas around it.", "reverse", "ReverseAnswer", "double lat, double lon", '"/v1/reverse"', 'with(NARROW, "at", lat + "," + lon)') : ""}${has("record") ? method("One record by ref, as stored when the suggestion was chosen.", "recordOf", "RecordAnswer", "String ref", '"/v1/records/" + encoded(ref)', "Map.of()") : ""}${has("forward") ? lookups.map(lookup).join("") : ""}
    private <T> CompletableFuture<T> get(Class<T> kind, String path, Map<String, String> params) {
        // a value that is missing asks for nothing
        String query = params.entrySet().stream()
            .filter(one -> one.getValue() != null && !one.getValue().isBlank())
            .map(one -> encoded(one.getKey()) + "=" + encoded(one.getValue()))
            .collect(Collectors.joining("&"));
        HttpRequest request = HttpRequest.newBuilder(URI.create(service + path + "?" + query))
            .timeout(TIMEOUT)
            .header("Authorization", "Bearer " + key)
            .header("Accept", "application/json")
            .build();
        CompletableFuture<HttpResponse<String>> sent =
            http.sendAsync(request, HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
        CompletableFuture<T> answer = new CompletableFuture<>();
        sent.whenComplete((response, error) -> {
            if (error != null) {
                Throwable cause = error instanceof CompletionException ? error.getCause() : error;
                String trouble = cause instanceof HttpTimeoutException ? "slow" : "offline";
                answer.completeExceptionally(new LookupFailed(trouble, null, true, 0));
                return;
            }
            try {
                if (response.statusCode() != 200) throw failed(response);
                answer.complete(kind.cast(read(kind, new Json(response.body()).value())));
            } catch (LookupFailed failed) {
                answer.completeExceptionally(failed);
            } catch (RuntimeException | ReflectiveOperationException broken) {
                answer.completeExceptionally(new LookupFailed("broken", null, false, 0));
            }
        });
        // nobody wants the answer any more: the request ends too
        answer.whenComplete((value, error) -> {
            if (answer.isCancelled()) sent.cancel(true);
        });
        return answer;
    }

    private static LookupFailed failed(HttpResponse<String> response) {
        int status = response.statusCode();
        String trouble = switch (status) {
            case 401, 403 -> "refused";
            case 404, 410 -> "missing";
            case 429 -> "limit";
            default -> status >= 500 ? "broken" : "malformed";
        };
        Problem problem;
        try {
            problem = (Problem) read(Problem.class, new Json(response.body()).value());
        } catch (RuntimeException | ReflectiveOperationException none) {
            problem = null;
        }
        String after = response.headers().firstValue("Retry-After").orElse("");
        return new LookupFailed(trouble, problem, status == 429 || status >= 500, after.matches("\\\\d{1,9}") ? Long.parseLong(after) : 0);
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static Map<String, String> with(Map<String, String> narrow, String name, String value) {
        return joined(narrow, Map.of(name, value));
    }

    private static Map<String, String> joined(Map<String, String> narrow, Map<String, String> params) {
        Map<String, String> all = new LinkedHashMap<>(params);
        all.putAll(narrow);
        return all;
    }

    /** A value of JSON as what it is to be; what is missing is null, and what is not known here is left aside. */
    private static Object read(Type type, Object value) throws ReflectiveOperationException {
        if (value == null) return null;
        if (type instanceof ParameterizedType many) {
            Type[] of = many.getActualTypeArguments();
            if (many.getRawType() == List.class) {
                List<Object> all = new ArrayList<>();
                for (Object one : (List<?>) value) all.add(read(of[0], one));
                return all;
            }
            Map<String, Object> all = new LinkedHashMap<>();
            for (Map.Entry<?, ?> one : ((Map<?, ?>) value).entrySet()) all.put((String) one.getKey(), read(of[1], one.getValue()));
            return all;
        }
        Class<?> kind = (Class<?>) type;
        if (kind == Long.class) return ((Number) value).longValue();
        if (kind == Double.class) return ((Number) value).doubleValue();
        if (!kind.isRecord()) return value;
        RecordComponent[] parts = kind.getRecordComponents();
        Class<?>[] types = new Class<?>[parts.length];
        Object[] values = new Object[parts.length];
        for (int i = 0; i < parts.length; i++) {
            types[i] = parts[i].getType();
            String name = parts[i].getName();
            Map<?, ?> held = (Map<?, ?>) value;
            // a name that Java keeps for itself ends in Value
            Object one = held.containsKey(name) ? held.get(name) : held.get(name.replaceAll("Value$", ""));
            values[i] = read(parts[i].getGenericType(), one);
        }
        return kind.getDeclaredConstructor(types).newInstance(values);
    }

    /** JSON (RFC 8259) as maps, lists, texts, numbers, true, false and null. */
    private static final class Json {
        private final String text;
        private int at;

        Json(String text) {
            this.text = text;
        }

        Object value() {
            char first = next();
            switch (first) {
                case '{': {
                    Map<String, Object> all = new LinkedHashMap<>();
                    while (!ends('}')) {
                        next();
                        String name = string();
                        if (next() != ':') throw wrong();
                        all.put(name, value());
                    }
                    return all;
                }
                case '[': {
                    List<Object> all = new ArrayList<>();
                    while (!ends(']')) all.add(value());
                    return all;
                }
                case '"':
                    return string();
                default:
                    int start = at - 1;
                    while (at < text.length() && ",]} \\t\\r\\n".indexOf(text.charAt(at)) < 0) at++;
                    String word = text.substring(start, at);
                    if (word.equals("null")) return null;
                    if (word.equals("true") || word.equals("false")) return Boolean.valueOf(word);
                    return Double.valueOf(word);
            }
        }

        private char next() {
            while (at < text.length() && Character.isWhitespace(text.charAt(at))) at++;
            if (at >= text.length()) throw wrong();
            return text.charAt(at++);
        }

        /** Whether a list ends here; passes the comma before what follows. */
        private boolean ends(char with) {
            char here = next();
            if (here == with) return true;
            if (here != ',') at--;
            return false;
        }

        private String string() {
            StringBuilder all = new StringBuilder();
            for (;;) {
                char one = text.charAt(at++);
                if (one == '"') return all.toString();
                if (one != '\\\\') {
                    all.append(one);
                    continue;
                }
                char escaped = text.charAt(at++);
                int simple = "bfnrt".indexOf(escaped);
                if (escaped == 'u') {
                    all.append((char) Integer.parseInt(text.substring(at, at + 4), 16));
                    at += 4;
                } else all.append(simple < 0 ? escaped : "\\b\\f\\n\\r\\t".charAt(simple));
            }
        }

        private RuntimeException wrong() {
            return new IllegalArgumentException("no JSON at " + at);
        }
    }
${has("suggest") ? TYPING : ""}
    public static void main(String[] words) throws Exception {
        AddressLookups lookups = new AddressLookups();
        String text = String.join(" ", words);
        try {
${main(calls)}
        } catch (CompletionException error) {
            if (!(error.getCause() instanceof LookupFailed failed)) throw error;
            System.err.println(failed.trouble + ": " + failed.getMessage());
            System.exit(1);
        }
    }
}
`;
}

const TYPING = `
    /** Suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped. */
    public final class Typing {
        private final BiConsumer<String, List<Suggestion>> show;
        private final Consumer<LookupFailed> fail;
        private CompletableFuture<SuggestAnswer> underWay;

        public Typing(BiConsumer<String, List<Suggestion>> show, Consumer<LookupFailed> fail) {
            this.show = show;
            this.fail = fail;
        }

        public synchronized void typed(String text) {
            if (underWay != null) underWay.cancel(true);
            if (text.isBlank()) {
                show.accept(text, List.of());
                return;
            }
            CompletableFuture<SuggestAnswer> mine = suggest(text);
            underWay = mine;
            mine.whenComplete((answer, error) -> {
                if (mine.isCancelled() || mine != underWay) return;
                if (answer != null) show.accept(text, answer.suggestions());
                else if (error instanceof LookupFailed failed) fail.accept(failed);
            });
        }
    }
`;

function lookup(one: Program["lookups"][number]): string {
  const { parameters, lookups } = parametersOf(one, named);
  const puts = lookups.map(({ part, parameters: own }) =>
    own.length === 1
      ? `        params.put(${quoted(part)}, ${own[0]});`
      : `        params.put(${quoted(part)}, java.util.stream.Stream.of(${own.join(", ")}).filter(value -> value != null && !value.isBlank()).collect(Collectors.joining(", ")));`,
  );
  return `
    /** Looks up what is in the form's fields, before a record is stored. */
    public CompletableFuture<ForwardAnswer> find${pascal(one.name)}(${parameters.map((name) => `String ${name}`).join(", ")}) {
        Map<String, String> params = new LinkedHashMap<>();
${puts.join("\n")}
        return forward(params);
    }
`;
}

function main(calls: Program["calls"]): string {
  if (calls.includes("suggest"))
    return `            for (Suggestion suggestion : lookups.suggest(text).join().suggestions())
                System.out.println(suggestion.ref() + "  " + suggestion.line());`;
  if (!calls.includes("forward"))
    return `            for (RecordFeature feature : lookups.reverse(Double.parseDouble(words[0]), Double.parseDouble(words[1])).join().features())
                System.out.println(feature.id() + "  " + feature.properties().line());`;
  return `            ForwardAnswer answer = lookups.forward(Map.of("q", text)).join();
            System.out.println(answer.outcome());
            for (RecordFeature feature : answer.features())
                System.out.println(feature.id() + "  " + feature.properties().line());`;
}
