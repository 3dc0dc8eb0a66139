import { isRouteErrorResponse, Link, useRouteError } from "react-router";
import { Button } from "../ui/Button.tsx";

/** Shown in place of a view that failed, or whose script could not be loaded. */
export function BrokenView() {
  const error = useRouteError();
  const isUnloaded = error instanceof TypeError && /dynamically imported module|module script/i.test(error.message);
  const words = isRouteErrorResponse(error) ? error.statusText : error instanceof Error ? error.message : String(error);
  return (
    <main className="mx-auto mt-24 max-w-lg px-5">
      <h1 className="font-serif text-2xl font-semibold">
        {isUnloaded ? "This page could not be loaded" : "This page stopped working"}
      </h1>
      <p role="alert" className="mt-3">
        {isUnloaded
          ? "The server did not send it. It may have been restarted or updated: try again in a moment."
          : "An error in the workbench stopped it. Saved changes are not affected."}
      </p>
      <p className="mt-4 flex items-center gap-4">
        <Button strong onClick={() => location.reload()}>
          Reload
        </Button>
        <Link to="/forms" className="underline">
          Go to the forms
        </Link>
      </p>
      {isUnloaded ? null : (
        <details className="mt-5">
          <summary className="cursor-pointer text-quiet">Error message</summary>
          <pre className="mt-2 font-mono text-[12.5px] break-words whitespace-pre-wrap">{words}</pre>
        </details>
      )}
    </main>
  );
}
