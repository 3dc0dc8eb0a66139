import type { Service } from "@bibliotope/core/service";
import type { TriedService } from "@bibliotope/wire";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { type Wire, Wires } from "../forms/Wires.tsx";
import { wordsOf } from "../state/api.ts";
import { useMayEdit, useMayManage } from "../state/may.ts";
import {
  useDropServiceMutation,
  useSaveServiceMutation,
  useServiceQuery,
  useServicesQuery,
  useTryServiceMutation,
} from "../state/services-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Waiting } from "../ui/Page.tsx";
import { CameBack } from "./CameBack.tsx";
import { Hosts } from "./Hosts.tsx";
import { TextInPlace } from "./InPlace.tsx";
import { RequestEditor } from "./RequestEditor.tsx";
import { Secrets } from "./Secrets.tsx";
import { Values } from "./Values.tsx";
import { NEW_SERVICE, nameFor, pointerFor, treeOf } from "./ways.ts";
import { stateWords } from "./words.ts";

/** One service as a spread: left the request, right what came back, between them what forms may use of it. */
export function ServiceView() {
  const { name = "new" } = useParams();
  const isNew = name === "new";
  const { data: stored, error } = useServiceQuery(name, { skip: isNew, refetchOnMountOrArgChange: true });
  if (isNew) return <Spread key="new" service={NEW_SERVICE} revision={0} isAllowed />;
  if (stored?.service.name === name)
    return <Spread key={name} service={stored.service} revision={stored.revision} isAllowed={stored.isAllowed} />;
  return (
    <Waiting error={error} words="Loading service">
      <Link to="/services" className="underline">
        All services
      </Link>
    </Waiting>
  );
}

