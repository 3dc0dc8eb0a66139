import { createServer, type Server } from "node:http";
import { createServer as createSecure } from "node:https";
import type { AddressInfo } from "node:net";
import type { Service } from "@bibliotope/core/service";
import type { AllowedHost } from "@bibliotope/wire";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { waysInto } from "./answer.ts";
import type { CallFailed } from "./call-failed.ts";
import { CallFailed as Failed } from "./call-failed.ts";
import { Caller } from "./caller.ts";
import { addressesOf, allowedFor, mayReach } from "./guard.ts";
import { curlOf, valuesFrom, writeRequest } from "./out-request.ts";
import { Sealing } from "./sealing.ts";
import { LineFull, type ServiceCallResult, ServiceLine } from "./service-line.ts";
import { readWsdl } from "./wsdl.ts";

const host = (url: string, isInside = true): AllowedHost => {
  const { protocol, hostname, port } = new URL(url);
  const scheme = protocol.slice(0, -1) as "http" | "https";
  return {
    id: 1,
    scheme,
    host: hostname,
    port: Number(port || (scheme === "https" ? 443 : 80)),
    isInside,
    forPictures: false,
    standIn: null,
  };
};
const failed = (promise: Promise<unknown>): Promise<CallFailed> =>
  promise.then(
    () => {
      throw new Error("it answered");
    },
    (error: CallFailed) => error,
  );

describe("where a service may be", () => {
  it.each([
    ...["127.0.0.1", "127.9.9.9", "0.0.0.0", "10.0.0.1", "172.16.0.1", "192.168.1.1", "169.254.169.254", "100.64.0.1"],
    ...["224.0.0.1", "255.255.255.255", "::", "::1", "fe80::1", "fc00::1", "fd12::1", "ff02::1", "::ffff:127.0.0.1"],
    ...["::ffff:7f00:1", "::ffff:10.0.0.1", "64:ff9b::7f00:1", "2002:7f00:1::", "2001::1", "not an address"],
  ])("is not %s", (address) => expect(mayReach(address, false)).toBe(false));

  it("is an address of the world, and one inside where that is said", () => {
    for (const address of ["93.184.215.14", "2606:2800:21f::1"]) expect(mayReach(address, false)).toBe(true);
    for (const address of ["127.0.0.1", "10.0.0.1", "::1", "fd12::1", "::ffff:127.0.0.1"])
      expect(mayReach(address, true)).toBe(true);
    for (const address of ["0.0.0.0", "::", "224.0.0.1", "255.255.255.255"])
      expect(mayReach(address, true)).toBe(false);
  });

  it.each([
    ...["http://2130706433/", "http://0x7f.1/", "http://0177.0.0.1/", "http://127.1/", "http://[::1]/"],
    ...["http://[::ffff:127.0.0.1]/", "http://localhost/", "http://localhost./", "http://127.0.0.1:80/"],
    ...["https://allowed.example:8443/", "http://allowed.example/", "https://allowed.example.evil.example/"],
    ...[
      "https://evil.example/?https://allowed.example/",
      "https://allowed.example@evil.example/",
      "ftp://allowed.example/",
    ],
    ...["file:///etc/passwd", "data:text/plain,x"],
  ])("is not %s, which nobody has allowed", (url) =>
    expect(() => allowedFor(new URL(url), [host("https://allowed.example/", false)])).toThrow("is not allowed"),
  );

  it("is where a name leads, and nowhere inside", async () => {
    expect((await failed(addressesOf("localhost", false))).message).toContain("in the internal network");
    expect((await addressesOf("localhost", true))[0].address).toMatch(/^(127\.0\.0\.1|::1)$/);
    expect((await failed(addressesOf("[::1]", false))).outcome).toBe("refused");
    expect((await failed(addressesOf("no-such-host.invalid", false))).outcome).toBe("down");
  });
});

