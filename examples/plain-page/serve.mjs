import { readFileSync } from "node:fs";
import { createServer } from "node:http";

// Any server of static pages will do; this one writes the settings of its environment into the page.
const { BIBLIOTOPE_URL: service, BIBLIOTOPE_WEB_KEY: key, PORT = "4310" } = process.env;
if (!service || !key) throw new Error("Set BIBLIOTOPE_URL and BIBLIOTOPE_WEB_KEY.");

const page = readFileSync(new URL("index.html", import.meta.url), "utf8")
  .replaceAll("{service}", service)
  .replaceAll("{key}", key);
const style = readFileSync(new URL("style.css", import.meta.url), "utf8");
const policy = [
  "default-src 'none'",
  `script-src 'self' ${service}`,
  `connect-src ${service}`,
  `img-src ${service}`,
  "style-src 'self'",
  "worker-src blob:",
  "form-action 'self'",
].join("; ");

createServer((request, response) => {
  const { pathname } = new URL(request.url ?? "/", "http://localhost");
  if (pathname === "/style.css") response.setHeader("Content-Type", "text/css").end(style);
  else if (pathname === "/page.js")
    response.setHeader("Content-Type", "text/javascript").end(readFileSync(new URL("page.js", import.meta.url)));
  else if (pathname === "/")
    response.setHeader("Content-Type", "text/html").setHeader("Content-Security-Policy", policy).end(page);
  else response.writeHead(pathname === "/favicon.ico" ? 204 : 404).end();
}).listen(Number(PORT), "127.0.0.1", function ready() {
  console.log(`http://localhost:${this.address().port}`);
});
