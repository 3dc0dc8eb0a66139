import { createHash } from "node:crypto";
import type { Field, FormDefinition } from "@bibliotope/core/form";
import { describe, expect, it } from "vitest";
import { assistantText } from "./assistant.ts";
import { curlOf, serverLookups } from "./calls.ts";
import { nameOf, pickerOf, reactOf, serverOf, stillOf } from "./code.ts";
import { digestOf, pageOf, policyOf, scriptOf } from "./page.ts";

const SERVICE = "https://maps.example";
const FORM: FormDefinition = {
  title: "Readers & <friends>",
  fields: [
    { name: "find", kind: "search", label: "Find" },
    { name: "street", kind: "text", label: "Street", binding: "{street}" },
    { name: "zip", kind: "text", label: "Postcode", autofill: "postal-code" },
    { name: "country", kind: "country", label: "Country", binding: "{country.code}" },
    { name: "to-find", kind: "search", label: "To", address: "to" },
    { name: "to-line", kind: "shown", label: "Line", binding: "{line}", address: "to" },
  ],
  addresses: [
    { name: "", countries: ["QR", "QV"] },
    { name: "to", kinds: ["place"] },
  ],
};

describe("a form as a page", () => {
  it("holds the whole definition, and nothing in it can end its element", () => {
    const nasty: FormDefinition = { ...FORM, intro: "</script><script>alert(1)</script>" };
    const page = pageOf(nasty, SERVICE);
    expect(page).toContain("<title>Readers &amp; &lt;friends&gt;</title>");
    const [, json] = page.split('id="form-definition">\n');
    expect(JSON.parse(json.slice(0, json.indexOf("\n</script>")))).toEqual(nasty);
    expect(page.match(/<script/g)).toHaveLength(2);
  });

  it("holds no key, and says where it comes from", () => {
    const page = pageOf(FORM, SERVICE);
    expect(page).not.toMatch(/bt_(web|srv)_/);
    expect(page).toContain('<meta name="bibliotope-key" content="">');
    expect(page).toContain("BIBLIOTOPE_WEB_KEY");
  });

  it("runs under a policy that names its script by its digest", async () => {
    const script = scriptOf(SERVICE);
    expect(pageOf(FORM, SERVICE)).toContain(`<script type="module">${script}</script>`);
    const digest = await digestOf(script);
    expect(digest).toBe(createHash("sha256").update(script).digest("base64"));
    expect(policyOf(SERVICE, digest)).toContain(`script-src https://maps.example 'sha256-${digest}'`);
  });
});

describe("a form's lookups from a server", () => {
  it("are by the parts that its fields hold, one field a part", () => {
    expect(serverLookups(FORM)).toEqual([
      {
        address: "",
        lookups: [
          ["street", ["street"]],
          ["postcode", ["zip"]],
          ["countries", ["country"]],
        ],
      },
      { address: "to", lookups: [["q", ["to-find"]]] },
    ]);
  });

  it("stand ready as curl, with keys and values from the environment", () => {
    const text = curlOf(FORM, SERVICE);
    expect(text).toContain(`curl --get https://maps.example/v1/forward \\
  --header "Authorization: Bearer $BIBLIOTOPE_SERVER_KEY" \\
  \${STREET:+--data-urlencode "street=$STREET"} \\
  \${ZIP:+--data-urlencode "postcode=$ZIP"} \\
  \${COUNTRY:+--data-urlencode "countries=$COUNTRY"}`);
    expect(text).toContain(`# to
curl --get https://maps.example/v1/forward \\
  --header "Authorization: Bearer $BIBLIOTOPE_SERVER_KEY" \\
  \${TO_FIND:+--data-urlencode "q=$TO_FIND"} \\
  --data-urlencode "kinds=place"`);
    const byToken: Field = { name: "line", kind: "text", label: "Street", autofill: "address-line1" };
    const tokens = curlOf(
      { title: "", fields: [byToken, { ...FORM.fields[0], name: "town", kind: "text", binding: "{town}" }] },
      SERVICE,
    );
    expect(tokens).toMatch(/--data-urlencode "q=\$\{LINE:\+\$LINE, \}\$\{TOWN:\+\$TOWN, \}"/);
    expect(curlOf({ title: "", fields: [] }, SERVICE)).toContain("# No field of this form is looked up by a server.");
  });
});

