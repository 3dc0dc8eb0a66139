import { useEffect } from "react";
import { NavLink, Outlet, useParams } from "react-router";
import { answers } from "../state/answer.slice.ts";
import { useFormQuery, usePublishFormMutation, wordsOf } from "../state/api.ts";
import { draft } from "../state/draft.slice.ts";
import { BASE_PATH } from "../state/service-url.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { trace } from "../state/trace.slice.ts";
import { takeUnsaved } from "../state/unsaved.ts";
import { Button, ButtonLink } from "../ui/Button.tsx";
import { Waiting } from "../ui/Page.tsx";
import { FormMenu } from "./FormMenu.tsx";
import { SaveState } from "./SaveState.tsx";

/** One form: its title, how it is saved, and its views. */
export function Spread() {
  const { ref = "" } = useParams();
  const { data, error, isFetching, refetch } = useFormQuery(ref);
  const dispatch = useStudioDispatch();
  const state = useStudio(({ draft }) => draft);
  const [publish, publishing] = usePublishFormMutation();
  useEffect(() => {
    if (!data) return;
    dispatch(draft.opened({ draft: data, unsaved: takeUnsaved(data.ref, data.revision) }));
    dispatch(answers.cleared());
    dispatch(trace.wiped());
  }, [data, dispatch]);

  if (error || state.ref !== ref) return <Waiting error={error} words={isFetching ? "Opening the form" : ""} />;
  const live = async () => {
    const done = await publish({ ref, revision: state.revision });
    if (done.data) dispatch(draft.published(done.data));
  };
  return (
    <main className="flex flex-col px-5 pb-3 min-[901px]:h-[calc(100dvh-46px)] min-[901px]:min-h-[560px]">
      <div className="flex min-h-[50px] flex-wrap items-center gap-x-4 gap-y-2 py-2">
        <h1 className="font-serif text-[22px] font-semibold">{state.definition.title}</h1>
        <SaveState reload={() => void refetch()} />
        <div className="ml-auto flex flex-wrap items-center gap-2.5 max-[640px]:ml-0">
          {publishing.error ? (
            <span role="alert" className="text-ochre">
              {wordsOf(publishing.error)}
            </span>
          ) : null}
          <FormMenu formRef={ref} />
          <Button onClick={live} disabled={publishing.isLoading || state.saving !== "saved" || !state.changed}>
            {state.changed ? "Publish" : `Version ${state.publishedVersion} is live`}
          </Button>
          {state.publishedVersion === null ? null : (
            <ButtonLink href={`${BASE_PATH}/f/${ref}`} target="_blank" rel="noreferrer">
              Open form page
            </ButtonLink>
          )}
          <nav
            aria-label="Views of this form"
            className="flex h-[34px] overflow-hidden rounded border border-edge bg-field"
          >
            {[
              ["compose", "Compose"],
              ["rehearse", "Rehearse"],
              ["take-away", "Take away"],
            ].map(([to, words]) => (
              <NavLink
                key={to}
                to={to}
                className="flex items-center border-edge px-4 font-semibold text-quiet not-first:border-l hover:bg-wash aria-[current=page]:bg-ink aria-[current=page]:text-page"
              >
                {words}
              </NavLink>
            ))}
          </nav>
        </div>
      </div>
      <Outlet />
    </main>
  );
}
