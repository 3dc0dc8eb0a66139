import { formJson, usesOf } from "@bibliotope/core/form";
import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { MakeKey } from "../keys/KeyDialogs.tsx";
import { playwrightFile } from "../rehearse/playwright-file.ts";
import { useRehearsalsQuery } from "../state/api.ts";
import { firstSteps } from "../state/first-steps.slice.ts";
import { useMayManage } from "../state/may.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
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
  page: "The form as a complete page. Put it on your site and let your server insert the web key.",
  react: "The form as a component, with the kit's package. The web key comes from the build environment.",
  server:
    "Checks the address on your server before it stores a record. If no place is found, the form shows why and nothing is stored.",
  still: "Shows a stored record: a picture of the place, and a link that opens it in the device's own maps.",
  assistant:
    "Everything as one text for a coding assistant, with the rehearsals as tests, so that a lost feature is noticed.",
  policy:
    "The strictest Content-Security-Policy under which that page works. It names the service once for each kind of resource.",
  tests:
    "The rehearsals saved with this form, as Playwright tests. Run them with your own tests to notice a lost feature.",
  programs:
    "The lookups of this form for a native app: typed results and errors, a timeout, cancellation, and nothing to install. A chosen suggestion is fetched by its ref.",
  picker:
    "Search, map and Done on a separate page, for a web view, a frame or a window. It returns the picked place, or that the user cancelled.",
  calls: "The same lookups from a server or program, in any language.",
  definition:
    "All fields and rules of the form as one document. Keep it with your code and paste it back under Definition.",
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

const NO_TESTS = "// No rehearsals are saved with this form yet. Use the form in Rehearse and save your steps.";

/** The code for the form at hand: each piece runs as it is pasted, with keys from where keys belong. */
export function TakeAwayView() {
  const { ref, definition } = useStudio(({ draft }) => draft);
  const [piece, setPiece] = useState<Piece>("page");
  const [program, setProgram] = useState<ProgramLanguage>("python");
  const [digest, setDigest] = useState("");
  const { data: kept = [] } = useRehearsalsQuery(ref);
  const isManager = useMayManage();
  const dispatch = useStudioDispatch();
  const taken = () => void dispatch(firstSteps.did("taken"));
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
              words="Create a key for this form"
              proposed={{ name: definition.title.slice(0, 60), calls: usesOf(definition) }}
              why="It allows only the kinds of lookup this form uses. Enter the origin of the page it will be on."
            />
          ) : null}
          <Link to="/pieces" className="underline">
            All pieces of the kit
          </Link>
          <CopyButton key={`${piece} ${program}`} text={text} onCopied={taken} />
          <Button
            onClick={() => {
              saveFile(file, text, type);
              taken();
            }}
          >
            Save as a file
          </Button>
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
