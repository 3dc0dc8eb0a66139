const given = globalThis.document?.querySelector<HTMLMetaElement>("meta[name=base-path]")?.content ?? "";

/** The path that the workbench is served under, as "/addresses"; empty at the top of a host. The server writes it into the page. */
export const BASE_PATH = given.startsWith("/") ? given : "";

/** The address of the service that the workbench belongs to, without a slash at the end. */
export const SERVICE_URL = `${globalThis.location?.origin ?? ""}${BASE_PATH}`;
