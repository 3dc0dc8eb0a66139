import { refOf } from "@bibliotope/core/place";
import {
  countriesAnswer,
  distanceAnswer,
  forwardAnswer,
  postcodesAnswer,
  type RecordFeature,
  recordAnswer,
  reverseAnswer,
  suggestAnswer,
} from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { json, shared } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";

const suggest = (query: string, init?: Parameters<typeof json>[1]) => json(`/v1/suggest?${query}`, init);

describe("/v1/countries", () => {
  it("says where the data of each lies: whatever is found there is in its box, and the boxes are no wider than the lands", async () => {
    const { body } = await json("/v1/countries");
    const countries = countriesAnswer.strict().parse(body).countries;
    expect(countries.map(({ code }) => code).sort()).toEqual(["QR", "QV", "QY"]);
    for (const { code, bbox } of countries) {
      const [west, south, east, north] = bbox!;
      for (const q of ["1", "12", "mill", "strand", "south", "a", "s"]) {
        const found = await suggest(`q=${q}&countries=${code}&limit=20`);
        for (const { ref } of found.body.suggestions) {
          const { at } = (await json(`/v1/records/${ref}`)).body.properties;
          expect(at.lat, ref).toBeGreaterThanOrEqual(south);
          expect(at.lat, ref).toBeLessThanOrEqual(north);
          expect(at.lon, ref).toBeGreaterThanOrEqual(west);
          expect(at.lon, ref).toBeLessThanOrEqual(east);
        }
      }
      expect(east - west).toBeLessThan(2);
      expect(north - south).toBeLessThan(2);
    }
  });
});

describe("advice", () => {
  const asked = async (path: string, language: string) =>
    (await json(path, { headers: { "accept-language": language } })).body.advice[0] as string;

  it("is in the reader's language, by the header or the word, and in English where that is not spoken", async () => {
    const nothing = "/v1/forward?q=qqqzx+wwwvk";
    expect(await asked(nothing, "en-GB,en;q=0.9")).toMatch(/^Unknown: qqqzx, wwwvk\. Check the spelling\.$/);
    expect(await asked(nothing, "de-AT,de;q=0.9,en;q=0.5")).toBe(
      "Unbekannt: qqqzx, wwwvk. Prüfen Sie die Schreibweise.",
    );
    expect(await asked(nothing, "sv")).toMatch(/^Unknown: /);
    expect(await asked(`${nothing}&lang=fr`, "de")).toMatch(/^Inconnu : qqqzx, wwwvk\./);
    expect(await asked("/v1/reverse?at=0,0", "pl")).toBe("Nie ma tu adresu ani obszaru. Spróbuj większego promienia.");
    expect(await asked("/v1/reverse?at=-21.5,-35.2", "it")).toMatch(/^Qui non c'è nulla, ma c'è a /);
    expect(await asked("/v1/suggest?q=harbour&countries=QM", "nl")).toBe(
      "Er zijn geen gegevens voor QM, alleen voor QR, QV, QY.",
    );
    expect(await asked("/v1/postcodes/QR?starts=ZZZ", "pt")).toBe("Nenhum código postal começa assim.");
    expect(await asked("/v1/forward?q=Harbour+Row", "es")).toMatch(/^Varias |^«|^No hay|^En los datos/);
  });
});

