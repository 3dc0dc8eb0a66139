import {
  BODY_KINDS,
  type BodyKind,
  type HttpAsking,
  SERVICE_METHODS,
  type Service,
  type ServiceHeader,
  type SoapAsking,
} from "@bibliotope/core/service";
import { ChoiceInPlace, NumberInPlace, TextInPlace } from "./InPlace.tsx";
import { Inputs, type TriedProps } from "./Inputs.tsx";
import { Wsdl } from "./Wsdl.tsx";

interface AskingProps {
  service: Service;
  change: (to: Partial<Service>) => void;
  isFixed: boolean;
}

const BODY_WORDS: Readonly<Record<BodyKind | "none", string>> = {
  none: "no body",
  json: "a body of JSON",
  form: "a body of a form",
  xml: "a body of XML",
};

/** How a service is asked, as a sentence whose words are changed where they stand. */
export function Asking({ service, change, isFixed, tried, setTried }: AskingProps & TriedProps) {
  const { ask, inputs } = service;
  const reask = (to: Partial<HttpAsking> | Partial<SoapAsking>) => change({ ask: { ...ask, ...to } as Service["ask"] });
  return (
    <div className="min-w-0 font-serif text-[15px] leading-[2.05]">
      <fieldset disabled={isFixed} className="contents">
        <legend className="sr-only">How it is asked</legend>
        <ChoiceInPlace
          aria-label="How it is asked"
          value={ask.by}
          options={[
            ["http", "Send"],
            ["soap", "Ask the operation"],
          ]}
          change={(by) => change({ ask: by === "http" ? asHttp(ask) : asSoap(ask) })}
        />{" "}
        {ask.by === "http" ? (
          <>
            <ChoiceInPlace
              aria-label="Method"
              value={ask.method}
              options={SERVICE_METHODS.map((method) => [method, method] as const)}
              change={(method) => reask(method === "GET" ? { method, body: undefined } : { method })}
            />{" "}
            to{" "}
          </>
        ) : (
          <>
            <TextInPlace aria-label="Operation" value={ask.operation} change={(operation) => reask({ operation })} /> by{" "}
            <ChoiceInPlace
              aria-label="Version of SOAP"
              value={ask.version}
              options={[
                ["1.2", "SOAP 1.2"],
                ["1.1", "SOAP 1.1"],
              ]}
              change={(version) => reask({ version })}
            />{" "}
            at{" "}
          </>
        )}
        <TextInPlace
          aria-label="Address"
          value={ask.url}
          size={44}
          change={(url) => reask({ url })}
          className="w-full"
        />
        {ask.by === "soap" ? (
          <>
            , in the namespace{" "}
            <TextInPlace
              aria-label="Namespace"
              value={ask.namespace}
              size={34}
              change={(namespace) => reask({ namespace })}
            />
            , action{" "}
            <TextInPlace
              aria-label="Action"
              value={ask.action}
              size={38}
              placeholder="none"
              change={(action) => reask({ action: action || undefined })}
            />
            ,{" "}
            <label className="inline-flex items-baseline gap-1">
              <input
                type="checkbox"
                checked={ask.isQualified ?? false}
                onChange={(event) => reask({ isQualified: event.target.checked || undefined })}
              />
              inputs in the namespace too
            </label>
            . <Wsdl take={change} />
          </>
        ) : null}
        <Headers
          headers={ask.headers ?? []}
          set={(headers) => reask({ headers: headers.length ? headers : undefined })}
        />
        {ask.by === "http" && ask.method !== "GET" ? (
          <div>
            with{" "}
            <ChoiceInPlace
              aria-label="Body"
              value={ask.body?.kind ?? "none"}
              options={(["none", ...BODY_KINDS] as const).map((kind) => [kind, BODY_WORDS[kind]] as const)}
              change={(kind) => reask({ body: kind === "none" ? undefined : { kind, text: ask.body?.text ?? "" } })}
            />
            {ask.body ? (
              <textarea
                aria-label="Text of the body"
                rows={4}
                value={ask.body.text}
                className="block w-full rounded border border-edge bg-field p-2 font-mono text-[12.5px] leading-[1.5]"
                onChange={({ target }) => reask({ body: { kind: ask.body?.kind ?? "json", text: target.value } })}
              />
            ) : null}
          </div>
        ) : null}
      </fieldset>
      <Inputs
        inputs={inputs}
        set={(next) => change({ inputs: next })}
        tried={tried}
        setTried={setTried}
        isFixed={isFixed}
      />
      <fieldset disabled={isFixed} className="contents">
        <legend className="sr-only">How long and how often</legend>
        <p>
          Wait at most{" "}
          <NumberInPlace
            aria-label="Seconds that are waited"
            min={0.1}
            max={30}
            step={0.1}
            placeholder="5"
            value={service.timeLimit}
            change={(timeLimit) => change({ timeLimit })}
          />{" "}
          seconds, or as long as{" "}
          <ChoiceInPlace
            aria-label="Input that says how long is waited"
            value={service.timeLimitFrom ?? ""}
            options={[["", "no input"], ...inputs.map(({ name }) => [name, name] as const)]}
            change={(timeLimitFrom) => change({ timeLimitFrom: timeLimitFrom || undefined })}
          />{" "}
          says. Try{" "}
          <NumberInPlace
            aria-label="Further tries"
            min={0}
            max={3}
            placeholder="0"
            value={service.again}
            change={(again) => change({ again })}
          />{" "}
          times more, where that changes nothing. Keep an answer for{" "}
          <NumberInPlace
            aria-label="Seconds that an answer is kept"
            min={0}
            max={86_400}
            placeholder="0"
            value={service.keep}
            change={(keep) => change({ keep })}
          />{" "}
          seconds. Ask{" "}
          <NumberInPlace
            aria-label="Requests at once"
            min={1}
            max={200}
            placeholder="20"
            value={service.atOnce}
            change={(atOnce) => change({ atOnce })}
          />{" "}
          times at once at most, and{" "}
          <NumberInPlace
            aria-label="Requests a minute for a key"
            min={1}
            placeholder="–"
            value={service.perMinute}
            change={(perMinute) => change({ perMinute })}
          />{" "}
          times a minute for a key.
        </p>
        <p>
          <label className="inline-flex items-baseline gap-1.5">
            <input
              type="checkbox"
              checked={service.register !== undefined}
              onChange={(event) => change({ register: event.target.checked ? { countries: ["QR"] } : undefined })}
            />
            It confirms addresses
          </label>
          {service.register ? (
            <>
              {" "}
              of{" "}
              <TextInPlace
                aria-label="Countries it speaks for"
                value={service.register.countries.join(", ")}
                change={(text) => change({ register: { countries: text.toUpperCase().split(/[\s,]+/) } })}
              />
              : its values are official parts, <i>number</i> and <i>standing</i>.
            </>
          ) : null}
        </p>
      </fieldset>
    </div>
  );
}

