import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";

/** Debian's nginx before a server, on loopback, with a certificate of its own. */
export class TlsProxy {
  readonly url: string;
  readonly #folder = mkdtempSync(join(tmpdir(), "bibliotope-proxy-"));
  #nginx: ChildProcess | undefined;
  #said = "";

  constructor(private readonly port: number) {
    this.url = `https://localhost:${port}`;
  }

  /** @param to port of the server behind it */
  async start(to: number): Promise<void> {
    const at = (name: string) => join(this.#folder, name);
    const asked = ["req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=localhost"];
    const names = ["-addext", "subjectAltName=DNS:localhost"];
    execFileSync(program("OPENSSL"), [...asked, ...names, "-keyout", at("key.pem"), "-out", at("certificate.pem")], {
      stdio: "ignore",
    });
    mkdirSync(at("temporary"));
    const places = ["client_body", "proxy", "fastcgi", "uwsgi", "scgi"];
    const temporary = places.map((name) => `${name}_temp_path ${at("temporary")}/${name};`);
    writeFileSync(
      at("nginx.conf"),
      `daemon off; pid ${at("pid")}; worker_processes 1; error_log stderr;
events { worker_connections 256; }
http {
  access_log off; ${temporary.join(" ")} client_max_body_size 0;
  server {
    listen 127.0.0.1:${this.port} ssl; listen [::1]:${this.port} ssl;
    ssl_certificate ${at("certificate.pem")}; ssl_certificate_key ${at("key.pem")};
    location / {
      proxy_pass http://127.0.0.1:${to};
      proxy_http_version 1.1;
      proxy_set_header Host $http_host;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
      proxy_set_header X-Forwarded-Proto $scheme;
    }
  }
}
`,
    );
    this.#nginx = spawn(program("NGINX"), ["-c", at("nginx.conf"), "-p", this.#folder, "-e", "stderr"], {
      stdio: ["ignore", "ignore", "pipe"],
    });
    this.#nginx.stderr!.on("data", (piece: Buffer) => {
      this.#said += piece.toString();
    });
    for (let tries = 0; tries < 100; tries++) {
      if (await answers(this.port)) return;
      await wait(50);
    }
    throw new Error(`nginx does not listen:\n${this.#said}`);
  }

  async stop(): Promise<void> {
    const gone = this.#nginx && new Promise((resolve) => this.#nginx!.once("exit", resolve));
    this.#nginx?.kill("SIGTERM");
    await gone;
    rmSync(this.#folder, { recursive: true, force: true });
  }
}

function program(name: string): string {
  const path = process.env[`BIBLIOTOPE_TEST_${name}`];
  if (!path) throw new Error(`BIBLIOTOPE_TEST_${name} is not set: the browser tests run by npm test`);
  return path;
}

const answers = (port: number) =>
  new Promise<boolean>((resolve) => {
    const socket = connect(port, "127.0.0.1");
    socket.once("connect", () => {
      socket.destroy();
      resolve(true);
    });
    socket.once("error", () => resolve(false));
  });
