const ARGS = [
  "--no-sandbox",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** How Debian's Chromium is started by browser tests: the one without windows, which takes half the time. */
export const HEADLESS = { executablePath: "/usr/bin/chromium-headless-shell", args: ARGS };

/** How it is started by benchmarks: whole, as people have it. */
export const CHROMIUM = { executablePath: "/usr/bin/chromium", args: ARGS };
