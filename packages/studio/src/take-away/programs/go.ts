import {
  camel,
  commented,
  type FieldOf,
  nameWriter,
  type Program,
  parametersOf,
  pascal,
  type Struct,
  typeWriter,
} from "./model.ts";

const named = nameWriter(
  camel,
  "break case chan const continue default defer else fallthrough for func go goto if import interface map package range return select struct switch type var string error len c ctx params strings context",
  (name) => `${name}Value`,
);
const quoted = (text: string) => JSON.stringify(text);

const typeOf = typeWriter(
  { text: "string", number: "float64", integer: "int", yesNo: "bool", any: "any" },
  (of) => `[]${of}`,
  (of) => `map[string]${of}`,
);

/** What may be missing is a pointer, so that it differs from what is empty. */
const isPointer = ({ type, isOptional }: FieldOf) =>
  isOptional && type.is !== "list" && type.is !== "map" && type.is !== "any" ? `*${typeOf(type)}` : typeOf(type);
const field = (one: FieldOf) =>
  `\t${pascal(one.name)} ${isPointer(one)} \`json:"${one.name}${one.isOptional ? ",omitempty" : ""}"\`${one.words ? ` // ${commented(one.words)}` : ""}`;
const struct = ({ name, words, fields }: Struct) =>
  `// ${name}${words ? `: ${commented(words)}` : " is what an answer holds."}\ntype ${name} struct {\n${fields.map(field).join("\n")}\n}\n`;

/** The lookups of a form for Go 1.18 and later, with nothing but its standard library. */
export function goOf({ title, service, calls, narrow, lookups, structs }: Program): string {
  const has = (call: string) => calls.some((one) => one === call);
  const method = (
    words: string,
    name: string,
    parameters: string,
    path: string,
    lookups: string,
    answer = `${name}Answer`,
  ) => `
// ${name} ${words}
func (c *Client) ${name}(ctx context.Context, ${parameters}) (*${answer}, error) {
	var answer ${answer}
	return &answer, c.get(ctx, ${path}, ${lookups}, &answer)
}
`;
  return `// Address lookups for "${commented(title).replace(/["\\]/g, "'")}". Go 1.18 or later; nothing else is needed.
//
// The key is in the environment: BIBLIOTOPE_KEY is a server key on a server (bt_srv_…), a program's key (bt_app_…) in
// what people install. A lookup is cancelled by its context.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"os"
	"strconv"
	"strings"
	"sync"
	"time"
)

const defaultService = ${quoted(service)}

// Timeout is how long a lookup may take.
const Timeout = 8 * time.Second

// narrow is what this form looks for.
var narrow = map[string]string{${Object.entries(narrow)
    .map(([name, value]) => `${quoted(name)}: ${quoted(value)}`)
    .join(", ")}}

${structs.map(struct).join("\n")}
// LookupFailed is a lookup without an answer. An empty list is none: that is an answer.
type LookupFailed struct {
	// Trouble is offline, slow, refused, limit, malformed, missing or broken.
	Trouble string
	// Problem is what the service said; nil where it said nothing.
	Problem *Problem
	// Again says Whether a retry may help, After for how long the service wants to be left alone.
	Again bool
	After time.Duration
	cause error
}

func (f *LookupFailed) Error() string {
	if f.Problem != nil {
		return f.Trouble + ": " + f.Problem.Detail
	}
	return f.Trouble
}

// Unwrap gives what was behind it.
func (f *LookupFailed) Unwrap() error { return f.cause }

// Client asks the service.
type Client struct {
	service, key string
	http         *http.Client
}

// NewClient reads the key from the environment.
func NewClient() *Client {
	service := os.Getenv("BIBLIOTOPE_URL")
	if service == "" {
		service = defaultService
	}
	return &Client{service, os.Getenv("BIBLIOTOPE_KEY"), &http.Client{Timeout: Timeout}}
}
${has("suggest") ? method("gives lines to choose from while somebody types. Keep the ref of the one that is chosen, and ask for its record.", "Suggest", "text string", '"/v1/suggest"', 'with(narrow, map[string]string{"q": text})') : ""}${has("forward") ? method('gives candidates for an address by its parts, or as free text in "q", the likeliest first.\n// Only "matched" needs no confirmation.', "Forward", "params map[string]string", '"/v1/forward"', "with(narrow, params)") : ""}${has("reverse") ? method("gives the nearest address to a position (WGS 84 degrees), then the areas around it.", "Reverse", "lat, lon float64", '"/v1/reverse"', 'with(narrow, map[string]string{"at": fmt.Sprintf("%g,%g", lat, lon)})') : ""}${has("record") ? method("gives one record by its ref: what was chosen is asked for so, and never by its text.", "Record", "ref string", '"/v1/records/"+url.PathEscape(ref)', "nil") : ""}${has("forward") ? lookups.map(lookup).join("") : ""}
func with(narrow, params map[string]string) map[string]string {
	all := map[string]string{}
	for _, some := range []map[string]string{params, narrow} {
		for name, value := range some {
			all[name] = value
		}
	}
	return all
}

func (c *Client) get(ctx context.Context, path string, params map[string]string, answer any) error {
	query := url.Values{}
	for name, value := range params {
		// a value that is missing asks for nothing
		if strings.TrimSpace(value) != "" {
			query.Set(name, value)
		}
	}
	request, err := http.NewRequestWithContext(ctx, http.MethodGet, c.service+path+"?"+query.Encode(), nil)
	if err != nil {
		return err
	}
	request.Header.Set("Authorization", "Bearer "+c.key)
	request.Header.Set("Accept", "application/json")
	response, err := c.http.Do(request)
	if err != nil {
		if ctx.Err() != nil {
			return ctx.Err() // nobody wants the answer any more
		}
		trouble := "offline"
		var timed net.Error
		if errors.As(err, &timed) && timed.Timeout() {
			trouble = "slow"
		}
		return &LookupFailed{Trouble: trouble, Again: true, cause: err}
	}
	defer response.Body.Close()
	if response.StatusCode != http.StatusOK {
		return failed(response)
	}
	if err := json.NewDecoder(response.Body).Decode(answer); err != nil {
		return &LookupFailed{Trouble: "broken", cause: err}
	}
	return nil
}

func failed(response *http.Response) error {
	status := response.StatusCode
	trouble := "malformed"
	switch {
	case status == 401 || status == 403:
		trouble = "refused"
	case status == 404 || status == 410:
		trouble = "missing"
	case status == 429:
		trouble = "limit"
	case status >= 500:
		trouble = "broken"
	}
	failed := &LookupFailed{Trouble: trouble, Again: status == 429 || status >= 500}
	var problem Problem
	if json.NewDecoder(response.Body).Decode(&problem) == nil {
		failed.Problem = &problem
	}
	if seconds, err := strconv.Atoi(response.Header.Get("Retry-After")); err == nil {
		failed.After = time.Duration(seconds) * time.Second
	}
	return failed
}
${has("suggest") ? TYPING : "\nvar _ sync.Mutex\n"}
func main() {
	client := NewClient()
	text := strings.Join(os.Args[1:], " ")
${main(calls)}
}

func check(err error) {
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}
`;
}

