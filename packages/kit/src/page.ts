import { Client } from "./client/client.ts";
import { LookupError } from "./client/errors.ts";
import { renderForm } from "./form/render.ts";

/** The page of a form alone: reads the published definition with the page's web key and shows it. */
const main = document.querySelector<HTMLElement>("#page")!;
const client = new Client({ key: main.dataset.key! });
try {
  const [form, { countries }] = await Promise.all([client.form(main.dataset.form!), client.countries()]);
  const title = document.createElement("h1");
  title.textContent = form.definition.title;
  main.append(title);
  renderForm(main, form.definition, { client, countries });
} catch (error) {
  const words = document.createElement("p");
  words.setAttribute("role", "alert");
  words.textContent = error instanceof LookupError ? `This form cannot be shown. ${error.message}` : "This form cannot be shown at the moment.";
  main.append(words);
  if (!(error instanceof LookupError)) throw error;
}
