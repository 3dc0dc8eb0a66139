import {
  BODY_KINDS,
  type BodyKind,
  type HttpRequest,
  SERVICE_METHODS,
  type Service,
  type ServiceHeader,
  type SoapRequest,
} from "@bibliotope/core/service";
import { ChoiceInPlace, NumberInPlace, TextInPlace } from "./InPlace.tsx";
import { Inputs, type TriedProps } from "./Inputs.tsx";
import { Wsdl } from "./Wsdl.tsx";

interface RequestEditorProps {
  service: Service;
  change: (to: Partial<Service>) => void;
  isFixed: boolean;
}

const BODY_WORDS: Readonly<Record<BodyKind | "none", string>> = {
  none: "no body",
  json: "a JSON body",
  form: "a form body",
  xml: "an XML body",
};

/** The request of a service, as a sentence whose words are changed in place. */
export function RequestEditor({ service, change, isFixed, tried, setTried }: RequestEditorProps & TriedProps) {
  const { ask, inputs } = service;
  const reask = (to: Partial<HttpRequest> | Partial<SoapRequest>) =>
    change({ ask: { ...ask, ...to } as Service["ask"] });
  return (
    <div className="min-w-0 font-serif text-[15px] leading-[2.05]">
      <fieldset disabled={isFixed} className="contents">
        <legend className="sr-only">Request</legend>
        <ChoiceInPlace
          aria-label="Protocol"
          value={ask.by}
          options={[
            ["http", "Send"],
            ["soap", "Call the operation"],
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
              aria-label="SOAP version"
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
              qualified inputs
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
            input{" "}
            <ChoiceInPlace
              aria-label="Body"
              value={ask.body?.kind ?? "none"}
              options={(["none", ...BODY_KINDS] as const).map((kind) => [kind, BODY_WORDS[kind]] as const)}
              change={(kind) => reask({ body: kind === "none" ? undefined : { kind, text: ask.body?.text ?? "" } })}
            />
            {ask.body ? (
              <textarea
                aria-label="Body text"
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
        <legend className="sr-only">Limits</legend>
        <p>
          Wait up to{" "}
          <NumberInPlace
            aria-label="Timeout in seconds"
            min={0.1}
            max={30}
            step={0.1}
            placeholder="5"
            value={service.timeLimit}
            change={(timeLimit) => change({ timeLimit })}
          />{" "}
          seconds, or as long as{" "}
          <ChoiceInPlace
            aria-label="Input that sets the timeout"
            value={service.timeLimitFrom ?? ""}
            options={[["", "no input"], ...inputs.map(({ name }) => [name, name] as const)]}
            change={(timeLimitFrom) => change({ timeLimitFrom: timeLimitFrom || undefined })}
          />{" "}
          says. Retry up to{" "}
          <NumberInPlace
            aria-label="Retries"
            min={0}
            max={3}
            placeholder="0"
            value={service.again}
            change={(again) => change({ again })}
          />{" "}
          times, if the request is safe to repeat. Cache an answer for{" "}
          <NumberInPlace
            aria-label="Cache time in seconds"
            min={0}
            max={86_400}
            placeholder="0"
            value={service.keep}
            change={(keep) => change({ keep })}
          />{" "}
          seconds. Send up to{" "}
          <NumberInPlace
            aria-label="Concurrent requests"
            min={1}
            max={200}
            placeholder="20"
            value={service.atOnce}
            change={(atOnce) => change({ atOnce })}
          />{" "}
          requests at once, and up to{" "}
          <NumberInPlace
            aria-label="Requests per minute and key"
            min={1}
            placeholder="–"
            value={service.perMinute}
            change={(perMinute) => change({ perMinute })}
          />{" "}
          per minute and key.
        </p>
        <p>
          <label className="inline-flex items-baseline gap-1.5">
            <input
              type="checkbox"
              checked={service.register !== undefined}
              onChange={(event) => change({ register: event.target.checked ? { countries: ["QR"] } : undefined })}
            />
            Official register
          </label>
          {service.register ? (
            <>
              {" "}
              of{" "}
              <TextInPlace
                aria-label="Countries it covers"
                value={service.register.countries.join(", ")}
                change={(text) => change({ register: { countries: text.toUpperCase().split(/[\s,]+/) } })}
              />
              : it returns official address parts, <i>number</i> and <i>standing</i>.
            </>
          ) : null}
        </p>
      </fieldset>
    </div>
  );
}

function asHttp({ url, headers }: Service["ask"]): HttpRequest {
  return { by: "http", method: "GET", url, ...(headers ? { headers } : {}) };
}

function asSoap({ url, headers }: Service["ask"]): SoapRequest {
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
            remove<span className="sr-only"> {name}</span>
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
