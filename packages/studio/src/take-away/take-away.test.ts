import { createHash } from "node:crypto";
import type { FormDefinition } from "@bibliotope/core/form";
import { describe, expect, it } from "vitest";
import { curlOf, serverLookups } from "./calls.ts";
import { digestOf, pageOf, policyOf, scriptOf } from "./page.ts";

const SERVICE = "https://maps.example";
const FORM: FormDefinition = {
  title: "Readers & <friends>",
  fields: [
    { name: "find", kind: "search", label: "Find" },
    { name: "street", kind: "text", label: "Street", binding: "{street}" },
    { name: "zip", kind: "text", label: "Postcode", autofill: "postal-code" },
    { name: "country", kind: "country", label: "Country", binding: "{country.code}" },
    { name: "both", kind: "text", label: "Both", binding: "{street} {house}" },
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
        parts: [
          ["street", "street"],
          ["postcode", "zip"],
          ["country", "country"],
        ],
      },
      { address: "to", parts: [["q", "to-find"]] },
    ]);
  });

  it("stand ready as curl, with keys and values from the environment", () => {
    const text = curlOf(FORM, SERVICE);
    expect(text).toContain(`curl --get https://maps.example/v1/forward \\
  --header "Authorization: Bearer $BIBLIOTOPE_SERVER_KEY" \\
  \${STREET:+--data-urlencode "street=$STREET"} \\
  \${ZIP:+--data-urlencode "postcode=$ZIP"} \\
  \${COUNTRY:+--data-urlencode "country=$COUNTRY"} \\
  --data-urlencode "countries=QR,QV"`);
    expect(text).toContain(`# to
curl --get https://maps.example/v1/forward \\
  --header "Authorization: Bearer $BIBLIOTOPE_SERVER_KEY" \\
  \${TO_FIND:+--data-urlencode "q=$TO_FIND"} \\
  --data-urlencode "kinds=place"`);
    expect(curlOf({ title: "", fields: [] }, SERVICE)).toContain("# No field of this form is looked up by a server.");
  });
});