function asHttp({ url, headers }: Service["ask"]): HttpAsking {
  return { by: "http", method: "GET", url, ...(headers ? { headers } : {}) };
}

function asSoap({ url, headers }: Service["ask"]): SoapAsking {
  return { by: "soap", version: "1.2", url, operation: "", namespace: "", ...(headers ? { headers } : {}) };
}

function Headers({ headers, set }: { headers: readonly ServiceHeader[]; set: (headers: ServiceHeader[]) => void }) {
  const change = (at: number, to: Partial<ServiceHeader>) =>
    set(headers.map((header, i) => (i === at ? { ...header, ...to } : header)));
  return (
    <div>
      {headers.map(({ name, value }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two may have the same name while they are written
        <div key={i}>
          {i ? "and" : "with the header"}{" "}
          <TextInPlace aria-label="Name of a header" value={name} change={(to) => change(i, { name: to })} />:{" "}
          <TextInPlace
            aria-label={`Value of ${name || "the header"}`}
            value={value}
            className="text-plum"
            change={(to) => change(i, { value: to })}
          />{" "}
          <button type="button" className="text-[12.5px] underline" onClick={() => set(headers.toSpliced(i, 1))}>
            take out<span className="sr-only"> {name}</span>
          </button>
        </div>
      ))}
      <button
        type="button"
        className="text-[12.5px] text-quiet underline"
        onClick={() => set([...headers, { name: "Authorization", value: "Bearer {secret.token}" }])}
      >
        + a header
      </button>
    </div>
  );
}
