/** How Debian's Chromium is started, by benchmarks and browser tests alike. */
export const CHROMIUM = {
  executablePath: "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
