const relative = new Intl.RelativeTimeFormat("en", { numeric: "auto" });
const STEPS: [Intl.RelativeTimeFormatUnit, number][] = [
  ["day", 86_400],
  ["hour", 3600],
  ["minute", 60],
];

/** How long ago something was, in words. @param iso ISO 8601 */
export function moment(iso: string, now = Date.now()): string {
  const seconds = (Date.parse(iso) - now) / 1000;
  for (const [unit, length] of STEPS)
    if (Math.abs(seconds) >= length) return relative.format(Math.round(seconds / length), unit);
  return "a moment ago";
}
