import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { describe, expect, it } from "vitest";
import { listen } from "./listen.ts";

describe("listen", () => {
  it("takes the next port when the one that was requested is taken, and says so", async () => {
    const taken = createServer();
    await new Promise<void>((resolve) => taken.listen(0, "127.0.0.1", resolve));
    const { port } = taken.address() as AddressInfo;
    const said: string[] = [];
    const server = await listen(
      () => undefined,
      { port, host: "127.0.0.1", ports: 100 },
      (words) => said.push(words),
    );
    expect((server.address() as AddressInfo).port).toBeGreaterThan(port);
    expect(said[0]).toBe(`Port ${port} is in use, trying ${port + 1}`);
    server.close();
    taken.close();
  });

  it("takes no other port where only one is tried", async () => {
    const taken = createServer();
    await new Promise<void>((resolve) => taken.listen(0, "127.0.0.1", resolve));
    const { port } = taken.address() as AddressInfo;
    const listening = listen(
      () => undefined,
      { port, host: "127.0.0.1" },
      () => undefined,
    );
    await expect(listening).rejects.toThrow(`port ${port} is in use. Set PORT to a free one.`);
    taken.close();
  });

  it("says what is wrong with a host that is not ours", async () => {
    await expect(
      listen(
        () => undefined,
        { port: 4999, host: "192.0.2.1" },
        () => undefined,
      ),
    ).rejects.toThrow("cannot listen on 192.0.2.1:4999");
  });
});
