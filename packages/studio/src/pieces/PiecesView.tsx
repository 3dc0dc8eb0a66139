import { bindTokens, type Client, defineElements, LookupError, locate } from "@bibliotope/kit";
import { BibliotopeProvider, SearchField } from "@bibliotope/kit/react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { NavLink, useParams } from "react-router";
import { useClient } from "../forms/use-client.ts";
import { useSessionQuery } from "../state/api.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { Button } from "../ui/Button.tsx";
import { Code } from "../ui/Code.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { PIECES } from "./code.ts";

defineElements();

const SERVICE = SERVICE_URL;

/** Every piece of the kit, to be tried and copied. */
export function PiecesView() {
  const { piece = PIECES[0].id } = useParams();
  const current = PIECES.find(({ id }) => id === piece) ?? PIECES[0];
  const key = useSessionQuery().data?.studioKey;
  const client = useClient();
  const text = current.code(SERVICE);
  return (
    <main className="mx-auto grid w-full max-w-6xl gap-x-8 gap-y-4 px-5 py-7 md:grid-cols-[190px_minmax(0,1fr)]">
      <div>
        <h1 className="font-serif text-[26px] font-semibold">Kit</h1>
        <nav aria-label="Pieces of the kit" className="mt-3 grid gap-0.5 max-md:grid-cols-2">
          {PIECES.map(({ id, name }) => (
            <NavLink
              key={id}
              to={`/pieces/${id}`}
              className="rounded px-2 py-1 text-quiet hover:bg-wash aria-[current=page]:bg-wash aria-[current=page]:font-semibold aria-[current=page]:text-ink"
            >
              {name}
            </NavLink>
          ))}
        </nav>
      </div>
      <div className="min-w-0">
        <h2 className="font-serif text-[20px] font-semibold">{current.name}</h2>
        <p className="mt-1 max-w-[44rem] text-quiet">{current.words}</p>
        <section aria-label="Try it" className="mt-4 rounded-md border border-rule bg-page p-5">
          {key && client ? <Try key={current.id} id={current.id} webKey={key} client={client} /> : null}
        </section>
        <div className="mt-4 flex items-center justify-between">
          <h3 className="font-semibold">Code</h3>
          <CopyButton key={current.id} text={text} />
        </div>
        <section
          aria-label="Code"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keyboard
          tabIndex={0}
          className="mt-2 overflow-x-auto rounded border border-rule bg-field"
        >
          <pre className="px-4 py-3 font-mono text-[12.5px] leading-[1.55]">
            <Code text={text} language={current.language} />
          </pre>
        </section>
      </div>
    </main>
  );
}

interface TryProps {
  webKey: string;
  client: Client;
}

function Try({ id, ...props }: TryProps & { id: string }): ReactNode {
  switch (id) {
    case "search":
      return <TrySearch {...props} />;
    case "tokens":
      return <TryTokens {...props} />;
    case "map":
      return <TryMap {...props} />;
    case "still":
      return (
        <bibliotope-still
          web-key={props.webKey}
          at="-35.1841,-21.6253"
          width="300"
          height="200"
          label="Map around the house"
          control=""
        />
      );
    case "picker":
      return <TryPicker {...props} />;
    case "report":
      return (
        <>
          <bibliotope-search id="reported" web-key={props.webKey} label="Address" />
          <bibliotope-report class="mt-4 block" web-key={props.webKey} for="reported" />
        </>
      );
    case "client":
      return <TryClient {...props} />;
    case "device":
      return <TryDevice {...props} />;
    case "react":
      return <TryReact {...props} />;
    default:
      return <p className="text-quiet">This runs on a server. “Client” makes the same request here.</p>;
  }
}

const FIELD = "block w-full rounded border border-edge bg-field px-3 h-[34px] text-ink";
const ROWS = "grid max-w-[30rem] gap-3";

/** Fields of an address, found by their tokens alone. */
function TokenFields() {
  const fields = [
    ["Street", "address-line1"],
    ["Town", "address-level2"],
    ["Postcode", "postal-code"],
  ];
  return fields.map(([label, token], i) => (
    <label key={token} className="block text-[12.5px] text-quiet">
      {label}
      <input name={`tried-${i}`} autoComplete={token} className={FIELD} />
    </label>
  ));
}

