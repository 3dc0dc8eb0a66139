import { type FormDefinition, formJson } from "@bibliotope/core/form";

/** The script of a page that holds a form. @param service origin of the service */
export function scriptOf(service: string): string {
  return `
  import { Client, renderForm } from ${JSON.stringify(`${service}/kit/v1/bibliotope.js`)};

  const key = document.querySelector('meta[name="bibliotope-key"]').content;
  const definition = JSON.parse(document.querySelector("#form-definition").textContent);
  const client = new Client({ url: ${JSON.stringify(service)}, key });
  const place = document.querySelector("#form");
  try {
    if (!key) throw new Error("The page has no web key yet: it belongs into its meta element.");
    const { countries } = await client.countries();
    const { form, binding } = renderForm(place, definition, { client, countries });
    form.addEventListener("submit", () => console.log(binding.values()));
  } catch (error) {
    // whoever sets the page up is to see it
    place.setAttribute("role", "alert");
    place.textContent = \`This form cannot be shown. \${error.message}\`;
    throw error;
  }
`;
}

/**
 * A form as a complete page that runs as it is: its definition, and the kit from the service.
 * @param service origin of the service
 */
export function pageOf(definition: FormDefinition, service: string): string {
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<!-- The web key of this site. Everybody can read it, so it works only from the origins that it names; still it is
     written by whatever serves the page, from BIBLIOTOPE_WEB_KEY, and not kept with the code: it will be replaced. -->
<meta name="bibliotope-key" content="">
<title>${escaped(definition.title)}</title>

<h1>${escaped(definition.title)}</h1>
<div id="form"></div>

<script type="application/json" id="form-definition">
${jsonInHtml(definition)}
</script>
<script type="module">${scriptOf(service)}</script>
</html>
`;
}

/**
 * The policy under which the page runs: its script by its digest, the kit, lookups, pictures, and the map's worker.
 * @param digest SHA-256 of the page's script, as base64
 */
export function policyOf(service: string, digest: string): string {
  return [
    "default-src 'none'",
    `script-src ${service} 'sha256-${digest}'`,
    `connect-src ${service}`,
    `img-src 'self' ${service}`,
    "style-src 'self'",
    "worker-src blob:",
    "base-uri 'none'",
  ].join("; ");
}

/** SHA-256 of a text, as base64. */
export async function digestOf(text: string): Promise<string> {
  const bytes = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(text));
  return btoa(String.fromCharCode(...new Uint8Array(bytes)));
}

const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");

/** JSON that nothing in it can end the script element of. */
const jsonInHtml = (definition: FormDefinition) => formJson(definition).replace(/</g, "\\u003c");