describe("/v1/suggest", () => {
  it("answers lines to choose from, as its schema says", async () => {
    const { status, headers, body } = await suggest("q=12+harb");
    expect(status).toBe(200);
    expect(headers.get("content-type")).toContain("application/json");
    expect(suggestAnswer.strict().parse(body)).toEqual(body);
    expect(body.suggestions[0]).toMatchObject({
      kind: "address",
      line: "12 Harbour Row, Tidewell",
      within: "Sallow, Lorramere",
    });
    expect(body.source[0]).toEqual({ name: "The islands", day: "2026-11-01", licence: "CC0-1.0" });
  });

  it("answers the same by POST, with the words as JSON", async () => {
    const sent = { q: "12 harb", countries: ["QR"], near: { lat: -35.2, lon: -21.4 }, limit: 3 };
    const posted = await json("/v1/suggest", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(sent),
    });
    const got = await suggest("q=12+harb&countries=QR&near=-35.2,-21.4&limit=3");
    expect(posted.body).toEqual(got.body);
    expect(posted.body.suggestions).toHaveLength(3);
  });

  it("answers in the script that was typed, and in the language that was requested", async () => {
    expect((await suggest("q=pelania&kinds=town")).body.suggestions[0].line).toBe("Pelania");
    expect((await suggest(`q=${encodeURIComponent("πελανία")}&kinds=town`)).body.suggestions[0].line).toBe("Πελανία");
    expect((await suggest("q=pelania&kinds=town&lang=qth-Grek")).body.suggestions[0].line).toBe("Πελανία");
    expect(
      (await suggest("q=pelania&kinds=town", { headers: { "accept-language": "qth-Grek,en;q=0.5" } })).body
        .suggestions[0].line,
    ).toBe("Πελανία");
  });

  it("goes on to the numbers of a street", async () => {
    const street = (await suggest("q=harbour+row+tidewell&kinds=street")).body.suggestions[0];
    const { body } = await suggest(`q=&inside=${street.ref}&limit=20`);
    expect(body.suggestions.length).toBe(Math.min(20, street.more));
    expect(body.suggestions.every(({ line }: { line: string }) => line.endsWith("Harbour Row, Tidewell"))).toBe(true);
  });

  it("looks through a whole street of up to a hundred numbers at once", async () => {
    const { body: streets } = await suggest("q=harbour+row&kinds=street&limit=100");
    const long = streets.suggestions.filter(({ more }: { more: number }) => more > 20 && more <= 100);
    expect(long.length).toBeGreaterThan(0);
    for (const { ref, more } of long) {
      const { status, body } = await suggest(`q=&inside=${ref}&limit=100`);
      expect(status).toBe(200);
      const lines: { ref: string; more: number }[] = body.suggestions;
      expect(new Set(lines.map((one) => one.ref)).size).toBe(lines.length);
      // a building with units is there once, before them
      expect(lines.reduce((sum, one) => sum + 1 + one.more, 0)).toBe(more);
    }
  });

  it("says so when nothing is found; that is no error", async () => {
    expect((await suggest("q=")).body).toMatchObject({ outcome: "none", suggestions: [] });
    expect((await suggest("q=qqxxzz")).body).toMatchObject({ outcome: "none", suggestions: [] });
    expect((await suggest("q=harbour&countries=QM")).body.advice[0]).toBe(
      "There is no data for QM, only for QR, QV, QY.",
    );
  });

  it("answers equal questions with equal bytes, and 304 to those who have them", async () => {
    const first = await suggest("q=12+harb");
    const second = await suggest("q=12+harb");
    expect(second.body).toEqual(first.body);
    expect(second.headers.get("etag")).toBe(first.headers.get("etag"));
    const { url, keys } = shared();
    const again = await fetch(`${url}/v1/suggest?q=12+harb`, {
      headers: {
        authorization: `Bearer ${keys.srv}`,
        "if-none-match": first.headers.get("etag")!,
        "cache-control": "",
      },
    });
    expect(again.status).toBe(304);
  });

  it("tells its time in a header, and has a request id", async () => {
    const { headers } = await suggest("q=12+harb");
    expect(headers.get("server-timing")).toMatch(/^engine;dur=\d+\.\d\d$/);
    expect(headers.get("x-request-id")).toMatch(/^[0-9a-f-]{36}$/);
    expect(headers.get("cache-control")).toContain("private");
  });

  it("is compressed for those who ask", async () => {
    const { headers } = await suggest("q=harbour&limit=100", { headers: { "accept-encoding": "gzip" } });
    expect(headers.get("content-encoding")).toBe("gzip");
  });
});