function Spread({
  service: existing,
  revision,
  isAllowed,
}: {
  service: Service;
  revision: number;
  isAllowed: boolean;
}) {
  const [mayEdit, isManager] = [useMayEdit(), useMayManage()];
  const navigate = useNavigate();
  const [service, setService] = useState(existing);
  const [inputs, setInputs] = useState<Record<string, string>>({});
  const [save, saving] = useSaveServiceMutation();
  const [drop, dropping] = useDropServiceMutation();
  const [tryIt, trying] = useTryServiceMutation();
  const summary = useServicesQuery().data?.find(({ name }) => name === existing.name);
  const isChanged = JSON.stringify(service) !== JSON.stringify(existing);
  const change = (to: Partial<Service>) => setService((before) => withoutUndefined({ ...before, ...to }));
  const tried = trying.data;
  const wrong = saving.error ?? dropping.error;
  const spread = useRef<HTMLDivElement>(null);
  const wires = useMemo(() => wiresTo(service, tried), [service, tried]);

  useEffect(() => {
    if (!isChanged) return;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener("beforeunload", stay);
    return () => removeEventListener("beforeunload", stay);
  }, [isChanged]);

  const given = () =>
    Object.fromEntries(
      service.inputs.flatMap(({ name, example = "" }) => {
        const value = inputs[name] ?? example;
        return value ? [[name, value]] : [];
      }),
    );
  const saveIt = () =>
    save({ service, ...(revision ? { revision } : {}) })
      .unwrap()
      .then(
        () => !revision && navigate(`/services/${service.name}`, { replace: true }),
        () => undefined,
      );
  return (
    <main className="mx-auto flex w-full max-w-[86rem] min-h-0 flex-1 flex-col px-5 py-4">
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="font-serif text-[24px] font-semibold">{service.title || "New service"}</h1>
        <p className="mr-auto text-[13px] text-quiet">{summary ? stateWords(summary.state) : ""}</p>
        <Link to="/services" className="px-2 underline">
          All services
        </Link>
        {!mayEdit ? null : (
          <>
            <Hosts isManager={isManager} />
            <Secrets isManager={isManager} />
          </>
        )}
        {isManager ? (
          <Button strong disabled={!isChanged || saving.isLoading} onClick={() => void saveIt()}>
            Save
          </Button>
        ) : null}
      </div>
      <div role="status" className="min-h-[1.4em] text-[13px]">
        {wrong ? <span className="text-madder">{wordsOf(wrong)}</span> : null}
        {!wrong && !isAllowed ? (
          <span className="text-ochre">Its host is not allowed yet. Add it under “Allowed hosts”.</span>
        ) : null}
      </div>
      <div
        ref={spread}
        className="relative grid h-[calc(100dvh-9.2rem)] min-h-[30rem] grid-cols-[minmax(0,9fr)_minmax(0,5fr)_minmax(0,9fr)] rounded-md border border-rule bg-page max-[1000px]:h-auto max-[1000px]:grid-cols-1"
      >
        <section aria-labelledby="asked" className="overflow-auto p-5">
          <h2 id="asked" className="font-serif text-[18px] font-semibold">
            Request
          </h2>
          <p className="mt-1 font-serif text-[15px] leading-[2.05]">
            Title:{" "}
            <TextInPlace
              aria-label="Title"
              value={service.title}
              size={30}
              placeholder="Land register"
              className="!font-serif !text-[15px]"
              disabled={!isManager}
              change={(title) => change({ title })}
            />
            , name in forms:{" "}
            <TextInPlace
              aria-label="Name for forms"
              value={service.name}
              size={14}
              placeholder="register"
              disabled={!isManager || revision > 0}
              change={(name) => change({ name })}
            />
            .
          </p>
          <RequestEditor service={service} change={change} isFixed={!isManager} tried={inputs} setTried={setInputs} />
          <div className="mt-3 flex items-center gap-3">
            <Button
              strong={!isManager || !isChanged}
              disabled={!mayEdit || trying.isLoading}
              onClick={() =>
                void tryIt({
                  service: { ...service, name: service.name || "untitled", title: service.title || "Untitled" },
                  inputs: given(),
                })
              }
            >
              {trying.isLoading ? "Calling …" : "Try it with these values"}
            </Button>
            {isManager && revision ? (
              <button
                type="button"
                className="text-[13px] text-quiet underline"
                onClick={() =>
                  drop(existing.name)
                    .unwrap()
                    .then(
                      () => navigate("/services"),
                      () => undefined,
                    )
                }
              >
                Delete this service
              </button>
            ) : null}
          </div>
        </section>
        <section
          aria-label="Values for forms"
          data-page
          className="overflow-auto bg-[linear-gradient(90deg,var(--rule),var(--page)_22%,var(--page)_78%,var(--rule))] p-5 max-[1000px]:bg-none"
        >
          <Values service={service} tried={tried} set={(values) => change({ values })} isFixed={!isManager} />
        </section>
        <section aria-labelledby="came" className="flex min-h-0 flex-col overflow-auto p-5">
          <h2 id="came" className="font-serif text-[18px] font-semibold">
            Response
          </h2>
          <Alert error={trying.error} className="mt-2 text-madder" />
          {tried ? (
            <CameBack
              tried={tried}
              isFixed={!isManager}
              name={(pointer, value) => {
                const name = nameFor(
                  pointer,
                  service.values.map((one) => one.name),
                );
                change({ values: [...service.values, { name, ...value }] });
              }}
            />
          ) : trying.error ? null : (
            <p className="mt-2 text-quiet">
              Nothing yet. Try it with your own values, saved or not; tests are not counted.
            </p>
          )}
        </section>
        <Wires inside={spread} wires={wires} />
      </div>
    </main>
  );
}

/** From each value for forms to where it is in what came back. */
function wiresTo({ values }: Service, tried: TriedService | undefined): Wire[] {
  if (!tried || tried.form === "text") return [];
  const { form } = tried;
  const document = treeOf(tried.body, form);
  return values.flatMap((value) => {
    const part = pointerFor(value, document, form);
    return part === undefined ? [] : [{ field: value.name, part, lit: true }];
  });
}

function withoutUndefined(service: Service): Service {
  return JSON.parse(JSON.stringify(service)) as Service;
}
