import { type FormDefinition, formJson } from "@bibliotope/core/form";
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

// A server key, which no browser ever sees: it comes from the environment and never stands in code.
const client = new Client({ url: ${JSON.stringify(service)}, key: process.env.BIBLIOTOPE_SERVER_KEY });

/**
 * For Express, after express.json(): looks up where the addresses lie before anything is stored. It goes by what the
 * fields say; an address that is not quite right is refused, and showProblem of the kit shows why at its field. What
 * somebody asked to be taken as they typed it is stored without a position.${
   asksRegister
     ? `
 * The register that confirms addresses is asked too; what it says stands beside the place. While it does not answer, the
 * record is stored without that.`
     : ""
 }
 */
export async function store${name}(request, response, store) {
  const values = request.body;
  const found = await placesOf(client, { definition, values }${asksRegister ? ", { register: true }" : ""});
  if (!found.ok) return refuse(response, found.problem);
  // refs and positions stand beside the values, so that no name of a field is theirs
  const record = { values, places: found.places };
  await store(record);
  response.status(201).json(record);
}

function refuse(response, problem) {
  response.status(problem.status).type("application/problem+json").json(problem);
}
`;
}

/** Where a record is shown again: a picture of its place, and a link to the device's own maps. */
export function stillOf(service: string): string {
  return `<!-- A stored record: its ref and position stand in the page, the key comes from the server's environment. -->
<figure id="place" data-ref="" data-lat="" data-lon="" data-line="">
  <img width="300" height="200" crossorigin="anonymous" alt="">
  <figcaption><a>Open in maps</a> <span></span></figcaption>
</figure>

<script type="module">
  import { Client, handOn } from ${JSON.stringify(`${service}/kit/v1/bibliotope.js`)};

  const key = document.querySelector('meta[name="bibliotope-key"]').content;
  const client = new Client({ url: ${JSON.stringify(service)}, key });
  const place = document.querySelector("#place");
  const { ref, lat, lon, line } = place.dataset;

  const picture = place.querySelector("img");
  picture.src = client.stillUrl({ of: ref, size: "300x200", scale: 2 });
  picture.alt = \`Map around \${line}\`;

  // a geo: link opens the device's own map application; the coordinates stand beside it for where nothing answers
  const { show, text } = handOn({ lat: Number(lat), lon: Number(lon) }, line);
  place.querySelector("a").href = show;
  place.querySelector("span").textContent = text;
</script>
`;
}
