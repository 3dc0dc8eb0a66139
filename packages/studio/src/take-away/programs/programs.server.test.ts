import { spawn } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { SAMPLE_FORMS } from "@bibliotope/islands";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { shared } from "../../../../server/testing/shared.ts";
import { type ProgramLanguage, programCode } from "./index.ts";

/** The sample form with separate fields, for its own question; and the one with a search box, for the rest. */
const [{ definition: READER }] = SAMPLE_FORMS;
const HOUSE = SAMPLE_FORMS.find(({ ref }) => ref === "offer-a-house")!.definition;
/** What takes long to install is compiled in the long tests alone. */
const isLong = Boolean(process.env.BIBLIOTOPE_LONG);

/** A service that takes what it is asked and never answers. */
let silent: Server;
let silentUrl: string;
beforeAll(async () => {
  silent = createServer(() => undefined);
  await new Promise<void>((resolve) => silent.listen(0, "127.0.0.1", resolve));
  silentUrl = `http://127.0.0.1:${(silent.address() as AddressInfo).port}`;
});
afterAll(() => {
  silent.closeAllConnections();
  silent.close();
});

/** Runs a program in a folder with some files. @returns what it printed */
async function run(files: Record<string, string>, ...command: string[]): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-program-"));
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text);
  const { url, keys } = shared();
  const env = {
    ...process.env,
    ...{ BIBLIOTOPE_KEY: keys.app, BIBLIOTOPE_URL: url, SILENT: silentUrl },
    ...{ HOME: folder, GOFLAGS: "-mod=mod", GOCACHE: join(folder, "cache"), GO111MODULE: "off" },
  };
  const [program, ...args] = command;
  const child = spawn(program, args, { cwd: folder, env });
  let [out, wrong] = ["", ""];
  child.stdout.on("data", (piece: Buffer) => {
    out += piece.toString();
  });
  child.stderr.on("data", (piece: Buffer) => {
    wrong += piece.toString();
  });
  const code = await new Promise<number | null>((resolve, reject) =>
    child.once("error", reject).once("close", resolve),
  );
  expect(wrong, `${command.join(" ")} ended with ${code}`).toBe("");
  expect(code).toBe(0);
  return out;
}

const code = (language: ProgramLanguage, form = READER) => programCode(form, shared().url, language);
/** What every language prints of the same questions. */
const EXPECTED = [
  "qr-hgwrp5 12 Harbour Row, Tidewell",
  "surveyed Harbour Row HT0 10 None",
  "matched Østergränd",
  "address",
  "refused Bearer",
  "missing",
  "slow true",
  "offline true",
  "cancelled",
  "typed 12 harbour row tidewell",
].join("\n");

const PYTHON = `import os, threading, time
import addresses as a

client = a.Client()
def fails(act):
    try:
        act()
        return "no failure"
    except a.LookupFailed as failed:
        return failed
first = client.suggest("12 harbour row tidewell").suggestions[0]
print(first.ref, first.line)
found = client.record(first.ref).properties
print(found.exactness, found.parts["street"].name, found.parts["postcode"].name, found.score)
answer = client.forward({"q": "Östergränd 3, Vårhamn"})
print(answer.outcome, answer.features[0].properties.parts["street"].name)
at = found.at
print(client.reverse(at.lat, at.lon).features[0].properties.kind)
refused = fails(lambda: a.Client(key="bt_app_nobody").suggest("12"))
print(refused.trouble, "Bearer" if refused.problem.status == 401 else refused.problem)
print(fails(lambda: client.record("qr-00000")).trouble)
slow = fails(lambda: a.Client(service=os.environ["SILENT"], timeout=0.3).suggest("12"))
print(slow.trouble, str(slow.again).lower())
away = fails(lambda: a.Client(service="http://127.0.0.1:9").suggest("12"))
print(away.trouble, str(away.again).lower())
call = a.Call()
threading.Timer(0.2, call.cancel).start()
began = time.time()
try:
    a.Client(service=os.environ["SILENT"]).suggest("12", call)
except a.Cancelled:
    print("cancelled" if time.time() - began < 3 else "cancelled too late")
shown, came = [], threading.Event()
def show(text, suggestions):
    shown.append(text)
    came.set()
typing = a.Typing(client, show, print)
for text in ("12", "12 harb", "12 harbour row tidewell"):
    typing.typed(text)
came.wait(5)
time.sleep(0.3)
print("typed", *shown)
`;

