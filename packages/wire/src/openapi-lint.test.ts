import { createConfig, lintFromString } from "@redocly/openapi-core";
import { describe, expect, it } from "vitest";
import { openApi } from "./openapi.ts";

const document = openApi("1.2.3");

/** What the linter's recommended rules find, with warnings. */
async function found(source: object): Promise<string[]> {
  const config = await createConfig({ extends: ["recommended"] });
  const problems = await lintFromString({ source: JSON.stringify(source), config });
  return problems.map(({ ruleId, message, location }) => `${ruleId} ${location[0]?.pointer}: ${message}`);
}

describe("the OpenAPI document, linted", () => {
  it("has nothing to warn of", async () => {
    expect(await found(document)).toEqual([]);
  });

  it("would be warned of", async () => {
    const { tags: _, security: __, ...spoilt } = document;
    expect((await found(spoilt)).length).toBeGreaterThan(0);
  });
});

describe("an operation", () => {
  it("has a tag, a description, an example of its parameters, and one media type", () => {
    const paths = document.paths as Record<string, Record<string, Operation>>;
    for (const [path, operations] of Object.entries(paths))
      for (const [method, { tags, description, parameters, requestBody, responses }] of Object.entries(operations)) {
        const name = `${method} ${path}`;
        expect(tags, name).toHaveLength(1);
        expect(description.length, name).toBeGreaterThan(15);
        for (const [status, { content }] of Object.entries(responses))
          expect(Object.keys(content), `${name} ${status}`).toHaveLength(1);
        const examples = [...parameters, ...Object.values(requestBody?.content ?? {})].filter(
          (one) => "example" in one,
        );
        const asks = parameters.length > 0 || (requestBody && !("text/csv" in requestBody.content));
        if (asks) expect(examples.length, name).toBeGreaterThan(0);
      }
  });
});

interface Operation {
  tags: string[];
  description: string;
  parameters: object[];
  requestBody?: { content: Record<string, object> };
  responses: Record<string, { content: object }>;
}
