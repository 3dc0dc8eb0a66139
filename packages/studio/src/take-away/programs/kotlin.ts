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
  "as break class continue do else false for fun if in interface is null object package return super this throw true try typealias typeof val var when while params call",
  (name) => `\`${name}\``,
);

const typeOf = typeWriter(
  { text: "String", number: "Double", integer: "Int", yesNo: "Boolean", any: "Any" },
  (of) => `List<${of}>`,
  (of) => `Map<String, ${of}>`,
);

/** How a value of JSON is read. @param value what it is in, @param at the name or place there */
function read(type: TypeOf, value: string, at: string): string {
  switch (type.is) {
    case "text":
      return `${value}.getString(${at})`;
    case "number":
      return `${value}.getDouble(${at})`;
    case "integer":
      return `${value}.getInt(${at})`;
    case "yesNo":
      return `${value}.getBoolean(${at})`;
    case "any":
      return `${value}.get(${at})`;
    case "list":
      return `${value}.getJSONArray(${at}).let { list -> (0 until list.length()).map { place -> ${read(type.of, "list", "place")} } }`;
    case "map":
      return `${value}.getJSONObject(${at}).let { map -> map.keys().asSequence().associate { name -> "$name" to ${read(type.of, "map", '"$name"')} } }`;
    case "struct":
      return `${type.name}.of(${value}.getJSONObject(${at}))`;
  }
}
const field = ({ name, type, isOptional, words }: FieldOf) =>
  `${words ? `    /** ${commented(words)} */\n` : ""}    val ${named(name)}: ${typeOf(type)}${isOptional ? "? = null" : ""}`;
const reading = ({ name, type, isOptional }: FieldOf) => {
  const value = read(type, "json", quoted(name));
  return `            ${named(name)} = ${isOptional ? `if (json.isNull(${quoted(name)})) null else ${value}` : value}`;
};
const struct = ({ name, words, fields }: Struct) => `${words ? `/** ${commented(words)} */\n` : ""}data class ${name}(
${fields.map(field).join(",\n")}
) {
    companion object {
        fun of(json: JSONObject) = ${name}(
${fields.map(reading).join(",\n")}
        )
    }
}
`;