const JAVA = `import java.util.*;
import java.util.concurrent.*;

public class Driver {
    static AddressLookups.LookupFailed fails(CompletableFuture<?> asked) throws Exception {
        try { asked.get(); } catch (ExecutionException error) { return (AddressLookups.LookupFailed) error.getCause(); }
        throw new IllegalStateException("no failure");
    }
    public static void main(String[] words) throws Exception {
        String url = System.getenv("BIBLIOTOPE_URL");
        AddressLookups client = new AddressLookups();
        var first = client.suggest("12 harbour row tidewell").get().suggestions().get(0);
        System.out.println(first.ref() + " " + first.line());
        var found = client.recordOf(first.ref()).get().properties();
        System.out.println(found.exactness() + " " + found.parts().get("street").name() + " " + found.parts().get("postcode").name() + " " + (found.score() == null ? "None" : found.score()));
        var answer = client.forward(Map.of("q", "Östergränd 3, Vårhamn")).get();
        System.out.println(answer.outcome() + " " + answer.features().get(0).properties().parts().get("street").name());
        System.out.println(client.reverse(found.at().lat(), found.at().lon()).get().features().get(0).properties().kind());
        var refused = fails(new AddressLookups(url, "bt_app_nobody").suggest("12"));
        System.out.println(refused.trouble + " " + (refused.problem.status() == 401 ? "Bearer" : ""));
        System.out.println(fails(client.recordOf("qr-00000")).trouble);
        var slow = fails(new AddressLookups(System.getenv("SILENT"), "").suggest("12"));
        System.out.println(slow.trouble + " " + slow.again);
        var away = fails(new AddressLookups("http://127.0.0.1:9", "").suggest("12"));
        System.out.println(away.trouble + " " + away.again);
        var call = new AddressLookups(System.getenv("SILENT"), "").suggest("12");
        call.cancel(true);
        try { call.get(); } catch (CancellationException cancelled) { System.out.println("cancelled"); }
        var shown = new LinkedBlockingQueue<String>();
        var typing = client.new Typing((text, suggestions) -> shown.add(text), failed -> shown.add("failed"));
        for (String text : List.of("12", "12 harb", "12 harbour row tidewell")) typing.typed(text);
        String last = shown.poll(5, TimeUnit.SECONDS);
        Thread.sleep(300);
        System.out.println("typed " + last + String.join("", shown));
        System.exit(0);
    }
}
`;

const GO = `package main

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"testing"
	"time"
)

func fails(t *testing.T, err error) *LookupFailed {
	var failed *LookupFailed
	if !errors.As(err, &failed) {
		t.Fatal("no failure", err)
	}
	return failed
}

func TestLookups(t *testing.T) {
	ctx, client := context.Background(), NewClient()
	asked, err := client.Suggest(ctx, "12 harbour row tidewell")
	if err != nil {
		t.Fatal(err)
	}
	first := asked.Suggestions[0]
	fmt.Println(first.Ref, first.Line)
	held, _ := client.Record(ctx, first.Ref)
	found, score := held.Properties, "None"
	if found.Score != nil {
		score = "a score"
	}
	fmt.Println(found.Exactness, found.Parts["street"].Name, found.Parts["postcode"].Name, score)
	answer, _ := client.Forward(ctx, map[string]string{"q": "Östergränd 3, Vårhamn"})
	fmt.Println(answer.Outcome, answer.Features[0].Properties.Parts["street"].Name)
	near, _ := client.Reverse(ctx, found.At.Lat, found.At.Lon)
	fmt.Println(near.Features[0].Properties.Kind)
	_, err = (&Client{os.Getenv("BIBLIOTOPE_URL"), "bt_app_nobody", http.DefaultClient}).Suggest(ctx, "12")
	if refused := fails(t, err); refused.Problem.Status == 401 {
		fmt.Println(refused.Trouble, "Bearer")
	}
	_, err = client.Record(ctx, "qr-00000")
	fmt.Println(fails(t, err).Trouble)
	_, err = (&Client{os.Getenv("SILENT"), "", &http.Client{Timeout: 300 * time.Millisecond}}).Suggest(ctx, "12")
	fmt.Println(fails(t, err).Trouble, fails(t, err).Again)
	_, err = (&Client{"http://127.0.0.1:9", "", http.DefaultClient}).Suggest(ctx, "12")
	fmt.Println(fails(t, err).Trouble, fails(t, err).Again)
	short, cancel := context.WithCancel(ctx)
	time.AfterFunc(200*time.Millisecond, cancel)
	_, err = (&Client{os.Getenv("SILENT"), "", http.DefaultClient}).Suggest(short, "12")
	if errors.Is(err, context.Canceled) {
		fmt.Println("cancelled")
	}
	shown := make(chan string, 9)
	typing := &Typing{Client: client, Show: func(text string, _ []Suggestion) { shown <- text }, Fail: func(error) { shown <- "failed" }}
	for _, text := range []string{"12", "12 harb", "12 harbour row tidewell"} {
		typing.Typed(text)
	}
	last := <-shown
	time.Sleep(300 * time.Millisecond)
	if len(shown) > 0 {
		last += " and more"
	}
	fmt.Println("typed", last)
}
`;

