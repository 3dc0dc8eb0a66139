import { Client } from "@bibliotope/kit/client";

/** Put in by the build, from the environment. */
declare const BIBLIOTOPE_URL: string;
declare const BIBLIOTOPE_WEB_KEY: string;

export const url = BIBLIOTOPE_URL;
export const webKey = BIBLIOTOPE_WEB_KEY;
export const client = new Client({ url, key: webKey });
