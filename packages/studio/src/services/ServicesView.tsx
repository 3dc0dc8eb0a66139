import type { ServiceSummary } from "@bibliotope/wire";
import { Link } from "react-router";
import { useMayEdit, useMayManage } from "../state/may.ts";
import { useServicesQuery } from "../state/services-api.ts";
import { RouteButton } from "../ui/Button.tsx";
import { Page } from "../ui/Page.tsx";
import { Hosts } from "./Hosts.tsx";
import { Secrets } from "./Secrets.tsx";
import { STATE_COLOURS, stateWords } from "./words.ts";

/** How often the states of services are looked at anew, in milliseconds. */
const AGAIN = 5000;

/** The outside services that forms may ask: where each is, how it does, which forms ask it. */
export function ServicesView() {
  const [mayEdit, isManager] = [useMayEdit(), useMayManage()];
  const {
    data: services,
    error,
    isLoading,
  } = useServicesQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: AGAIN,
    skipPollingIfUnfocused: true,
  });
  return (
    <Page
      title="Services"
      actions={
        <>
          {mayEdit ? (
            <>
              <Hosts isManager={isManager} />
              <Secrets isManager={isManager} />
            </>
          ) : null}
          {isManager ? <RouteButton to="/services/new">New service</RouteButton> : null}
        </>
      }
      intro={
        <>
          A courier, a register, a tide table: services a form uses beside address search. You describe each once; forms
          call it through this server, so its URL and secrets never reach a browser.
          {isManager ? "" : " Only managers of this workbench can describe services."}
        </>
      }
      error={error}
      loading={isLoading && "Loading services"}
    >
      {services?.length === 0 ? <p className="mt-4 text-quiet">No services yet. Add one with “New service”.</p> : null}
      {services?.length ? (
        <ul className="mt-5 rounded-md border border-rule bg-page">
          {services.map((service) => (
            <Row key={service.name} service={service} />
          ))}
        </ul>
      ) : null}
    </Page>
  );
}

function Row({ service: { name, title, by, host, isRegister, forms, state } }: { service: ServiceSummary }) {
  return (
    <li className="grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)_minmax(0,4fr)] items-baseline gap-x-6 border-t border-rule px-4 py-3 first:border-0 max-[800px]:grid-cols-1">
      <div>
        <Link to={`/services/${name}`} className="font-serif text-[17px] underline decoration-edge underline-offset-4">
          {title}
        </Link>
        <span className="ml-2 font-mono text-[12.5px] text-slate">{name}</span>
        <p className="truncate text-[12.5px] text-quiet">
          {isRegister ? "a register, " : ""}
          {by === "soap" ? "SOAP at " : "HTTP at "}
          {host}
        </p>
      </div>
      <p className={`text-[13px] ${STATE_COLOURS[state.how]}`}>{stateWords(state)}</p>
      <p className="text-[13px] text-quiet">
        {forms.length
          ? forms.map(({ ref, title: form }, i) => (
              <span key={ref}>
                {i ? ", " : "used by "}
                <Link to={`/forms/${ref}/rehearse`} className="underline">
                  {form}
                </Link>
              </span>
            ))
          : "not used by any form"}
      </p>
    </li>
  );
}
