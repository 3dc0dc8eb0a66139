import { useEffect } from "react";
import { useKeepLookupMutation } from "../state/api.ts";
import { canAsk, type LookupQuery, writeQuery } from "./lookup-query.ts";
import { bodyOf, type LookupState } from "./use-answer.ts";

/** Milliseconds after which a lookup counts as requested for and not as typed through. */
const SETTLED = 1200;

/** Keeps a lookup that represents a moment; what is typed through on the way is not kept. */
export function useKeep(query: LookupQuery, { answer }: LookupState): void {
  const [keep] = useKeepLookupMutation();
  const body = bodyOf({ answer, loading: false });
  useEffect(() => {
    if (!body || !canAsk(query)) return;
    const found = body.features?.length ?? body.suggestions?.length ?? 1;
    const timer = setTimeout(
      () => void keep({ query: writeQuery(query), outcome: body.outcome ?? "matched", found }),
      SETTLED,
    );
    return () => clearTimeout(timer);
  }, [query, body, keep]);
}
