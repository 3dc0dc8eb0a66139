import { BibliotopeProvider, SearchField } from "@bibliotope/kit/react";
import { connection } from "next/server";
import { Chosen } from "./chosen";
import { Member } from "./member";

/** Rendered on the server: the kit's components are used as they are, and start in the browser. */
export default async function Page() {
  // the environment is read for each request, not when the application is built
  await connection();
  const { BIBLIOTOPE_URL: url, BIBLIOTOPE_WEB_KEY: webKey } = process.env;
  return (
    <BibliotopeProvider url={url!} webKey={webKey!}>
      <main>
        <h1>Members</h1>
        <Member>
          <SearchField label="Find your address" name="find" fills />
        </Member>
        <Chosen />
      </main>
    </BibliotopeProvider>
  );
}
