import express, { type Express } from "express";
import { XMLBuilder, XMLParser } from "fast-xml-parser";
import { standIn } from "./stand-in.ts";

const SPACE = "urn:land-register:lorramere:1";
const SOAP = "http://www.w3.org/2003/05/soap-envelope";
/** The country that it speaks for, and the last number of a street that it has in the books. */
const [COUNTRY, LAST_NUMBER] = ["QR", 180];
/** Kinds of street that it writes in its own way. */
const OFFICIAL: readonly [written: RegExp, official: string][] = [
  [/\bRow$/, "Rows"],
  [/\bRd\.?$/i, "Road"],
  [/\bSt\.?$/i, "Street"],
  [/\bLn\.?$/i, "Lane"],
];

const parser = new XMLParser({ removeNSPrefix: true, parseTagValue: false, processEntities: true });
const builder = new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: true });

interface Asked {
  house?: unknown;
  street?: unknown;
  town?: unknown;
  country?: unknown;
}

/** The land register of Lorramere by SOAP 1.2: official form of an address, and the number of the plot. */
export function landRegister(): Express {
  const app = standIn({
    title: "The land register of Lorramere",
    words: [
      "Confirms an address of Lorramere in its official form, with the number of its plot. It knows nothing of any other country.",
      "It keeps no list: every house up to number 180 is in its books, and streets called Row are officially called Rows.",
      "Speaks SOAP 1.2; its description is at /register?wsdl.",
    ],
    examples: ["curl '{here}/register?wsdl'"],
  });
  app.get("/register", (request, response) => {
    if (!("wsdl" in request.query)) return void response.status(405).set("Allow", "POST").end();
    response.type("text/xml").send(WSDL.replace("{here}", `http://${request.get("host")}/register`));
  });
  app.post("/register", express.text({ type: () => true, limit: "64kb" }), (request, response) => {
    const send = (status: number, body: object) =>
      response
        .status(status)
        .type("application/soap+xml; charset=utf-8")
        .send(`<?xml version="1.0" encoding="UTF-8"?>\n${envelope(body)}`);
    const params = askedIn(String(request.body));
    if (!params) return void send(400, fault("Sender", "The message asks for no operation of this register."));
    if (!params.street || !params.town) return void send(400, fault("Sender", "A street and a town are needed."));
    send(200, { "reg:Confirmed": { "@_xmlns:reg": SPACE, ...answerTo(params) } });
  });
  return app;
}

function askedIn(message: string): Asked | undefined {
  try {
    const confirm = parser.parse(message)?.Envelope?.Body?.Confirm;
    return typeof confirm === "object" ? confirm : undefined;
  } catch {
    return undefined;
  }
}

function answerTo({ house = "", street, town, country = COUNTRY }: Asked): object {
  const [number, name, place] = [house, street, town].map((value) => String(value).trim());
  const isHere = ["", COUNTRY, "LORRAMERE"].includes(String(country).trim().toUpperCase());
  const count = Number.parseInt(number, 10);
  if (!isHere || !(count > 0 && count <= LAST_NUMBER)) return { standing: "unknown" };
  const official = OFFICIAL.reduce((text, [written, form]) => text.replace(written, form), name);
  const sheet = (Array.from(place.toLowerCase()).reduce((sum, sign) => sum + sign.codePointAt(0)!, 0) % 9) + 1;
  const plot = (Array.from(name.toLowerCase()).reduce((sum, sign) => sum + sign.codePointAt(0)!, 0) % 140) + count;
  const owners = count % 3 === 0 ? ["The reading network", "Harbour board"] : ["Harbour board"];
  return {
    standing: official === name ? "known" : "otherwise",
    plot: { "@_number": `${sheet}-${plot}` },
    official: { house: number, street: official, town: place },
    owner: owners,
  };
}

const envelope = (body: object) =>
  builder.build({ "env:Envelope": { "@_xmlns:env": SOAP, "env:Body": body } }) as string;

const fault = (code: "Sender" | "Receiver", text: string) => ({
  "env:Fault": {
    "env:Code": { "env:Value": `env:${code}` },
    "env:Reason": { "env:Text": { "@_xml:lang": "en", "#text": text } },
  },
});

const WSDL = `<?xml version="1.0" encoding="UTF-8"?>
<definitions name="LandRegister" targetNamespace="${SPACE}" xmlns="http://schemas.xmlsoap.org/wsdl/"
  xmlns:soap12="http://schemas.xmlsoap.org/wsdl/soap12/" xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:reg="${SPACE}">
  <types>
    <xs:schema targetNamespace="${SPACE}" elementFormDefault="unqualified">
      <xs:element name="Confirm">
        <xs:complexType>
          <xs:sequence>
            <xs:element name="house" type="xs:string" minOccurs="0"/>
            <xs:element name="street" type="xs:string"/>
            <xs:element name="town" type="xs:string"/>
            <xs:element name="country" type="xs:string" minOccurs="0"/>
          </xs:sequence>
        </xs:complexType>
      </xs:element>
      <xs:element name="Confirmed">
        <xs:complexType>
          <xs:sequence>
            <xs:element name="standing" type="xs:string"/>
            <xs:element name="plot" minOccurs="0"/>
            <xs:element name="official" minOccurs="0"/>
            <xs:element name="owner" type="xs:string" minOccurs="0" maxOccurs="unbounded"/>
          </xs:sequence>
        </xs:complexType>
      </xs:element>
    </xs:schema>
  </types>
  <message name="ConfirmIn"><part name="body" element="reg:Confirm"/></message>
  <message name="ConfirmOut"><part name="body" element="reg:Confirmed"/></message>
  <portType name="Register">
    <operation name="Confirm"><input message="reg:ConfirmIn"/><output message="reg:ConfirmOut"/></operation>
  </portType>
  <binding name="RegisterSoap12" type="reg:Register">
    <soap12:binding transport="http://schemas.xmlsoap.org/soap/http" style="document"/>
    <operation name="Confirm">
      <soap12:operation soapAction="${SPACE}/Confirm"/>
      <input><soap12:body use="literal"/></input>
      <output><soap12:body use="literal"/></output>
    </operation>
  </binding>
  <service name="LandRegister">
    <port name="Register" binding="reg:RegisterSoap12"><soap12:address location="{here}"/></port>
  </service>
</definitions>
`;
