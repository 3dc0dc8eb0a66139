import { LookupError } from "../client/errors.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { clientOf, ElementBase, tell } from "./service.ts";

/** A report was taken; the detail is what was sent. */
export const REPORTED = "bibliotope-reported";
/** Characters that a report may have. */
const MOST = 500;

const STYLE = `
:host { display: block; font: inherit; }
:host([hidden]), [hidden] { display: none; }
button { font: inherit; color: inherit; background: none; border: 1px solid currentColor; border-radius: 4px; padding: 0.3em 0.8em; cursor: pointer; }
button.open { border: 0; padding: 0; text-decoration: underline; }
button:disabled { opacity: 0.5; cursor: default; }
textarea { display: block; box-sizing: border-box; width: 100%; margin: 0.3em 0 0.6em; font: inherit; color: inherit; background: var(--bt-field, Field); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; padding: 0.45em 0.6em; }
form { margin-top: 0.7em; }
form button { margin-right: 0.4em; }
p { margin: 0.4em 0 0; }
p:empty { display: none; }
`;

/**
 * `<bibliotope-report>`: lets a person say what is wrong with an address, or which one is missing; people decide in
 * the workbench what becomes of it.
 *
 * Attributes: `web-key` and `url` (the service), `of` (the ref of what is wrong) or `for` (the id of a search element
 * whose chosen place it is), `label` (the button's label). Parts to style: `button`, `form`, `text`, `send`,
 * `cancel`, `words`.
 */
export class ReportElement extends ElementBase {
  static readonly observedAttributes = ["label"];

  readonly #open = document.createElement("button");
  readonly #form = document.createElement("form");
  readonly #text = document.createElement("textarea");
  readonly #send = document.createElement("button");
  readonly #words = document.createElement("p");

  connectedCallback(): void {
    if (this.shadowRoot) return;
    const root = this.attachShadow({ mode: "open", delegatesFocus: true });
    adopt(root, STYLE);
    const label = document.createElement("label");
    const cancel = document.createElement("button");
    Object.assign(this.#open, { type: "button", className: "open" });
    this.#open.setAttribute("aria-controls", "form");
    Object.assign(this.#text, { id: "text", rows: 3, maxLength: MOST, required: true });
    Object.assign(label, { htmlFor: "text", textContent: say("What is wrong?") });
    Object.assign(this.#send, { type: "submit", textContent: say("Send") });
    Object.assign(cancel, { type: "button", textContent: say("Cancel") });
    this.#form.id = "form";
    this.#words.setAttribute("role", "status");
    const parts = { button: this.#open, form: this.#form, text: this.#text, send: this.#send, words: this.#words };
    for (const [name, element] of Object.entries({ ...parts, cancel })) element.part.add(name);
    this.#form.append(label, this.#text, this.#send, cancel);
    root.replaceChildren(this.#open, this.#form, this.#words);
    this.#show(false);
    this.attributeChangedCallback();
    this.#open.addEventListener("click", () => this.#show(Boolean(this.#form.hidden)));
    cancel.addEventListener("click", () => this.#close());
    this.#form.addEventListener("keydown", (event) => {
      if (event.key === "Escape") this.#close();
    });
    this.#form.addEventListener("submit", (event) => {
      event.preventDefault();
      void this.#report();
    });
  }

  attributeChangedCallback(): void {
    this.#open.textContent = this.getAttribute("label") || say("Report a mistake in this address");
  }

  #show(is: boolean): void {
    this.#form.hidden = !is;
    this.#open.setAttribute("aria-expanded", String(is));
    this.#words.textContent = "";
    if (is) this.#text.focus();
  }

  #close(): void {
    this.#show(false);
    this.#open.focus();
  }

  /** What is meant: by ref, or as it was chosen in a search element. */
  get ref(): string | undefined {
    const search = (this.getRootNode() as Document | ShadowRoot).getElementById(this.getAttribute("for") ?? "");
    const record = search && "record" in search ? (search.record as { id: string } | undefined) : undefined;
    return this.getAttribute("of") || record?.id;
  }

  async #report(): Promise<void> {
    const client = clientOf(this);
    const text = this.#text.value.trim();
    if (!client || !text) return;
    const { ref } = this;
    const report = { ...(ref ? { ref } : {}), text };
    this.#send.disabled = true;
    try {
      await client.report(report);
      this.#text.value = "";
      this.#close();
      this.#words.textContent = say("Thank you. Your report will be reviewed.");
      tell(this, REPORTED, report);
    } catch (error) {
      if (!(error instanceof LookupError)) throw error;
      // what was written stays, to be sent again
      this.#words.textContent = error.message;
    } finally {
      this.#send.disabled = false;
    }
  }
}
