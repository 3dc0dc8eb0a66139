/** What browsers and systems call themselves, in the order in which they are to be looked for: most also name others. */
const BROWSERS = [
  [/\bEdg\w*\/(\d+)/, "Edge"],
  [/\bFirefox\/(\d+)/, "Firefox"],
  [/\b(?:Headless)?Chrome\/(\d+)/, "Chrome"],
  [/\bVersion\/(\d+)[\d.]* .*Safari\//, "Safari"],
] as const;
const SYSTEMS = [
  [/iPhone|iPad/, "iOS"],
  [/Android/, "Android"],
  [/Windows/, "Windows"],
  [/Macintosh/, "macOS"],
  [/Linux/, "Linux"],
] as const;

/** A browser in words, from what it calls itself: "Firefox 140 on Linux". What is not known is shown as it is. */
export function browserWords(agent: string): string {
  for (const [pattern, name] of BROWSERS) {
    const version = pattern.exec(agent)?.[1];
    if (!version) continue;
    const system = SYSTEMS.find(([known]) => known.test(agent))?.[1];
    return `${name} ${version}${system ? ` on ${system}` : ""}`;
  }
  return agent || "an unknown browser";
}