/** The lookups of a form for Kotlin 1.3 and later, with the JSON that Android has (elsewhere the library org.json). */
export function kotlinOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const method = (words: string, name: string, answer: string, parameters: string, path: string, lookups: string) => `
    /** ${words} */
    fun ${name}(${parameters}, call: Call = Call()): ${answer} = ${answer}.of(get(${path}, ${lookups}, call))
`;
  return `// Address lookups for "${commented(title).replace(/["\\]/g, "'")}". Kotlin 1.3 or later; on Android nothing else is needed, elsewhere org.json.
//
// The key is a program's key (bt_app_…): whoever has the program can read it, so it comes from the build's settings and
// not from the code. Lookups wait for their answer: ask on a thread of your own, or with Dispatchers.IO.
import java.io.IOException
import java.io.InterruptedIOException
import java.net.HttpURLConnection
import java.net.SocketTimeoutException
import java.net.URL
import java.net.URLEncoder
import java.util.concurrent.CancellationException
import kotlin.concurrent.thread
import org.json.JSONException
import org.json.JSONObject

${structs.map(struct).join("\n")}
/**
 * A lookup without an answer. An empty list is none of these: that is an answer.
 * @property trouble offline, slow, refused, limit, malformed, missing or broken
 * @property again Whether a retry may help
 * @property after seconds that the service wants to be left alone
 */
class LookupFailed(
    val trouble: String,
    val problem: Problem? = null,
    val again: Boolean = false,
    val after: Int? = null,
    cause: Throwable? = null
) : Exception(problem?.detail ?: trouble, cause)

/** A lookup under way, which may be cancelled from another thread. */
class Call {
    @Volatile
    var isCancelled = false
        private set

    @Volatile
    internal var connection: HttpURLConnection? = null

    fun cancel() {
        isCancelled = true
        connection?.disconnect()
    }
}

class AddressLookups(private val key: String, private val service: String = ${quoted(service)}) {
    /** What this form looks for. */
    private val narrow = mapOf<String, String>(${Object.entries(narrow)
      .map(([name, value]) => `${quoted(name)} to ${quoted(value)}`)
      .join(", ")})
${has("suggest") ? method("Lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record.", "suggest", "SuggestAnswer", "text: String", '"/v1/suggest"', 'narrow + ("q" to text)') : ""}${has("forward") ? method('Candidates for an address by its parts, or as free text in "q", the likeliest first. Only "matched" needs no confirmation.', "forward", "ForwardAnswer", "params: Map<String, String?>", '"/v1/forward"', "narrow + params") : ""}${has("reverse") ? method("The nearest address to a position (WGS 84 degrees), then the areas around it.", "reverse", "ReverseAnswer", "lat: Double, lon: Double", '"/v1/reverse"', 'narrow + ("at" to "$lat,$lon")') : ""}${has("record") ? method("One record by ref, as stored when the suggestion was chosen.", "record", "RecordAnswer", "ref: String", '"/v1/records/" + encoded(ref)', "mapOf()") : ""}${has("forward") ? lookups.map(lookup).join("") : ""}
    private fun get(path: String, params: Map<String, String?>, call: Call): JSONObject {
        if (call.isCancelled) throw CancellationException()
        // a value that is missing asks for nothing
        val query = params.filterValues { !it.isNullOrBlank() }.map { (name, value) -> encoded(name) + "=" + encoded(value!!) }
        val connection = URL(service + path + "?" + query.joinToString("&")).openConnection() as HttpURLConnection
        call.connection = connection
        try {
            connection.connectTimeout = LIMIT
            connection.readTimeout = LIMIT
            connection.setRequestProperty("Authorization", "Bearer " + key)
            connection.setRequestProperty("Accept", "application/json")
            val status = connection.responseCode
            val stream = if (status == 200) connection.inputStream else connection.errorStream
            val body = stream?.use { it.readBytes().toString(Charsets.UTF_8) } ?: ""
            if (call.isCancelled) throw CancellationException()
            if (status != 200) throw failed(connection, status, body)
            return JSONObject(body)
        } catch (error: JSONException) {
            throw LookupFailed("broken", cause = error)
        } catch (error: IOException) {
            if (call.isCancelled) throw CancellationException()
            val isSlow = error is SocketTimeoutException || error is InterruptedIOException
            throw LookupFailed(if (isSlow) "slow" else "offline", again = true, cause = error)
        } finally {
            connection.disconnect()
        }
    }

    private fun failed(connection: HttpURLConnection, status: Int, body: String): LookupFailed {
        val trouble = when {
            status == 401 || status == 403 -> "refused"
            status == 404 || status == 410 -> "missing"
            status == 429 -> "limit"
            status >= 500 -> "broken"
            else -> "malformed"
        }
        val problem = try {
            Problem.of(JSONObject(body))
        } catch (none: JSONException) {
            null
        }
        return LookupFailed(trouble, problem, status == 429 || status >= 500, connection.getHeaderField("Retry-After")?.toIntOrNull())
    }

    private fun encoded(text: String) = URLEncoder.encode(text, "UTF-8").replace("+", "%20")

    private companion object {
        /** Milliseconds after which a lookup is given up. */
        const val LIMIT = 8000
    }
}
${has("suggest") ? TYPING : ""}`;
}

const TYPING = `
/** Suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped. */
class Typing(
    private val lookups: AddressLookups,
    private val show: (String, List<Suggestion>) -> Unit,
    private val fail: (LookupFailed) -> Unit
) {
    private var underWay: Call? = null

    fun typed(text: String) {
        underWay?.cancel()
        val mine = Call()
        underWay = mine
        if (text.isBlank()) {
            show(text, listOf())
            return
        }
        thread(isDaemon = true) {
            try {
                val answer = lookups.suggest(text, mine)
                if (!mine.isCancelled) show(text, answer.suggestions)
            } catch (failed: LookupFailed) {
                if (!mine.isCancelled) fail(failed)
            } catch (cancelled: CancellationException) {
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
      ? `            ${quoted(part)} to ${own[0]}`
      : `            ${quoted(part)} to listOf(${own.join(", ")}).filter { it.isNotBlank() }.joinToString(", ")`,
  );
  return `
    /** Looks up what is in the form's fields, before a record is stored. */
    fun find${pascal(one.name)}(${parameters.map((name) => `${name}: String = ""`).join(", ")}): ForwardAnswer = forward(
        mapOf(
${words.join(",\n")}
        )
    )
`;
}