describe("what comes back", () => {
  let server: Server;
  let secure: Server;
  let here = "";
  let heard: { method?: string; url?: string; headers: Record<string, unknown>; body: string }[] = [];
  let hosts: AllowedHost[] = [];
  const caller = new Caller(() => hosts);
  const ask = (path: string, limit = 10_000) => caller.call({ method: "GET", url: here + path, headers: {} }, limit);

  beforeAll(async () => {
    server = createServer(async (request, response) => {
      let body = "";
      for await (const chunk of request) body += chunk;
      heard.push({ method: request.method, url: request.url, headers: request.headers, body });
      const answers: Record<string, () => void> = {
        "/json": () => response.setHeader("content-type", "application/json").end('{"a":1}'),
        "/huge": () => response.end("x".repeat(2 ** 20 + 1)),
        "/endless": () => {
          const more = setInterval(() => response.write("x".repeat(65_536)), 1);
          response.on("close", () => clearInterval(more));
        },
        "/hangs": () => undefined,
        "/drips": () => {
          response.writeHead(200);
          const more = setInterval(() => response.write("."), 50);
          response.on("close", () => clearInterval(more));
        },
        "/cut": () => {
          response.writeHead(200, { "content-length": "100" });
          response.write("half");
          setTimeout(() => response.destroy(), 10);
        },
        "/gone": () => void response.destroy(),
        "/away": () => response.writeHead(302, { location: "http://127.0.0.1:9/" }).end(),
        "/on": () => response.writeHead(307, { location: "/json" }).end(),
        "/circle": () => response.writeHead(307, { location: "/circle" }).end(),
        "/latin": () =>
          response
            .setHeader("content-type", "application/json; charset=windows-1252")
            .end(Buffer.from('{"a":"4 \x80"}', "latin1")),
        "/wrong-charset": () =>
          response.setHeader("content-type", "text/xml; charset=utf-8").end(Buffer.from([0x3c, 0xff])),
        "/no-charset": () => response.setHeader("content-type", "text/xml; charset=klingon").end("<a/>"),
        "/declared": () =>
          response
            .setHeader("content-type", "application/xml")
            .end(Buffer.from('<?xml version="1.0" encoding="iso-8859-1"?><a>\xe9</a>', "latin1")),
        "/packed": () => response.setHeader("content-encoding", "gzip").end("x"),
        "/headers": () => response.setHeader("x-long", "y".repeat(40_000)).end("{}"),
      };
      (answers[request.url ?? ""] ?? (() => response.writeHead(404).end()))();
    }).listen(0, "127.0.0.1");
    secure = createSecure({}).listen(0, "127.0.0.1");
    await Promise.all([server, secure].map((one) => new Promise((resolve) => one.once("listening", resolve))));
    here = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    hosts = [host(here)];
  });
  afterAll(async () => {
    await caller.close();
    for (const one of [server, secure]) {
      one.closeAllConnections();
      one.close();
    }
  });

  it("is text in whatever charset it says", async () => {
    expect((await ask("/json")).text).toBe('{"a":1}');
    expect((await ask("/latin")).text).toBe('{"a":"4 €"}');
    expect((await ask("/declared")).text).toContain("é");
  });

  it.each([
    ["/huge", "malformed", "larger than one megabyte"],
    ["/endless", "malformed", "larger than one megabyte"],
    ["/hangs", "slow", "within 0.4 seconds"],
    ["/drips", "slow", "within 0.4 seconds"],
    ["/cut", "down", "closed the connection early"],
    ["/gone", "down", "closed the connection early"],
    ["/away", "refused", "another host"],
    ["/circle", "malformed", "redirects too often"],
    ["/wrong-charset", "malformed", "not text in utf-8"],
    ["/no-charset", "malformed", "not text in klingon"],
    ["/packed", "malformed", "compressed (gzip)"],
    ["/headers", "malformed", "too large"],
  ])("%s is %s", async (path, outcome, words) => {
    // Only what must take too long is given little time: a slow machine needs more than that for the others.
    const error = await failed(ask(path, outcome === "slow" ? 400 : 10_000));
    expect([error.outcome, error.message]).toEqual([outcome, expect.stringContaining(words)]);
  });

  it("is followed within its host", async () => expect((await ask("/on")).text).toBe('{"a":1}'));

  it("is nothing where nothing listens, where nobody may ask, and for a header that is none", async () => {
    const nobody = "http://127.0.0.1:9";
    expect((await failed(caller.call({ method: "GET", url: nobody, headers: {} }, 10_000))).outcome).toBe("refused");
    hosts = [host(here), host(nobody)];
    expect((await failed(caller.call({ method: "GET", url: nobody, headers: {} }, 10_000))).message).toContain(
      "Nothing",
    );
    const broken = { method: "GET", url: `${here}/json`, headers: { "x-a": "a\r\nx-b: c" } };
    expect((await failed(caller.call(broken, 10_000))).outcome).toBe("malformed");
    hosts = [host(here, false)];
    expect((await failed(ask("/json"))).message).toContain("internal network");
    hosts = [host(here)];
  });

  it("is nothing over a connection that cannot be trusted", async () => {
    const url = `https://127.0.0.1:${(secure.address() as AddressInfo).port}`;
    hosts = [host(here), host(url)];
    expect((await failed(caller.call({ method: "GET", url, headers: {} }, 10_000))).outcome).toBe("down");
    hosts = [host(here)];
  });

  it("leaves as typed", async () => {
    heard = [];
    const service: Service = {
      name: "collection",
      title: "Collection",
      ask: {
        by: "http",
        method: "POST",
        url: `${here}/json{?town}`,
        headers: [{ name: "Authorization", value: "Bearer {secret.token}" }],
        body: { kind: "json", text: '{ "town": "{town}" }' },
      },
      inputs: [{ name: "town", kind: "text" }],
      values: [],
    };
    const value = valuesFrom({ town: 'A & "B"' }, (name) => (name === "token" ? "s3cret" : undefined));
    await caller.call(writeRequest(service, value), 10_000);
    expect(heard[0]).toMatchObject({
      method: "POST",
      url: "/json?town=A%20%26%20%22B%22",
      headers: { authorization: "Bearer s3cret", "content-type": "application/json" },
      body: '{"town":"A & \\"B\\""}',
    });
    expect(curlOf(service, { town: "it's" })).toContain(
      `'Bearer '"$TOKEN"`.replace("'Bearer ", "authorization: Bearer "),
    );
    expect(curlOf(service, { town: "it's" })).not.toContain("s3cret");
    expect(() =>
      writeRequest(
        service,
        valuesFrom({}, () => undefined),
      ),
    ).toThrow("is not set");
  });
});

