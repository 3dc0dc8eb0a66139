import { type Position, roundDegrees } from "@bibliotope/core/geo";
import { parseTemplate } from "url-template";

/** Links to another map application: templates (RFC 6570) with `lat`, `lon` and `label`. */
export interface HandOnTemplates {
  /** Shows the place, such as `https://maps.example/at/{lat},{lon}{?label}`; a `geo:` link when not given. */
  show?: string;
  /** Shows the way there; not offered when not given. */
  way?: string;
}

/** A place as links to another map application, and as text. */
export interface HandedOn {
  show: string;
  way?: string;
  /** The coordinates as text, to be copied. */
  text: string;
}

/** Schemes that open nothing but run or read something. */
const REFUSED = new Set(["javascript:", "vbscript:", "data:", "blob:", "file:", "about:"]);

/**
 * Links that hand a place on to the device's own map application.
 * @throws {RangeError} when a template is not a link to an application or a page
 */
export function handOn(at: Position, label = "", { show, way }: HandOnTemplates = {}): HandedOn {
  const { lat, lon } = { lat: roundDegrees(at.lat), lon: roundDegrees(at.lon) };
  const link = (template: string) => checked(parseTemplate(template).expand({ lat, lon, label }));
  return {
    show: show ? link(show) : geoUri({ lat, lon }, label),
    ...(way ? { way: link(way) } : {}),
    text: `${lat}, ${lon}`,
  };
}

/** A `geo:` URI (RFC 5870) with the label as a parameter, which a reader that does not know it leaves aside. */
export function geoUri({ lat, lon }: Position, label = ""): string {
  return `geo:${lat},${lon}${label ? `;name=${encodeURIComponent(label)}` : ""}`;
}

function checked(link: string): string {
  if (!URL.canParse(link) || REFUSED.has(new URL(link).protocol))
    throw new RangeError(`a template has to make a link to an application or a page, not ${link}`);
  return link;
}
