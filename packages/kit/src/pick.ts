import "./pick.css";
import { readPosition } from "@bibliotope/core/geo";
import { MAP_STYLES } from "@bibliotope/core/map";
import type { Kind } from "@bibliotope/core/place";
import { Client } from "./client/client.ts";
import { LookupError } from "./client/errors.ts";
import { lacking } from "./client/lacking.ts";
import { make } from "./map/make.ts";
import { bridgeOf, type HandedBack, placeOfPicked, redirectOf } from "./picker/hand-back.ts";
import { PickerPanel } from "./picker/panel.ts";
import { loadWords, setWords } from "./words/index.ts";
import { say } from "./words/say.ts";

/** The picker as a page of its own. The service has looked at how it was requested: where it hands back to is allowed. */
const main = document.querySelector<HTMLElement>("#pick")!;
const params = JSON.parse(main.dataset.params!) as Readonly<Record<string, string | undefined>>;
setWords(await loadWords(document.documentElement.lang).catch(() => undefined));
const client = new Client({ key: params.key!, url: new URL(".", location.href).href });
const { state = "", origin, redirect, bridge } = params;
const label = params.label ?? say("Find it on the map");
const isSpot = params.anywhere === "1";
document.title = label;
if (params.accent) document.documentElement.style.setProperty("--bt-ink", `#${params.accent}`);
let hasEnded = false;

/** Tells whoever opened it, and them alone. */
function handBack(back: HandedBack): void {
  if (hasEnded) return;
  if (redirect !== undefined) {
    hasEnded = true;
    location.assign(redirectOf(redirect, back));
    return;
  }
  const by = bridge === undefined ? undefined : bridgeOf(bridge);
  const opener = window.opener ?? (window.parent === window ? undefined : window.parent);
  if (by) by.postMessage(JSON.stringify(back));
  else if (opener && origin) opener.postMessage(back, origin);
  else {
    said.textContent = say("No page is waiting for this place. Open the picker again from the page you came from.");
    return;
  }
  hasEnded = true;
  if (window.opener) window.close();
  said.textContent = back.place ? say("Returned: {place}", { place: toldOf(back) }) : say("Cancelled.");
}
const toldOf = ({ place }: HandedBack) => place?.line || `${place?.at.lat}, ${place?.at.lon}`;
const cancel = () => handBack({ from: "bibliotope", ended: "cancelled", state });

const said = make("p", "said");
said.setAttribute("role", "status");
const panel = new PickerPanel({
  client,
  label,
  rule: {
    kinds: (params.kinds?.split(",") ?? []) as Kind[],
    countries: params.countries?.split(",") ?? [],
    anywhere: isSpot,
  },
  at: params.at ? readPosition(params.at) : undefined,
  zoom: params.zoom ? Number(params.zoom) : undefined,
  ...(params.q ? { text: params.q } : {}),
  ...(params.style ? { mapStyle: MAP_STYLES.find((mapStyle) => mapStyle === params.style)! } : {}),
  ...(params.night ? { night: params.night === "1" } : {}),
  done: (picked) => handBack({ from: "bibliotope", ended: "picked", state, place: placeOfPicked(picked, isSpot) }),
  cancelled: cancel,
});
main.append(make("h1", "", label), panel.element, said);
panel.begin();
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape" && !event.defaultPrevented) cancel();
});
// closed by its own button, a window has been cancelled too
window.addEventListener("pagehide", () => {
  if (!hasEnded && redirect === undefined) cancel();
});
document.documentElement.dataset.ready = "true";
if ((await lacking(client, ["suggest", "records", "reverse", "tiles"])).length)
  said.textContent = say("Address search is not allowed on this page.");
if (params.ref)
  try {
    panel.show(await client.record(params.ref));
  } catch (error) {
    said.textContent =
      error instanceof LookupError ? error.message : say("The address search does not work at the moment.");
  }