describe("ways into an answer", () => {
  const came = (text: string, mediaType = "") => ({ status: 200, headers: [], mediaType, text });
  const xml = (text: string, way: string) => waysInto(came(text, "text/xml"))(way);

  it("go through XML by local names, whatever prefixes it has today", () => {
    const text = '<r:a xmlns:r="urn:x" xmlns="urn:y"><r:b n="1">one</r:b><b>two <i>and</i> more</b></r:a>';
    expect(xml(text, "//b")).toEqual(["one", "two and more"]);
    expect(xml(text, "string(//b/@n)")).toEqual(["1"]);
    expect(xml(text, "count(//b)")).toEqual([2]);
    expect(xml(text, "//[")).toEqual([]);
  });

  it.each([
    ["a document type", "<!DOCTYPE a [<!ENTITY b 'c'>]><a>&b;</a>", "text/xml"],
    ["entities that grow", `<!DOCTYPE a [<!ENTITY b "${"x".repeat(99)}">]><a>&b;</a>`, "application/xml"],
    ["an entity from elsewhere", '<!doctype a SYSTEM "file:///etc/passwd"><a/>', "text/xml"],
    ["XML that ends early", "<a><b>", "text/xml"],
    ["XML nested too deep", "<a>".repeat(300) + "</a>".repeat(300), "text/xml"],
    ["too many elements", `<a>${"<b/>".repeat(50_000)}</a>`, "text/xml"],
    ["JSON that ends early", '{"a": [1', "application/json"],
    ["JSON nested too deep", "[".repeat(100_000) + "]".repeat(100_000), "application/json"],
    ["a page in place of data", "<!doctype html><p>Sign in", "text/html"],
    ["a picture", "PNG", "image/png"],
    ["nothing", "", "text/plain"],
  ])("are none in %s", (_, text, mediaType) => {
    expect(() => waysInto(came(text, mediaType))).toThrow(Failed);
  });

  it("find what is there in its order, in a time that grows as the answer does", {
    tags: ["long"],
    timeout: 30_000,
  }, () => {
    const count = 8000;
    const text = `<a>${Array.from({ length: count }, (_, i) => `<b n="${i}"><c>${i}</c>x</b>`).join("")}</a>`;
    expect(xml(text, "string(//b[7]/c)")).toEqual(["6"]);
    const numbers = Array.from({ length: count }, (_, i) => String(i));
    expect(xml(text, "//c")).toEqual(numbers);
    expect(xml(text, "/a/b/@n")).toEqual(numbers);
    expect(xml(text, "//c[. = '3'] | //b[@n = '2']/text() | //b[2]/@n")).toEqual(["1", "x", "3"]);
    expect(xml(text, "//b[last()]/preceding-sibling::b[1]/c")).toEqual([String(count - 2)]);
  });

  it("go through JSON whatever its media type, where it looks like it", () => {
    expect(waysInto(came(' {"a":"[[["}', "text/plain"))("/a")).toEqual(["[[["]);
  });
});

