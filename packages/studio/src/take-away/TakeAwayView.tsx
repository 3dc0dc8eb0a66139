import { formJson, usesOf } from "@bibliotope/core/form";
import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { MakeKey } from "../keys/KeySheets.tsx";
import { playwrightFile } from "../rehearse/playwright-file.ts";
import { useRehearsalsQuery, useSessionQuery } from "../state/api.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { useStudio } from "../state/store.ts";
import { Button } from "../ui/Button.tsx";
import { Code, type CodeLanguage } from "../ui/Code.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { saveFile } from "../ui/save-file.ts";
import { assistantText } from "./assistant.ts";
import { curlOf } from "./calls.ts";
import { pickerOf, reactOf, serverOf, stillOf } from "./code.ts";
import { digestOf, pageOf, policyOf, scriptOf } from "./page.ts";
import { PROGRAM_LANGUAGES, type ProgramLanguage, programCode } from "./programs/index.ts";

const PIECES = [
  ["page", "Page"],
  ["react", "React"],
  ["server", "Server"],
  ["still", "Picture"],
  ["policy", "Policy"],
  ["programs", "Programs"],
  ["picker", "Picker"],
  ["calls", "Calls"],
  ["definition", "Definition"],
  ["tests", "Tests"],
  ["assistant", "Assistant"],
] as const;
type Piece = (typeof PIECES)[number][0];

/** Where the service is: where the workbench is. */
const SERVICE = SERVICE_URL;

/** Pieces that stand in a page, with a key of their own. */
const OF_PAGES: ReadonlySet<Piece> = new Set<Piece>(["page", "react", "policy"]);

const LANGUAGES = Object.entries(PROGRAM_LANGUAGES).map(
  ([language, { name }]) => [language as ProgramLanguage, name] as const,
);

/** Words above each piece. */
const WORDS: Readonly<Record<Piece, string>> = {
  page: "The form as a page of its own: put it on your site, and let your server write the site's web key into it.",
  react: "The same form as a component, with the kit's package. The web key comes from the environment of the build.",
  server:
    "Before your server stores a record: where does its address lie? Without a place the form is told why, and nothing is stored.",
  still:
    "Where a record is shown again: a picture of its place, and a link that hands the place on to the device's own maps.",
  assistant:
    "The same as one text for a coding assistant, with the rehearsals as tests, so that a feature that gets lost is noticed.",
  policy:
    "The Content-Security-Policy under which that page runs, and nothing else does. The service is named once for each thing that comes from it.",
  tests:
    "The rehearsals that are kept with this form, as tests for Playwright: run them with your own, and a feature that gets lost is noticed.",
  programs:
    "The lookups of this form for a program that is not a page: typed answers and errors, a time limit, cancel, and nothing to install. What is chosen is asked for by its reference.",
  picker:
    "Search, map and Done on a page of its own, for a web view, a frame or a window: it hands back the place that was picked, or that it was cancelled.",
  calls: "The same lookups from a server or a program, in any language.",
  definition:
    "All of the form's fields and rules as one document. Keep it with your code, and bring it back under Definition.",
};
const FILES: Readonly<Record<Piece, readonly [ending: string, type: string, language: CodeLanguage]>> = {
  page: ["html", "text/html", "xml"],
  react: ["tsx", "text/typescript", "typescript"],
  server: ["mjs", "text/javascript", "typescript"],
  still: ["picture.html", "text/html", "xml"],
  policy: ["policy.txt", "text/plain", "bash"],
  programs: ["py", "text/plain", "python"],
  picker: ["picker.html", "text/html", "xml"],
  calls: ["sh", "text/x-shellscript", "bash"],
  definition: ["json", "application/json", "json"],
  tests: ["spec.ts", "text/typescript", "typescript"],
  assistant: ["md", "text/markdown", "markdown"],
};

const NO_TESTS = "// No rehearsals are kept with this form yet: go through it in Rehearse, and keep your steps.\n";

/** The code for the form at hand: each piece runs as it is pasted, with keys from where keys belong. */
export function TakeAwayView() {
  const { ref, definition } = useStudio(({ draft }) => draft);
  const [piece, setPiece] = useState<Piece>("page");
  const [program, setProgram] = useState<ProgramLanguage>("python");
  const [digest, setDigest] = useState("");
  const { data: kept = [] } = useRehearsalsQuery(ref);
  const isManager = useSessionQuery().data?.role === "manage";
  useEffect(() => {
    void digestOf(scriptOf(SERVICE)).then(setDigest);
  }, []);
  const text = useMemo(() => {
    if (piece === "page") return pageOf(definition, SERVICE);
    if (piece === "policy") return policyText(SERVICE, digest);
    const tests = kept.length ? playwrightFile(definition, kept, `${SERVICE}/f/${ref}`) : "";
    if (piece === "tests") return tests || NO_TESTS;
    if (piece === "react") return reactOf(definition, SERVICE);
    if (piece === "programs") return programCode(definition, SERVICE, program);
    if (piece === "picker") return pickerOf(definition, SERVICE);
    if (piece === "server") return serverOf(definition, SERVICE);
    if (piece === "still") return stillOf(SERVICE);
    if (piece === "assistant") return assistantText(definition, SERVICE, tests);
    return piece === "calls" ? curlOf(definition, SERVICE) : `${formJson(definition)}\n`;
  }, [piece, program, definition, digest, kept, ref]);
  const [ending, type, usual] = FILES[piece];
  const isProgram = piece === "programs";
  const language = isProgram ? program : usual;
  const file = isProgram ? PROGRAM_LANGUAGES[program].file : `${ref}.${ending}`;
  return (
    <div className="flex min-h-0 flex-1 flex-col rounded-md border border-rule bg-page px-5 py-4">
      <div className="flex flex-none flex-wrap items-center gap-3">
        <Segmented label="What to take away" value={piece} onChange={setPiece} options={PIECES} large />
        <span className="ml-auto flex items-center gap-4 max-sm:ml-0">
          {isManager && OF_PAGES.has(piece) ? (
            <MakeKey
              words="Make the key of this form"
              proposed={{ name: definition.title.slice(0, 60), calls: usesOf(definition) }}
              why="It may ask for just the kinds of lookup that this form uses. Name the origin of the page on which it will stand."
            />
          ) : null}
          <Link to="/pieces" className="underline">
            All pieces of the kit
          </Link>
          <CopyButton key={`${piece} ${program}`} text={text} />
          <Button onClick={() => saveFile(file, text, type)}>Save as a file</Button>
        </span>
      </div>
      <p className="mt-3 max-w-[52rem] flex-none text-quiet">{WORDS[piece]}</p>
      {isProgram ? (
        <div className="mt-3 flex-none">
          <Segmented label="Language" value={program} onChange={setProgram} options={LANGUAGES} />
        </div>
      ) : null}
      <section
        aria-label="Code"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keyboard
        tabIndex={0}
        className="mt-3 min-h-0 flex-1 overflow-auto rounded border border-rule bg-field"
      >
        <pre
          className={`px-4 py-3 font-mono text-[12.5px] leading-[1.55] ${language === "markdown" ? "max-w-[64rem] whitespace-pre-wrap" : ""}`}
        >
          <Code text={text} language={language} />
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
