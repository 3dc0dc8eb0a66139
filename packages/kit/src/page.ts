import "@fontsource-variable/commissioner";
import "@fontsource/literata/400.css";
import "@fontsource/literata/400-italic.css";
import "@fontsource/literata/600.css";
import "./page.css";
import { Client, LookupError, renderForm } from "./web.ts";

/** The page of a form alone: reads the published definition with the page's web key and shows it, its map beside it. */
const main = document.querySelector<HTMLElement>("#page")!;
const client = new Client({ key: main.dataset.key!, url: new URL("..", location.href).href });
try {
  const [{ definition }, { countries }] = await Promise.all([client.form(main.dataset.form!), client.countries()]);
  const [columns, left, right] = ["div", "div", "div"].map((tag) => document.createElement(tag));
  columns.className = "columns";
  const map = definition.fields.find(({ kind, opens }) => kind === "map" && !opens);
  columns.append(left, ...(map ? [right] : []));
  main.append(columns);
  right.className = "pane";
  renderForm(left, definition, { client, countries, mapIn: map && right });
} catch (error) {
  const words = document.createElement("p");
  words.setAttribute("role", "alert");
  words.textContent =
    error instanceof LookupError
      ? `This form cannot be shown. ${error.message}`
      : "This form cannot be shown at the moment.";
  main.append(words);
  if (!(error instanceof LookupError)) throw error;
}