describe("a form as code", () => {
  it.each([
    ["Become a reader", "BecomeAReader"],
    ["Été – 2 séances", "Ete2Seances"],
    ["12 things", "Form12Things"],
    ["Ανάγνωση", "Form"],
  ])("names “%s” %s", (title, name) => {
    expect(nameOf({ title, fields: [] })).toBe(name);
  });

  it("is a React component with the whole definition, its key from the environment", () => {
    const code = reactOf(FORM, SERVICE);
    expect(code).toContain("export function ReadersFriends(");
    expect(code).toContain('<BibliotopeProvider url="https://maps.example" webKey={webKey}>');
    const json = code.slice(code.indexOf("FormDefinition = ") + 17, code.indexOf(";\n\n/**\n * The web key"));
    expect(JSON.parse(json)).toEqual(FORM);
    expect(code).not.toMatch(/bt_(web|srv)_/);
  });

  it("is a server's handler that looks up every address of it before anything is stored", () => {
    const code = serverOf(FORM, SERVICE);
    expect(code).toContain("key: process.env.BIBLIOTOPE_SERVER_KEY");
    expect(code).toContain("await placesOf(client, { definition, values })");
    expect(code.indexOf("await store(record)")).toBeGreaterThan(code.lastIndexOf("return refuse"));
    expect(serverOf({ title: "None", fields: [] }, SERVICE)).toContain("No field of “None” is looked up");
  });

  it("shows a stored place as a picture that is the way to it, and says how mails get one", () => {
    const code = stillOf(SERVICE);
    expect(code).toMatch(/<bibliotope-still .*of="".* control>/);
    expect(code).toContain('client.link({ of: ref, shows: "still", hours: 72 })');
    expect(code).toMatch(/<img src="\$\{url\}"/);
  });

  it("opens the picker narrowed as the form is, for pages and for web views, with no key in it", () => {
    const rooms: FormDefinition = {
      ...FORM,
      title: "</script>",
      addresses: [{ name: "", kinds: ["place"], anywhere: true }],
    };
    const code = pickerOf(rooms, SERVICE);
    expect(code).toContain('"kinds":"place"');
    expect(code).toContain('"anywhere":"1"');
    expect(code.match(/<\/script>/g)).toHaveLength(1);
    expect(code).toMatch(/bridge=places&key=$/m);
    expect(code).not.toMatch(/bt_(web|view)_/);
  });

  it("is told to an assistant: fields, rules, calls, keys, definition and tests", () => {
    const text = assistantText(FORM, SERVICE, 'test("a", () => {});\n');
    expect(text).toContain("- **Street** (`street`); text; filled with `{street}`");
    expect(text).toContain("- **Find** (`find`); searches as the user types");
    expect(text).toContain("Only in QR, QV.");
    expect(text).toContain("- The address `to`: ");
    expect(text).toContain('```ts\ntest("a", () => {});\n```');
    expect(text).toContain("https://maps.example/v1/openapi.json");
    const json = text.slice(text.indexOf("```json\n") + 8, text.indexOf("\n```\n\n## Tests"));
    expect(JSON.parse(json)).toEqual(FORM);
    expect(text).not.toMatch(/bt_(web|srv)_/);
    expect(assistantText(FORM, SERVICE, "")).toContain("No rehearsals are saved");
  });

  it.each(["leaving", "button", "complete", "never"] as const)("tells an assistant of a start by %s", (on) => {
    const start =
      on === "complete" ? { on, fields: ["street", "zip"] } : on === "never" ? { on } : { on, field: "street" };
    const text = assistantText({ ...FORM, addresses: [{ name: "", start }] }, SERVICE, "");
    const said = {
      leaving: "leaving `street` looks it up",
      button: "the button `street` looks up",
      complete: "once `street`, `zip` are all filled",
      never: "typing never starts a lookup",
    };
    expect(text).toContain(said[on]);
  });
});