const KOTLIN = `import java.util.concurrent.*
import kotlin.concurrent.thread
import kotlin.system.exitProcess

fun fails(act: () -> Unit): LookupFailed {
    try { act() } catch (failed: LookupFailed) { return failed }
    throw IllegalStateException("no failure")
}

fun main() {
    val key = System.getenv("BIBLIOTOPE_KEY")
    val url = System.getenv("BIBLIOTOPE_URL")
    val client = AddressLookups(key, url)
    val first = client.suggest("12 harbour row tidewell").suggestions[0]
    println(first.ref + " " + first.line)
    val found = client.record(first.ref).properties
    println(found.exactness + " " + found.parts["street"]!!.name + " " + found.parts["postcode"]!!.name + " " + (found.score ?: "None"))
    val answer = client.forward(mapOf("q" to "Östergränd 3, Vårhamn"))
    println(answer.outcome + " " + answer.features[0].properties.parts["street"]!!.name)
    println(client.reverse(found.at.lat, found.at.lon).features[0].properties.kind)
    val refused = fails { AddressLookups("bt_app_nobody", url).suggest("12") }
    println(refused.trouble + " " + (if (refused.problem!!.status == 401) "Bearer" else ""))
    println(fails { client.record("qr-00000") }.trouble)
    val slow = fails { AddressLookups("", System.getenv("SILENT")).suggest("12") }
    println(slow.trouble + " " + slow.again)
    val away = fails { AddressLookups("", "http://127.0.0.1:9").suggest("12") }
    println(away.trouble + " " + away.again)
    val call = Call()
    thread { Thread.sleep(300); call.cancel() }
    try { AddressLookups("", System.getenv("SILENT")).suggest("12", call) } catch (cancelled: CancellationException) { println("cancelled") }
    val shown = LinkedBlockingQueue<String>()
    val typing = Typing(client, { text, _ -> shown.add(text) }, { shown.add("failed") })
    for (text in listOf("12", "12 harb", "12 harbour row tidewell")) typing.typed(text)
    val last = shown.poll(5, TimeUnit.SECONDS)
    Thread.sleep(300)
    println("typed " + last + shown.joinToString(""))
    exitProcess(0)
}
`;
/** The JSON of Android, as Debian packages it, and what was compiled. */
const KOTLIN_PATH = "/usr/share/java/json-android.jar:program.jar:/usr/share/java/kotlin-stdlib.jar";

const shownOf = (out: string) =>
  out
    .split("\n")
    .map((line) => line.trimEnd())
    .map((line) => (line.startsWith("qr-hgwrp5 ") ? line.split(", ").slice(0, 2).join(", ") : line));

describe("the lookups of a form, run against the service", { timeout: 300_000 }, () => {
  it("in Python: as they are pasted, and in all that can go wrong", async () => {
    const files = { "addresses.py": code("python"), "driver.py": PYTHON, "house.py": code("python", HOUSE) };
    expect(shownOf(await run(files, "python3", "driver.py")).slice(0, 10)).toEqual(EXPECTED.split("\n"));
    // a newcomer's first try: pasted, and run
    const [first] = (await run(files, "python3", "addresses.py", "12 harbour row tidewell")).split("\n");
    expect(first).toMatch(/^qr-hgwrp5 {2}12 Harbour Row, Tidewell/);
    const own =
      'import house as h; print(h.find_address(h.Client(), street="Harbour Row", house="12", town="Tidewell").outcome)';
    expect((await run(files, "python3", "-c", own)).trim()).toBe("matched");
  });

  it.runIf(isLong)("in Java, compiled with no warning", async () => {
    const files = { "AddressLookups.java": code("java"), "Driver.java": JAVA };
    const out = await run(files, "sh", "-c", "javac -Xlint:all -Werror -d . *.java && java -cp . Driver");
    expect(shownOf(out).slice(0, 10)).toEqual(EXPECTED.split("\n"));
    const house = { "AddressLookups.java": code("java", HOUSE) };
    await run(house, "javac", "-Xlint:all", "-Werror", "-d", ".", "AddressLookups.java");
  });

  it.runIf(isLong)("in Kotlin, compiled with no warning", async () => {
    const files = { "addresses.kt": code("kotlin"), "driver.kt": KOTLIN };
    const compile = "JAVA_OPTS=-XX:-PrintWarnings kotlinc -Werror -cp /usr/share/java/json-android.jar";
    const ran = `${compile} addresses.kt driver.kt -d program.jar && java -cp ${KOTLIN_PATH} DriverKt`;
    expect(shownOf(await run(files, "sh", "-c", ran)).slice(0, 10)).toEqual(EXPECTED.split("\n"));
    await run({ "house.kt": code("kotlin", HOUSE) }, "sh", "-c", `${compile} house.kt -d house.jar`);
  });

  it.runIf(isLong)("in Go, vetted", async () => {
    const files = { "addresses.go": code("go"), "addresses_test.go": GO };
    const out = await run(
      files,
      "sh",
      "-c",
      "go vet addresses.go && go test -run TestLookups -v addresses.go addresses_test.go",
    );
    expect(
      shownOf(out)
        .filter((line) => !/^(===|---|PASS|ok)/.test(line))
        .slice(0, 10),
    ).toEqual(EXPECTED.split("\n"));
    await run({ "addresses.go": code("go", HOUSE) }, "go", "vet", "addresses.go");
  });
});
