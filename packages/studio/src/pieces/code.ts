/** A piece of the kit that can be tried and copied. */
export interface Piece {
  id: string;
  name: string;
  /** What it is for. */
  words: string;
  language: "xml" | "typescript";
  /** Code that runs as it is copied. @param service origin of the service */
  code: (service: string) => string;
}

const KEY = "document.querySelector('meta[name=\"bibliotope-key\"]').content";
const HEAD = (service: string, names: string) => `import { ${names} } from "${service}/kit/v1/bibliotope.js";

const client = new Client({ url: "${service}", key: ${KEY} });
`;

/** Every piece, in the order in which a page is built. */
export const PIECES: readonly Piece[] = [
  {
    id: "search",
    name: "Search box",
    words:
      "A form element: suggestions follow the typing, the chosen one is resolved, and its text, ref and position are submitted with the form. With fills, it also fills the other fields by their autofill tokens.",
    language: "xml",
    code: (service) => `<script type="module" src="${service}/kit/v1/search.js" crossorigin="anonymous"></script>

<form>
  <!-- web-key is written by the server of the page, from BIBLIOTOPE_WEB_KEY -->
  <bibliotope-search url="${service}" web-key="" name="find" label="Find your address" fills></bibliotope-search>
  <label>Street <input name="street" autocomplete="address-line1"></label>
  <label>Town <input name="town" autocomplete="address-level2"></label>
  <label>Postcode <input name="postcode" autocomplete="postal-code"></label>
</form>
`,
  },
  {
    id: "tokens",
    name: "Existing form, by autofill tokens",
    words:
      "For a form you already have: the first address line searches, and the other fields are filled. Fields are recognised by their autocomplete attributes alone.",
    language: "typescript",
    code: (service) => `${HEAD(service, "bindTokens, Client")}
bindTokens(document.querySelector("form"), {
  client,
  filled: (record) => console.log(record.id, record.properties.at),
});
`,
  },
  {
    id: "map",
    name: "Map",
    words: "An element sized by the page. A click reports its position; markers are set as a property.",
    language: "xml",
    code: (service) => `<script type="module" src="${service}/kit/v1/map.js" crossorigin="anonymous"></script>

<bibliotope-map url="${service}" web-key="" label="Where it is" at="-35.1841,-21.6253" zoom="15" device></bibliotope-map>

<script type="module">
  const map = document.querySelector("bibliotope-map");
  map.markers = [{ at: { lat: -35.1841, lon: -21.6253 }, label: "12 Harbour Row" }];
  map.addEventListener("bibliotope-pressed", ({ detail: { lat, lon } }) => console.log(lat, lon));
</script>
`,
  },
  {
    id: "picker",
    name: "Picker",
    words:
      "A button that opens a search box, map and marker in a dialog. Done fills the form and is submitted with it; Cancel changes nothing. It is also available as a separate page for windows, frames and web views: see docs/picker.md.",
    language: "xml",
    code: (service) => `<script type="module" src="${service}/kit/v1/picker.js" crossorigin="anonymous"></script>

<form>
  <bibliotope-picker url="${service}" web-key="" name="place" label="Where is it?" fills></bibliotope-picker>
  <label>Street <input name="street" autocomplete="address-line1"></label>
  <label>Town <input name="town" autocomplete="address-level2"></label>
  <label>Postcode <input name="postcode" autocomplete="postal-code"></label>
</form>
`,
  },
  {
    id: "still",
    name: "Picture",
    words:
      "A picture of the map for cards, read-only pages and letters, by ref or position. With control, users can open the place, get directions and copy the position.",
    language: "xml",
    code: (service) => `<script type="module" src="${service}/kit/v1/still.js" crossorigin="anonymous"></script>

<bibliotope-still url="${service}" web-key="" at="-35.1841,-21.6253" width="300" height="200" label="Map around the house" control></bibliotope-still>
`,
  },
  {
    id: "report",
    name: "Report",
    words: "Lets users report a mistake in an address. Reports appear under Data, Corrections, for review.",
    language: "xml",
    code: (service) => `<script type="module" src="${service}/kit/v1/bibliotope.js" crossorigin="anonymous"></script>

<bibliotope-search id="where" url="${service}" web-key="" label="Address"></bibliotope-search>
<bibliotope-report url="${service}" web-key="" for="where"></bibliotope-report>
`,
  },
  {
    id: "client",
    name: "Client",
    words:
      "Every lookup as a typed call. An error says what went wrong, what to tell the user, and whether to try again; it never looks like an empty list.",
    language: "typescript",
    code: (service) => `${HEAD(service, "Client, LookupError")}
try {
  const { outcome, advice, features } = await client.forward({ q: "12 harbor row, tidewell", limit: 3 });
  console.log(outcome, advice, features.map(({ properties }) => properties.line));
} catch (error) {
  if (!(error instanceof LookupError)) throw error;
  console.log(error.message, error.again ? "It may work later." : "");
}
`,
  },
  {
    id: "device",
    name: "The device's position",
    words: "Requests the position once. A refusal is a value with a message and a next step, never an exception.",
    language: "typescript",
    code: (service) => `${HEAD(service, "Client, locate")}
const located = await locate({ timeout: 10_000 });
if (!located.ok) console.log(located.words, located.next);
else {
  const { features } = await client.reverse(located.at);
  console.log(features[0]?.properties.line, \`within \${Math.round(located.within)} m\`);
}
`,
  },
  {
    id: "react",
    name: "React",
    words: "The same search as a component, or as an unstyled hook. React 18 and 19.",
    language: "typescript",
    code: (service) => `import { BibliotopeProvider, SearchField } from "@bibliotope/kit/react";

export function Address() {
  return (
    <BibliotopeProvider url="${service}" webKey={import.meta.env.VITE_BIBLIOTOPE_WEB_KEY}>
      <SearchField label="Find your address" name="find" onFound={(record) => console.log(record.properties.line)} />
    </BibliotopeProvider>
  );
}
`,
  },
  {
    id: "server",
    name: "Server",
    words:
      "Turns an address into a position before a record is stored. The result has to be unwrapped, so you cannot continue without a place by oversight.",
    language: "typescript",
    code: (service) => `import { Client, placeOf } from "@bibliotope/kit/server";

const client = new Client({ url: "${service}", key: process.env.BIBLIOTOPE_SERVER_KEY });

const place = await placeOf(client, { q: "12 harbor row, tidewell" }, { exactness: "between" });
if (place.ok) console.log(place.line, place.at);
else console.log(place.problem.status, place.problem.detail);
`,
  },
];