describe("/v1/forward", () => {
  it("answers candidates as GeoJSON, as its schema says", async () => {
    const { headers, body } = await json("/v1/forward?q=12+Harbour+Row,+Tidewell&gloss=1");
    expect(headers.get("content-type")).toContain("application/geo+json");
    expect(forwardAnswer.strict().parse(body)).toEqual(body);
    const [first] = body.features;
    expect(first.geometry.coordinates).toEqual([first.properties.at.lon, first.properties.at.lat]);
    expect(first.properties).toMatchObject({
      kind: "address",
      exactness: "surveyed",
      parts: {
        house: { name: "12" },
        street: { name: "Harbour Row", abbr: "Harbour Rw" },
        town: { name: "Tidewell" },
        country: { name: "Lorramere", code: "QR" },
      },
      autofill: { "address-line1": "12 Harbour Row", "address-level2": "Tidewell", country: "QR" },
    });
    expect(first.properties.gloss[0]).toMatchObject({ typed: "12", how: "same", part: "house" });
  });

  it("leaves the gloss out unless it is requested", async () => {
    const { body } = await json("/v1/forward?q=12+Harbour+Row");
    expect(body.features[0].properties).not.toHaveProperty("gloss");
  });

  it("takes an address by its parts", async () => {
    const { body } = await json("/v1/forward?house=12&street=Harbour+Row&town=Tidewell&country=Lorramere");
    expect(body.features[0].properties.line).toContain("12 Harbour Row, Tidewell");
  });

  it("lets the box of an area stand as bbox", async () => {
    const { body } = await json("/v1/forward?q=Tidewell&kinds=town");
    const [west, south, east, north] = body.features[0].bbox;
    expect(west).toBeLessThan(east);
    expect(south).toBeLessThan(north);
  });
});

describe("/v1/reverse and /v1/records", () => {
  it("go from a position to the nearest address and the areas, and on to each record", async () => {
    const { body: found } = await json("/v1/forward?q=12+Harbour+Row,+Tidewell");
    const { lat, lon } = found.features[0].properties.at;
    const { body } = await json(`/v1/reverse?at=${lat},${lon}`);
    expect(reverseAnswer.strict().parse(body)).toEqual(body);
    expect(body.features[0]).toMatchObject({ id: found.features[0].id, properties: { distance: 0 } });
    expect(body.features.at(-1).properties.kind).toBe("country");
    for (const { id, properties } of body.features) {
      const record = await json(`/v1/records/${id}`);
      expect(recordAnswer.strict().parse(record.body)).toEqual(record.body);
      expect(record.body.properties.kind).toBe(properties.kind);
    }
  });

  it("give advice for a position whose swapped twin lies in the data", async () => {
    const { body } = await json("/v1/reverse?at=-21.6253,-35.1841");
    expect(body).toMatchObject({ outcome: "none", features: [] });
    expect(body.advice[0]).toContain("swapped");
  });

  it("say 410 for a ref whose record was taken out of the data", async () => {
    const database = connect(shared().databaseUrl, 1);
    const gone = { natural_key: `a house that was pulled down, ${Date.now()}` };
    try {
      const [{ id }] = await database("identities")
        .insert({ ...gone, data_set_id: database.raw("(select min(id) from data_sets)") })
        .returning("id");
      const answer = { status: 410, body: { type: "/problems/withdrawn" } };
      expect(await json(`/v1/records/${refOf("QR", id)}`)).toMatchObject(answer);
      expect(await json(`/v1/still?of=${refOf("QR", id)}`)).toMatchObject(answer);
    } finally {
      await database("identities").where(gone).delete();
      await database.destroy();
    }
  });

  it("say 404 for a ref of another country than its record's", async () => {
    const [{ ref }] = (await json("/v1/suggest?q=12+harb&limit=1")).body.suggestions;
    expect((await json(`/v1/records/qv-${ref.slice(3)}`)).status).toBe(404);
  });

  it("say 404 for a ref that nothing has", async () => {
    expect(await json("/v1/records/qr-zzzzzz")).toMatchObject({ status: 404, body: { type: "/problems/not-found" } });
  });
});