const TYPING = `
// Typing gives suggestions while somebody types: what is no longer wanted is cancelled, and what comes too late is dropped.
type Typing struct {
	Client *Client
	Show   func(text string, suggestions []Suggestion)
	Fail   func(error)
	mutex  sync.Mutex
	cancel context.CancelFunc
}

// Typed hears what is in the field now.
func (t *Typing) Typed(text string) {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	if t.cancel != nil {
		t.cancel()
	}
	ctx, cancel := context.WithCancel(context.Background())
	t.cancel = cancel
	if strings.TrimSpace(text) == "" {
		t.Show(text, nil)
		return
	}
	go func() {
		answer, err := t.Client.Suggest(ctx, text)
		if ctx.Err() != nil {
			return
		}
		if err != nil {
			t.Fail(err)
		} else {
			t.Show(text, answer.Suggestions)
		}
	}()
}
`;

function lookup(one: Program["lookups"][number]): string {
  const { parameters, lookups } = parametersOf(one, named);
  const words = lookups.map(({ part, parameters: own }) =>
    own.length === 1 ? `${quoted(part)}: ${own[0]}` : `${quoted(part)}: joined(${own.join(", ")})`,
  );
  const hasJoined = lookups.some(({ parameters: own }) => own.length > 1);
  return `
// Find${pascal(one.name)} looks up what is in the form's fields, before a record is stored.
func (c *Client) Find${pascal(one.name)}(ctx context.Context, ${parameters.join(", ")} string) (*ForwardAnswer, error) {
${
  hasJoined
    ? `	joined := func(values ...string) string {
		held := []string{}
		for _, value := range values {
			if strings.TrimSpace(value) != "" {
				held = append(held, value)
			}
		}
		return strings.Join(held, ", ")
	}
`
    : ""
}	return c.Forward(ctx, map[string]string{${words.join(", ")}})
}
`;
}

function main(calls: Program["calls"]): string {
  if (calls.includes("suggest"))
    return `	answer, err := client.Suggest(context.Background(), text)
	check(err)
	for _, suggestion := range answer.Suggestions {
		fmt.Println(suggestion.Ref + "  " + suggestion.Line)
	}`;
  if (!calls.includes("forward"))
    return `	var lat, lon float64
	_, err := fmt.Sscan(text, &lat, &lon)
	check(err)
	answer, err := client.Reverse(context.Background(), lat, lon)
	check(err)
	for _, feature := range answer.Features {
		fmt.Println(feature.Id + "  " + feature.Properties.Line)
	}`;
  return `	answer, err := client.Forward(context.Background(), map[string]string{"q": text})
	check(err)
	fmt.Println(answer.Outcome)
	for _, feature := range answer.Features {
		fmt.Println(feature.Id + "  " + feature.Properties.Line)
	}`;
}
