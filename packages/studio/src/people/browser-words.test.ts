import { expect, it } from "vitest";
import { browserWords } from "./browser-words.ts";

it.each([
  [
    "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) HeadlessChrome/140.0.1.2 Safari/537.36",
    "Chrome 140 on Linux",
  ],
  [
    "Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/139.0 Safari/537.36 Edg/139.0",
    "Edge 139 on Windows",
  ],
  ["Mozilla/5.0 (Macintosh; Intel Mac OS X 14.1; rv:142.0) Gecko/20100101 Firefox/142.0", "Firefox 142 on macOS"],
  [
    "Mozilla/5.0 (iPhone; CPU iPhone OS 18_1 like Mac OS X) AppleWebKit/605.1 (KHTML, like Gecko) Version/18.1 Mobile/15E148 Safari/604.1",
    "Safari 18 on iOS",
  ],
  ["curl/8.5.0", "curl/8.5.0"],
  ["", "an unknown browser"],
])("%s", (agent, words) => {
  expect(browserWords(agent)).toBe(words);
});
