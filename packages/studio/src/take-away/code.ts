import { type FormDefinition, formJson, ruleOf } from "@bibliotope/core/form";
import { serverLookups } from "./calls.ts";

/** A form's title as a name of code: `Become a reader` is `BecomeAReader`. */
export function nameOf({ title }: FormDefinition): string {
  const words = title
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean);
  const name = words.map((word) => word.charAt(0).toUpperCase() + word.slice(1)).join("");
  return /^[A-Z]/.test(name) ? name : `Form${name}`;
}

/** The form as a React component. @param service origin of the service */
export function reactOf(definition: FormDefinition, service: string): string {
  const name = nameOf(definition);
  return `import { BibliotopeProvider, DefinedForm, type FormDefinition } from "@bibliotope/kit/react";

/** All fields and rules of the form, as the workbench keeps them. */
const definition: FormDefinition = ${formJson(definition)};

/**
 * The web key comes from the environment of the build (with Vite: VITE_BIBLIOTOPE_WEB_KEY in .env). Everybody can read
 * it in the page, so it works only from the origins that it names; it stays out of the code because it will be replaced.
 */
const webKey = import.meta.env.VITE_BIBLIOTOPE_WEB_KEY;

export function ${name}({ send }: { send: (values: Readonly<Record<string, string | undefined>>) => void }) {
  return (
    <BibliotopeProvider url=${JSON.stringify(service)} webKey={webKey}>
      <DefinedForm definition={definition} onSubmit={(values) => send(values)} />
    </BibliotopeProvider>
  );
}
`;
}

/** What a server does with the form before it stores a record. @param service origin of the service */
export function serverOf(definition: FormDefinition, service: string): string {
  const addresses = serverLookups(definition).map(({ address }) => address);
  const name = nameOf(definition);
  const asksRegister = definition.services?.some(({ register }) => register);
  if (!addresses.length) return `// No field of “${definition.title}” is looked up by a server.\n`;
  return `import { Client, placesOf } from "@bibliotope/kit/server";

/** All fields and rules of the form, as the workbench keeps them. */
const definition = ${formJson(definition)};

// A server key, which no browser ever sees: it comes from the environment and never is in code.
const client = new Client({ url: ${JSON.stringify(service)}, key: process.env.BIBLIOTOPE_SERVER_KEY });

/**
 * For Express, after express.json(): looks up where the addresses lie before anything is stored. It goes by what the
 * fields say; an address that is not quite right is refused, and showProblem of the kit shows why at the field. What
 * somebody asked to be taken as they typed it is stored without a position.${
   asksRegister
     ? `
 * The register that confirms addresses is called too; what it says is next to the place. While it does not answer, the
 * record is stored without that.`
     : ""
 }
 */
export async function store${name}(request, response, store) {
  const values = request.body;
  const found = await placesOf(client, { definition, values }${asksRegister ? ", { register: true }" : ""});
  if (!found.ok) return refuse(response, found.problem);
  // refs and positions stand beside the values, so that no name of a field is their own
  const record = { values, places: found.places };
  await store(record);
  response.status(201).json(record);
}

function refuse(response, problem) {
  response.status(problem.status).type("application/problem+json").json(problem);
}
`;
}

/** Where a record is shown again: a picture of the place that opens it, shows the way and copies the position. */
export function stillOf(service: string): string {
  return `<!-- A stored record: its ref and line stand in the page, web-key comes from the server's environment. -->
<script type="module" src="${service}/kit/v1/bibliotope.js" crossorigin="anonymous"></script>

<bibliotope-still url="${service}" web-key="" of="" label="" width="300" height="200" control></bibliotope-still>

<!-- For mails and chats, and wherever no script runs: a server with a key makes a link that ends after some hours.
     const { url } = await client.link({ of: ref, shows: "still", hours: 72 });   // <img src="\${url}" alt="">
     const { url, qr } = await client.link({ of: ref, hours: 72 });               // a page of the place, and its code for cameras -->
`;
}

/** The picker on a page of its own, opened in a window by a page that has nothing of ours in it. */
export function pickerOf(definition: FormDefinition, service: string): string {
  const { kinds, countries, anywhere } = ruleOf(definition, "");
  const params = {
    ...(kinds?.length ? { kinds: kinds.join(",") } : {}),
    ...(countries?.length ? { countries: countries.join(",") } : {}),
    ...(anywhere ? { anywhere: "1" } : {}),
    label: definition.title.slice(0, 80),
  };
  return `<!-- In a page: a window that hands the place back. The key names the origin of the page; nobody else is told. -->
<button id="pick">Find it on the map</button>
<script type="module">
  const service = ${JSON.stringify(service)};
  const key = document.querySelector('meta[name="bibliotope-key"]').content;

  document.querySelector("#pick").addEventListener("click", () => {
    const state = crypto.randomUUID();
    const query = new URLSearchParams({ ...${JSON.stringify(params).replace(/</g, "\\u003c")}, key, state, origin: location.origin });
    const opened = window.open(\`\${service}/pick?\${query}\`, "_blank", "popup,width=520,height=720");
    addEventListener("message", function hear({ origin, source, data }) {
      // whoever else sends something means somebody else
      if (origin !== service || source !== opened || data.state !== state) return;
      removeEventListener("message", hear);
      if (data.ended === "picked") console.log(data.place.ref, data.place.line, data.place.at, data.place.parts);
    });
  });
</script>

<!-- In the web view of an installed program, with a key of web views: open this address, and take the text that the page
     gives to the bridge of that name (a message handler of the platform, or an object with postMessage).
     ${service}/pick?${new URLSearchParams({ ...params, bridge: "places", key: "" })}
     Or let it go on to an address of the program's own scheme, which the key names, with ref, line, lat, lon and parts:
     ${service}/pick?${new URLSearchParams({ ...params, redirect: "app://localhost/picked", state: "seven", key: "" })} -->
`;
}
