import { lazy } from "react";
import { NavLink, Outlet } from "react-router";
import { Account } from "../people/Account.tsx";
import { useSessionQuery } from "../state/api.ts";
import { Later } from "../ui/Later.tsx";
import { Waiting } from "../ui/Page.tsx";
import { FirstSteps } from "./FirstSteps.tsx";
import { KeysDialog } from "./KeysDialog.tsx";
import { Mark } from "./Mark.tsx";

const SignInNeeded = lazy(() => import("./SignInNeeded.tsx"));

const PLACES = [
  ["/forms", "Forms"],
  ["/lookups", "Lookups"],
  ["/data", "Data"],
  ["/batches", "Batches"],
  ["/services", "Services"],
  ["/keys", "Keys"],
] as const;

/** The thin header with the places of work, and the view under it. */
export function Frame() {
  const { data: session, error, isLoading } = useSessionQuery();
  const notSignedIn = (error as { status?: number } | undefined)?.status === 401;
  return (
    <div className="flex min-h-full flex-col">
      <header className="flex h-[46px] flex-none items-center gap-8 border-b border-rule px-5 max-[480px]:gap-4">
        <NavLink to="/" className="flex items-center gap-2.5 font-serif text-[20px] font-semibold">
          <Mark />
          <span className="max-[480px]:sr-only">Bibliotope</span>
        </NavLink>
        <nav aria-label="Main" className="flex h-full min-w-0 items-stretch gap-5 overflow-x-auto max-[480px]:gap-3.5">
          {PLACES.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              className="flex items-center border-b-2 border-transparent px-0.5 font-semibold text-quiet aria-[current=page]:border-madder aria-[current=page]:text-ink"
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <span className="ml-auto flex min-w-0 items-center gap-8 max-[640px]:gap-3">
          {session ? <FirstSteps /> : null}
          {session ? <Account session={session} /> : null}
          {session ? <KeysDialog /> : null}
        </span>
      </header>
      {session ? (
        <Outlet />
      ) : notSignedIn ? (
        <Later>
          <SignInNeeded />
        </Later>
      ) : (
        <Waiting error={isLoading ? undefined : error} words="Opening the workbench" />
      )}
    </div>
  );
}