describe("a position typed as text", () => {
  it("is answered as a reverse lookup", async () => {
    const { body } = await json("/v1/forward?q=geo:-35.2088,-21.4071&gloss=1");
    const reversed = await json("/v1/reverse?at=-35.2088,-21.4071&limit=5");
    expect(forwardAnswer.strict().parse(body)).toEqual(body);
    expect(body.features.map(({ id }: { id: string }) => id)).toEqual(
      reversed.body.features.map(({ id }: { id: string }) => id),
    );
  });
});

describe("a text that nothing answers to", () => {
  it("is answered with its parts all the same", async () => {
    const { body } = await json("/v1/forward?q=14b+Vuxxel+Street,+Qworthamm&gloss=1");
    expect(forwardAnswer.strict().parse(body)).toEqual(body);
    expect(body).toMatchObject({
      outcome: "none",
      features: [],
      reading: { country: "QR", parts: { house: { name: "14b" }, street: { name: "Vuxxel Street" } } },
    });
  });
});

describe("/v1/postcodes", () => {
  it("answers the postcodes that begin with some characters, as its schema says", async () => {
    const { body: found } = await json("/v1/forward?q=12+Harbour+Row,+Tidewell");
    const code: string = found.features[0].properties.parts.postcode.name;
    const { status, body } = await json(`/v1/postcodes/QR?starts=${code.slice(0, 3)}&limit=100`);
    expect(status).toBe(200);
    expect(postcodesAnswer.strict().parse(body)).toEqual(body);
    const codes: string[] = body.features.map((f: RecordFeature) => f.properties.parts.postcode?.name);
    expect(codes).toContain(code);
    expect(codes.every((each) => each.startsWith(code.slice(0, 3)))).toBe(true);
    expect(codes).toEqual([...codes].sort());
    const whole = await json(`/v1/postcodes/qr?starts=${code.replace(" ", "").toLowerCase()}`);
    expect(whole.body).toMatchObject({ total: 1, features: [{ properties: { kind: "postcode" } }] });
    expect(whole.body.features[0].properties.covers).toContain("Harbour Row");
  });

  it("says so where there is none, and which countries are known", async () => {
    expect((await json("/v1/postcodes/QR?starts=qqq")).body).toMatchObject({ outcome: "none", total: 0, features: [] });
    expect((await json("/v1/postcodes/QM?starts=1")).body.advice[0]).toContain("only for QR, QV, QY");
    expect(await json("/v1/postcodes/QR")).toMatchObject({ status: 400, body: { issues: [{ parameter: "starts" }] } });
    expect(await json("/v1/postcodes/QR?starts=--")).toMatchObject({ status: 400 });
  });
});

describe("/v1/distance", () => {
  it("answers metres and a bearing", async () => {
    const { body } = await json("/v1/distance?from=0,179.9&to=0,-179.9");
    expect(distanceAnswer.strict().parse(body)).toEqual({ metres: 22_263.898, bearing: 90 });
    const posted = await json("/v1/distance", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ from: { lat: 0, lon: 179.9 }, to: { lat: 0, lon: -179.9 } }),
    });
    expect(posted.body).toEqual(body);
  });

  it("has no bearing to where one stands, and no mercy on a swapped position", async () => {
    expect((await json("/v1/distance?from=1,1&to=1,1")).body).toEqual({ metres: 0 });
    expect((await json("/v1/distance?from=1,1&to=100,1")).body.issues[0].message).toContain("swapped");
  });
});

