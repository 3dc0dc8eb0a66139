/** The reference of the HTTP API as Markdown. @param document the OpenAPI document */
export function apiReference(document: Record<string, unknown>): string;
