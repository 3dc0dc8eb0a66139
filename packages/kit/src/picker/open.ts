import type { HandedBack, PickedPlace } from "./hand-back.ts";

/** What the hosted picker is opened with; see docs/picker.md. */
export interface OpenPickerOptions {
  /** Where the service is; the page's own origin when not given. */
  url?: string;
  /** A web key that names the page's origin. */
  key: string;
  /** What may be picked, where it begins, its language and style, such as `{ kinds: "address", at: "-35.2,-21.4", lang: "de" }`. */
  params?: Readonly<Record<string, string>>;
}

/** Milliseconds between two looks whether the window is still there. */
const LOOK = 400;

/**
 * Opens the hosted picker in a window of its own. To be called from a press: browsers open no window otherwise.
 * @returns the place, or undefined when the person cancelled or closed the window
 * @throws Error when the browser opened no window
 */
export function openPicker({
  url = location.origin,
  key,
  params = {},
}: OpenPickerOptions): Promise<PickedPlace | undefined> {
  const state = crypto.randomUUID();
  const page = new URL("/pick", url);
  for (const [name, value] of Object.entries({ ...params, key, origin: location.origin, state }))
    page.searchParams.set(name, value);
  const opened = window.open(page.href, "_blank", "popup,width=520,height=720");
  if (!opened) throw new Error("The browser opened no window for the picker.");
  return new Promise((resolve) => {
    const end = (place?: PickedPlace) => {
      clearInterval(looking);
      window.removeEventListener("message", hear);
      resolve(place);
    };
    const hear = ({ origin, source, data }: MessageEvent<HandedBack | undefined>) => {
      // whoever else sends something means somebody else
      if (origin !== page.origin || source !== opened || data?.from !== "bibliotope" || data.state !== state) return;
      end(data.place);
    };
    const looking = setInterval(() => opened.closed && end(), LOOK);
    window.addEventListener("message", hear);
  });
}
