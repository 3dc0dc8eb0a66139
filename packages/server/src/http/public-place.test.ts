import type { IncomingMessage, ServerResponse } from "node:http";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { basePathOf, type PublicPlace, underPath } from "./public-place.ts";

/** What a listener sees of a request, or where the request is sent on to. */
function meet(place: Pick<PublicPlace, "path">, url: string): { url?: string; base?: string; to?: string } {
  const met: ReturnType<typeof meet> = {};
  const response = {
    writeHead(_status: number, { location }: { location: string }) {
      met.to = location;
      return this;
    },
    end: () => undefined,
  };
  const listener = (request: IncomingMessage) => {
    met.url = request.url!;
    met.base = basePathOf(request);
  };
  underPath({ path: place.path, trusted: false }, listener)(
    { url } as IncomingMessage,
    response as unknown as ServerResponse,
  );
  return met;
}

const segment = fc.stringMatching(/^[a-z][a-z0-9.~_-]{0,8}$/);
const path = fc.array(segment, { minLength: 1, maxLength: 3 }).map((all) => `/${all.join("/")}`);
const target = fc.tuple(fc.webPath(), fc.webQueryParameters()).map(([at, query]) => `/${at.slice(1)}?${query}`);

describe("under a path", () => {
  it("whatever is requested under it is seen as at the top of a host", () => {
    fc.assert(
      fc.property(path, target, (base, url) => {
        expect(meet({ path: base }, base + url)).toEqual({ url, base });
      }),
    );
  });

  it("is also answered where a proxy cut the path off, but never for a path that only begins like it", () => {
    fc.assert(
      fc.property(path, segment, target, (base, more, url) => {
        expect(meet({ path: base }, `${base}${more}${url}`)).toEqual({ url: `${base}${more}${url}`, base });
      }),
    );
  });

  it.each([
    ["/addresses", "/addresses/"],
    ["/addresses?link=used", "/addresses/?link=used"],
  ])("%s goes on to %s, and to no other host", (url, to) => {
    expect(meet({ path: "/addresses" }, url)).toEqual({ to });
    expect(meet({ path: "/addresses" }, "/addresses//evil.example")).toMatchObject({ url: "//evil.example" });
  });

  it("at the top of a host nothing is changed", () => {
    expect(meet({ path: "" }, "/v1/suggest?q=a")).toEqual({ url: "/v1/suggest?q=a", base: "" });
  });
});
