import { formJson } from "@bibliotope/core/form";
import { useEffect, useMemo, useState } from "react";
import { playwrightFile } from "../rehearse/playwright-file.ts";
import { useRehearsalsQuery } from "../state/api.ts";
import { useStudio } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { saveFile } from "../ui/save-file.ts";
import { curlOf } from "./calls.ts";
import { digestOf, pageOf, policyOf, scriptOf } from "./page.ts";

const PIECES = [
  ["page", "Page"],
  ["policy", "Policy"],
  ["calls", "Calls"],
  ["definition", "Definition"],
  ["tests", "Tests"],
] as const;
type Piece = (typeof PIECES)[number][0];

/** Where the service is: where the workbench is. */
const SERVICE = location.origin;

/** Words above each piece. */
const WORDS: Readonly<Record<Piece, string>> = {
  page: "The form as a page of its own: put it on your site, and let your server write the site's web key into it.",
  policy:
    "The Content-Security-Policy under which that page runs, and nothing else does. The service is named once for each thing that comes from it.",
  tests:
    "The rehearsals that are kept with this form, as tests for Playwright: run them with your own, and a feature that gets lost is noticed.",
  calls: "The same lookups from a server or a program, in any language.",
  definition:
    "All of the form's fields and rules as one document. Keep it with your code, and bring it back under Definition.",
};
const FILES: Readonly<Record<Piece, readonly [ending: string, type: string]>> = {
  page: ["html", "text/html"],
  policy: ["policy.txt", "text/plain"],
  calls: ["sh", "text/x-shellscript"],
  definition: ["json", "application/json"],
  tests: ["spec.ts", "text/typescript"],
};

/** The code for the form at hand: each piece runs as it is pasted, with keys from where keys belong. */
export function TakeAwayView() {
  const { ref, definition } = useStudio(({ draft }) => draft);
  const [piece, setPiece] = useState<Piece>("page");
  const [digest, setDigest] = useState("");
  const { data: kept = [] } = useRehearsalsQuery(ref);
  useEffect(() => {
    void digestOf(scriptOf(SERVICE)).then(setDigest);
  }, []);
  const text = useMemo(() => {
    if (piece === "page") return pageOf(definition, SERVICE);
    if (piece === "policy") return policyText(SERVICE, digest);
    if (piece === "tests")
      return kept.length
        ? playwrightFile(definition, kept, `${SERVICE}/f/${ref}`)
        : "// No rehearsals are kept with this form yet: go through it in Rehearse, and keep your steps.\n";
    return piece === "calls" ? curlOf(definition, SERVICE) : `${formJson(definition)}\n`;
  }, [piece, definition, digest, kept, ref]);
  const [ending, type] = FILES[piece];
  return (
    <div className="flex min-h-0 flex-1 flex-col rounded-md border border-rule bg-page px-5 py-4">
      <div className="flex flex-none flex-wrap items-center gap-3">
        <Segmented label="What to take away" value={piece} onChange={setPiece} options={PIECES} large />
        <span className="ml-auto flex items-center gap-4 max-sm:ml-0">
          <CopyButton key={piece} text={text} />
          <Button onClick={() => saveFile(`${ref}.${ending}`, text, type)}>Save as a file</Button>
        </span>
      </div>
      <p className="mt-3 max-w-[52rem] flex-none text-quiet">{WORDS[piece]}</p>
      <section
        aria-label="Code"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keyboard
        tabIndex={0}
        className="mt-3 min-h-0 flex-1 overflow-auto rounded border border-rule bg-field"
      >
        <pre className="px-4 py-3 font-mono text-[12.5px] leading-[1.55]">
          <code>{text}</code>
        </pre>
      </section>
    </div>
  );
}

function policyText(service: string, digest: string): string {
  return `# A header of the page's answer. The digest is of the page's script: change that, and it changes.
Content-Security-Policy: ${policyOf(service, digest)}

# What its server needs in its environment
BIBLIOTOPE_WEB_KEY=     # a key for pages that names the site's origin; written into the page's meta element
BIBLIOTOPE_SERVER_KEY=  # a key for servers, where the server itself looks up; never in a page
`;
}
