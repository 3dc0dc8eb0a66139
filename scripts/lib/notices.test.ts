import { describe, expect, it } from "vitest";
import { fileOf, noticesOf, type Shipped, shippedWith } from "./notices.mjs";

const MIT = (owner: string) => `MIT License\n\nCopyright (c) ${owner}\n\nPermission is hereby granted to all.\n`;
const one = (name: string, text: string, license = "MIT"): Shipped => ({ name, version: "1.0.0", license, text });

describe("notices of others", () => {
  it("say a licence once for all who use it, and name each owner", () => {
    const text = noticesOf([one("a", MIT("Ada")), one("b", MIT("Bob")), one("c", "Other terms.", "ISC")]);
    expect(text.match(/Permission is hereby granted/g)).toHaveLength(1);
    for (const words of ["a 1.0.0 (MIT)", "Copyright (c) Ada", "b 1.0.0 (MIT)", "Copyright (c) Bob", "c 1.0.0 (ISC)"])
      expect(text).toContain(words);
    expect(text.indexOf("Other terms.")).toBeGreaterThan(text.indexOf("Permission"));
  });

  it("name the licence of what has no text of its own", () => {
    expect(noticesOf([one("plain", "")])).toContain("Licence: MIT");
  });

  it("hold all that ships, with licences that may be shipped alone", () => {
    const shipped = shippedWith(["kit", "server", "studio", "cli"]);
    expect(shipped.length).toBeGreaterThan(100);
    const allowed = /^\(?(MIT|ISC|0BSD|BSD-[23]-Clause|Apache-2\.0|OFL-1\.1|BlueOak-1\.0\.0|CC0-1\.0|Zlib)\b/;
    expect(shipped.filter(({ license }) => !allowed.test(license)).map(({ name }) => name)).toEqual([]);
    const kit = fileOf(shippedWith(["kit"]));
    for (const words of ["url-template", "Bram Stein", "three", "Neither the name of"]) expect(kit).toContain(words);
  });
});