describe("a service's line", () => {
  const query: ServiceCallResult = { outcome: "answered", values: {}, took: 3 };
  const down = () => Promise.reject(new Failed("down", "Nothing listens there."));

  it("leaves a service alone that fails again and again, and no other", async () => {
    const line = new ServiceLine();
    for (let i = 0; i < 6; i++) await failed(line.ask(down));
    expect(line.state).toMatchObject({ how: "alone", words: "Nothing listens there." });
    expect((await failed(line.ask(async () => query))).message).toContain("It is paused");
    const other = new ServiceLine();
    for (let i = 0; i < 9; i++) await failed(other.ask(() => Promise.reject(new Failed("none", "nothing"))));
    expect(await other.ask(async () => query)).toBe(query);
    expect(other.state).toMatchObject({ how: "answering", median: 3 });
    line.close();
    other.close();
  });

  it("takes no more at once than it may", async () => {
    const line = new ServiceLine(2);
    const holding = [1, 2].map(() => line.ask(() => new Promise((resolve) => setTimeout(() => resolve(query), 50))));
    await expect(line.ask(async () => query)).rejects.toBeInstanceOf(LineFull);
    await Promise.all(holding);
    expect(await line.ask(async () => query)).toBe(query);
    line.close();
  });

  it("is not left alone because too much was requested at once", async () => {
    const line = new ServiceLine(1);
    const holding = line.ask(() => new Promise((resolve) => setTimeout(() => resolve(query), 30)));
    for (let i = 0; i < 50; i++) await expect(line.ask(async () => query)).rejects.toBeInstanceOf(LineFull);
    await holding;
    expect(await line.ask(async () => query)).toBe(query);
    expect(line.state).toMatchObject({ how: "answering", failed: 0 });
    line.close();
  });
});

describe("secrets", () => {
  const sealing = new Sealing(Buffer.alloc(32, 1));

  it("are opened by the same key under the same name alone", () => {
    const sealed = sealing.seal("token", "s3cret");
    expect(sealing.open("token", sealed)).toBe("s3cret");
    expect(sealed.toString("latin1")).not.toContain("s3cret");
    expect(sealing.seal("token", "s3cret").equals(sealed)).toBe(false);
    expect(sealing.open("other", sealed)).toBeUndefined();
    expect(new Sealing(Buffer.alloc(32, 2)).open("token", sealed)).toBeUndefined();
    sealed[sealed.length - 1] ^= 1;
    expect(sealing.open("token", sealed)).toBeUndefined();
    expect(sealing.open("token", Buffer.from("x"))).toBeUndefined();
  });
});

describe("a WSDL", () => {
  it.each([["nonsense"], ["<a/>"], ["<!DOCTYPE x><definitions/>"], ["<definitions/>"], [""]])(
    "that is %s is none",
    (text) => expect(() => readWsdl(text)).toThrow(/WSDL 1\.1/),
  );

  const wsdl = (schema: string, more = "") => `<w:definitions xmlns:w="http://schemas.xmlsoap.org/wsdl/"
    xmlns:s="http://schemas.xmlsoap.org/wsdl/soap12/" xmlns:x="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:plots">
    ${more}<w:types><x:schema targetNamespace="urn:plots">${schema}</x:schema></w:types>
    <w:message name="Ask"><w:part name="in" element="t:plotOf"/></w:message>
    <w:portType name="Plots"><w:operation name="PlotOf"><w:input message="t:Ask"/></w:operation></w:portType>
    <w:binding name="Soap" type="t:Plots"><s:binding/><w:operation name="PlotOf"><s:operation/></w:operation></w:binding>
    <w:service name="Plots"><w:port binding="t:Soap"><s:address location="https://plots.example/"/></w:port></w:service>
  </w:definitions>`;
  const ELEMENT = `<x:element name="plotOf"><x:complexType><x:sequence><x:element name="street" type="x:string"/>
    </x:sequence></x:complexType></x:element>`;

  it("whose parts are elsewhere says where, and nothing is fetched; what is whole without them is read", () => {
    expect(readWsdl(wsdl(ELEMENT)).operations).toMatchObject([
      { name: "PlotOf", ask: { url: "https://plots.example/", namespace: "urn:plots" }, inputs: [{ name: "street" }] },
    ]);
    expect(() => readWsdl(wsdl('<x:include schemaLocation="http://10.0.0.1/plots.xsd"/>'))).toThrow(
      "Parts of it are in another file (http://10.0.0.1/plots.xsd), which is not fetched. Paste a WSDL 1.1",
    );
    const imported = '<w:import namespace="urn:plots" location="file:///etc/passwd"/>';
    expect(() => readWsdl(wsdl("", imported))).toThrow("another file (file:///etc/passwd), which is not fetched");
    expect(readWsdl(wsdl(ELEMENT, imported)).operations).toHaveLength(1);
  });
});
