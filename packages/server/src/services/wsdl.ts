import type { ServiceInput, SoapRequest, ValueKind } from "@bibliotope/core/service";
import type { WsdlAnswer } from "@bibliotope/wire";
import { XMLParser } from "fast-xml-parser";
import { HttpProblem } from "../http/problem.ts";

/** Operations and inputs that are read of one description. */
const [MOST_OPERATIONS, MOST_INPUTS] = [100, 40];
const KINDS: Readonly<Record<string, ValueKind>> = {
  ...{ int: "number", integer: "number", long: "number", short: "number", decimal: "number" },
  ...{ double: "number", float: "number", date: "date", boolean: "yesno" },
};

// biome-ignore lint/suspicious/noExplicitAny: XML of any shape, looked into with care
type Xml = any;

const parser = new XMLParser({
  ...{ ignoreAttributes: false, attributeNamePrefix: "@", removeNSPrefix: true, parseAttributeValue: false },
  processEntities: false,
  // what may be there once or more often is always a list
  isArray: (name) =>
    [
      "schema",
      "element",
      "complexType",
      "message",
      "part",
      "portType",
      "binding",
      "operation",
      "service",
      "port",
    ].includes(name),
});

/**
 * The operations of a WSDL 1.1 that can be called: document style over HTTP by SOAP 1.1 or 1.2, with plain inputs. What it
 * imports is not fetched.
 * @throws HttpProblem for what is no such description
 */
export function readWsdl(text: string): WsdlAnswer {
  if (/<!(DOCTYPE|ENTITY)/i.test(text)) throw wrong("It declares a document type of its own");
  let schema: Xml;
  try {
    // versions of SOAP differ by their namespaces, which the parser leaves out
    schema = parser.parse(
      text
        .replace(/<(\w+):(binding|address|operation)\b/g, (tag, prefix: string, name: string) =>
          isOf12(text, prefix) ? `<${name}12` : isOf11(text, prefix) ? `<${name}11` : tag,
        )
        .replace(/<\/(\w+):(binding|address|operation)>/g, (tag, prefix: string, name: string) =>
          isOf12(text, prefix) ? `</${name}12>` : isOf11(text, prefix) ? `</${name}11>` : tag,
        ),
    ).definitions;
  } catch {
    throw wrong("It is not XML");
  }
  if (!schema) throw wrong("It has no definitions");
  const operations = list(schema.service)
    .flatMap((service) => list(service.port))
    .flatMap((port) => operationsOf(schema, port))
    .slice(0, MOST_OPERATIONS);
  if (!operations.length) {
    const elsewhere = IMPORTED.exec(text)?.[1];
    // a name from outside: it is told as it is, and no longer than it can be read
    if (elsewhere) throw wrong(`Parts of it are in another file (${elsewhere.slice(0, 200)}), which is not fetched`);
    throw wrong("It has no document-style SOAP operation over HTTP");
  }
  return { operations };
}

/** Where a description or a schema says that more of it is. */
const IMPORTED = /<(?:\w+:)?(?:import|include)\s[^<>]*?\b(?:location|schemaLocation)\s*=\s*["']([^"'<>]+)["']/;
const SOAP_11 = "http://schemas.xmlsoap.org/wsdl/soap/";
const SOAP_12 = "http://schemas.xmlsoap.org/wsdl/soap12/";
const isOf = (text: string, prefix: string, space: string) =>
  new RegExp(`xmlns:${prefix}\\s*=\\s*["']${space.replaceAll(".", "\\.")}["']`).test(text);
const isOf11 = (text: string, prefix: string) => isOf(text, prefix, SOAP_11);
const isOf12 = (text: string, prefix: string) => isOf(text, prefix, SOAP_12);

const list = (schema: Xml): Xml[] =>
  schema === undefined || schema === "" ? [] : Array.isArray(schema) ? schema : [schema];
const local = (name: unknown) => String(name ?? "").replace(/^.*:/, "");
const named = (all: Xml, name: unknown) => list(all).find((one) => one["@name"] === local(name));

function operationsOf(existing: Xml, port: Xml): WsdlAnswer["operations"] {
  const version = port.address12 ? "1.2" : port.address11 ? "1.1" : undefined;
  const binding = named(existing.binding, port["@binding"]);
  const type = binding && named(existing.portType, binding["@type"]);
  if (!version || !type) return [];
  const url = String((port.address12 ?? port.address11)["@location"] ?? "");
  return list(binding.operation).flatMap((operation) => {
    const soap = operation.operation12 ?? operation.operation11 ?? {};
    const bound = named(type.operation, operation["@name"]);
    const message = named(existing.message, bound?.input?.["@message"]);
    const element = local(list(message?.part)[0]?.["@element"]);
    const schema = list(existing.types?.schema).find((one) => named(one.element, element));
    if (!schema) return [];
    const ask: SoapRequest = {
      ...{ by: "soap", version, url, operation: element },
      namespace: String(schema["@targetNamespace"] ?? existing["@targetNamespace"] ?? ""),
      ...(soap["@soapAction"] ? { action: String(soap["@soapAction"]) } : {}),
      ...(schema["@elementFormDefault"] === "qualified" ? { isQualified: true } : {}),
    };
    return [{ name: String(operation["@name"]), ask, inputs: inputsOf(schema, named(schema.element, element)) }];
  });
}

function inputsOf(schema: Xml, element: Xml): ServiceInput[] {
  const type = list(element.complexType)[0] ?? named(schema.complexType, element["@type"]);
  return list(type?.sequence?.element ?? type?.all?.element)
    .slice(0, MOST_INPUTS)
    .map((one) => ({
      name: String(one["@name"] ?? ""),
      kind: KINDS[local(one["@type"])] ?? "text",
      ...(one["@minOccurs"] === "0" ? {} : { required: true }),
    }));
}

const wrong = (why: string) =>
  new HttpProblem("malformed", `${why}. Paste a WSDL 1.1 as the service publishes it.`, [
    { parameter: "wsdl", message: "cannot be read" },
  ]);