describe("other forms of an answer", () => {
  const FORMS = [
    ["csv", "text/csv", /^ref,kind,exactness,/],
    ["gpx", "application/gpx+xml", /^<\?xml version="1.0" encoding="UTF-8"\?>\n<gpx version="1.1"/],
    ["vcf", "text/vcard", /^BEGIN:VCARD\r\nVERSION:4.0\r\n/],
    ["geojsonseq", "application/geo+json-seq", /^\u001e\{"type":"Feature"/],
  ] as const;

  it.each(FORMS)("%s comes by format= and by Accept", async (format, type, begins) => {
    const { url, keys } = shared();
    const ask = (path: string, accept?: string) =>
      fetch(`${url}${path}`, { headers: { authorization: `Bearer ${keys.srv}`, ...(accept ? { accept } : {}) } });
    const { body: found } = await json("/v1/forward?q=Tidewell");
    for (const path of [
      "/v1/forward?q=Tidewell",
      "/v1/reverse?at=-35.2,-21.4",
      `/v1/records/${found.features[0].id}?lang=en`,
      "/v1/postcodes/QR?starts=S",
    ]) {
      const byWord = await ask(`${path}&format=${format}`);
      const byHeader = await ask(path, type);
      expect(byWord.headers.get("content-type")).toContain(type);
      expect(byWord.headers.get("vary")).toContain("Accept");
      const text = await byWord.text();
      expect(text).toMatch(begins);
      expect(await byHeader.text()).toBe(text);
    }
  });

  it("suggestions come as OpenSearch suggestions", async () => {
    const { headers, body } = await json("/v1/suggest?q=12+harb&format=opensearch&limit=2");
    expect(headers.get("content-type")).toContain("application/x-suggestions+json");
    expect(body).toEqual([
      "12 harb",
      [expect.any(String), expect.any(String)],
      [expect.any(String), expect.any(String)],
    ]);
  });

  it("a form that there is not is refused, with one that there is", async () => {
    expect(await json("/v1/forward?q=x&format=kml")).toMatchObject({
      status: 400,
      body: { issues: [{ parameter: "format", example: "format=csv" }] },
    });
  });
});

describe("facts", () => {
  it("come as they were chosen", async () => {
    const { body } = await json("/v1/suggest?q=library&kinds=place");
    const ref = body.suggestions[0].ref;
    const whole = (await json(`/v1/records/${ref}`)).body.properties.facts;
    expect(Object.keys(whole)).toContain("openingHours");
    const chosen = (await json(`/v1/records/${ref}?facts=openingHours`)).body.properties.facts;
    expect(chosen).toEqual({ openingHours: whole.openingHours });
    // those of the data's own by their names, the others not
    const { seats } = whole.own;
    expect(seats).toEqual({ label: "Seats", kind: "number", value: expect.any(Number) });
    expect((await json(`/v1/records/${ref}?facts=seats,rating`)).body.properties.facts).toEqual({ own: { seats } });
    const { body: found } = await json("/v1/forward?q=library&kinds=place&facts=seats&limit=1");
    expect(Object.keys(found.features[0].properties.facts)).toEqual(["own"]);
    const wrong = await json(`/v1/records/${ref}?facts=Rating!`);
    expect([wrong.status, wrong.body.issues[0].message]).toEqual([400, expect.stringContaining("phone, url")]);
  });
});

describe("what a lookup tells beside its records", () => {
  it("is how high the ground lies at each, where that is requested, as the height of the spot has it", async () => {
    for (const path of ["forward?q=12+Harbour+Row+Tidewell&limit=1", "reverse?at=-35.1841,-21.6253&kinds=address"]) {
      const [{ properties }] = (await json(`/v1/${path}&height=1`)).body.features;
      const { lat, lon } = properties.at;
      const { metres } = (await json(`/v1/height?at=${lat},${lon}`)).body;
      expect(typeof metres).toBe("number");
      expect(properties.height).toBeCloseTo(metres, 0);
      expect((await json(`/v1/${path}`)).body.features[0].properties).not.toHaveProperty("height");
    }
    const { body } = await json("/v1/records/qr-hgwrp5?height=1");
    expect(typeof body.properties.height).toBe("number");
    expect((await json("/v1/records/qr-hgwrp5?height=high")).status).toBe(400);
  });

  it("is what lies around the country", async () => {
    const { body } = await json("/v1/records/qr-hgwrp5");
    expect(body.properties.continent).toEqual({ code: "QZ", name: "Southern Islands" });
  });
});
