import { describe, expect, it } from "vitest";
import { CALLS } from "./calls.ts";
import { openApi } from "./openapi.ts";
import { PROBLEMS } from "./problem.ts";

// biome-ignore lint/suspicious/noExplicitAny: a document is looked into at any depth
const document = openApi("1.2.3") as any;

describe("the OpenAPI document", () => {
  it("is of version 3.1 and says its own", () => {
    expect(document.openapi).toMatch(/^3\.1\./);
    expect(document.info.version).toBe("1.2.3");
  });

  it("has every call, with POST where a question is put", () => {
    expect(Object.keys(document.paths)).toEqual(Object.values(CALLS).map(({ path }) => path));
    expect(document.paths["/v1/suggest"]).toHaveProperty("post");
    expect(document.paths["/v1/records/{ref}"]).not.toHaveProperty("post");
  });

  it("names the parameters of a call with what they mean", () => {
    const parameters = document.paths["/v1/reverse"].get.parameters;
    expect(parameters.find((p: { name: string }) => p.name === "at")).toMatchObject({ in: "query", required: true });
    expect(parameters.find((p: { name: string }) => p.name === "radius").description).toContain("metres");
    expect(document.paths["/v1/records/{ref}"].get.parameters[0]).toMatchObject({
      name: "ref",
      in: "path",
      required: true,
    });
  });

  it("has nothing that leads nowhere", () => {
    const text = JSON.stringify(document);
    for (const [, id] of text.matchAll(/"#\/components\/schemas\/(\w+)"/g))
      expect(document.components.schemas, id).toHaveProperty(id);
    expect(text).not.toContain("$defs");
  });

  it("describes errors as problems", () => {
    const response = document.paths["/v1/suggest"].get.responses["400"];
    expect(Object.keys(response.content)).toEqual(["application/problem+json"]);
    expect(document.components.schemas.Problem.required).toEqual(
      expect.arrayContaining(["type", "title", "status", "detail"]),
    );
  });
});

describe("the problems", () => {
  it("have statuses of HTTP and titles of their own", () => {
    const titles = Object.values(PROBLEMS).map(({ title }) => title);
    expect(new Set(titles).size).toBe(titles.length);
    for (const { status } of Object.values(PROBLEMS)) expect(status).toBeGreaterThanOrEqual(400);
  });
});