function TryPicker({ webKey }: TryProps) {
  return (
    <form className={ROWS} onSubmit={(event) => event.preventDefault()}>
      <bibliotope-picker web-key={webKey} name="place" label="Where is it?" at="-35.1841,-21.6253" fills="" />
      <TokenFields />
    </form>
  );
}

function TrySearch({ webKey }: TryProps) {
  return (
    <form className={ROWS} onSubmit={(event) => event.preventDefault()}>
      <bibliotope-search web-key={webKey} name="find" label="Find your address" fills="" />
      <TokenFields />
    </form>
  );
}

function TryTokens({ client }: TryProps) {
  const form = useRef<HTMLFormElement>(null);
  const [said, setSaid] = useState("");
  useEffect(() => {
    if (!form.current) return;
    return bindTokens(form.current, {
      client,
      filled: ({ id, properties: { at } }) => setSaid(`${id}, ${at.lat}, ${at.lon}`),
    });
  }, [client]);
  return (
    <form ref={form} className={ROWS} onSubmit={(event) => event.preventDefault()}>
      <TokenFields />
      <p role="status" className="font-mono text-[12.5px]">
        {said}
      </p>
    </form>
  );
}

function TryMap({ webKey }: TryProps) {
  const map = useRef<HTMLElementTagNameMap["bibliotope-map"]>(null);
  const [pressed, setPressed] = useState("");
  useEffect(() => {
    const element = map.current;
    if (!element) return;
    const hear = (event: Event) => {
      const { lat, lon } = (event as CustomEvent<{ lat: number; lon: number }>).detail;
      setPressed(`${lat}, ${lon}`);
      element.markers = [{ at: { lat, lon }, label: "Here" }];
    };
    element.markers = [{ at: { lat: -35.1841, lon: -21.6253 }, label: "12 Harbour Row" }];
    element.addEventListener("bibliotope-pressed", hear);
    return () => element.removeEventListener("bibliotope-pressed", hear);
  }, []);
  return (
    <>
      <bibliotope-map ref={map} web-key={webKey} label="Where it is" at="-35.1841,-21.6253" zoom="15" device="" />
      <p role="status" className="mt-2 font-mono text-[12.5px]">
        {pressed || "Click the map."}
      </p>
    </>
  );
}

/** A text to ask for, and what came. */
function TryClient({ client }: TryProps) {
  const [q, setQ] = useState("12 harbor row, tidewell");
  const [said, setSaid] = useState("");
  const ask = async () => {
    try {
      const { outcome, advice, features } = await client.forward({ q, limit: 3 });
      setSaid([outcome, ...advice, ...features.map(({ properties }) => properties.line)].join("\n"));
    } catch (error) {
      setSaid(error instanceof LookupError ? error.message : String(error));
    }
  };
  return (
    <form
      className={ROWS}
      onSubmit={(event) => {
        event.preventDefault();
        void ask();
      }}
    >
      <label className="block text-[12.5px] text-quiet">
        Address
        <input className={FIELD} value={q} onChange={(event) => setQ(event.target.value)} />
      </label>
      <Button type="submit" className="justify-self-start">
        Look up
      </Button>
      <pre role="status" className="font-mono text-[12.5px] whitespace-pre-wrap">
        {said}
      </pre>
    </form>
  );
}

function TryDevice({ client }: TryProps) {
  const [said, setSaid] = useState("");
  const find = async () => {
    setSaid("Locating this device …");
    const located = await locate();
    if (!located.ok) return setSaid(`${located.words} ${located.next}`);
    const { features } = await client.reverse(located.at);
    setSaid(`${features[0]?.properties.line ?? "No address nearby"}, within ${Math.round(located.within)} m`);
  };
  return (
    <>
      <Button onClick={() => void find()}>Where am I?</Button>
      <p role="status" className="mt-2">
        {said}
      </p>
    </>
  );
}

function TryReact({ client }: TryProps) {
  const [line, setLine] = useState("");
  return (
    <BibliotopeProvider client={client}>
      <SearchField
        label="Find your address"
        name="find"
        className={ROWS}
        onFound={({ properties }) => setLine(properties.line)}
      />
      <p role="status" className="mt-2">
        {line}
      </p>
    </BibliotopeProvider>
  );
}
