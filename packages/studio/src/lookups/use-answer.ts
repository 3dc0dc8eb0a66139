import type { Outcome } from "@bibliotope/core/place";
import type { Problem, Reading, RecordFeature, Suggestion } from "@bibliotope/wire";
import { useEffect, useState } from "react";
import { useSessionQuery } from "../state/api.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { canAsk, type LookupQuery, writeQuery } from "./lookup-query.ts";

/** What came back: all of it, so that a developer sees what their own code would. */
interface Answer {
  status: number;
  headers: [name: string, value: string][];
  /** Milliseconds from the request to the last byte. */
  took: number;
  /** Octets of the body. */
  size: number;
  body: unknown;
}

/** The answer as the views read it; what a call does not give is absent. */
export interface AnswerBody {
  outcome?: Outcome;
  advice?: string[];
  features?: RecordFeature[];
  suggestions?: Suggestion[];
  total?: number;
  metres?: number;
  bearing?: number;
  reading?: Reading;
}

export interface LookupState {
  answer?: Answer;
  /** Why nothing came back at all. */
  failed?: string;
  loading: boolean;
}

/** Asks a lookup whenever it changes; an answer to an earlier one is dropped. */
export function useAnswer(query: LookupQuery | undefined): LookupState {
  const key = useSessionQuery().data?.studioKey;
  const text = query && canAsk(query) ? writeQuery(query) : undefined;
  const [state, setState] = useState<LookupState>({ loading: false });
  useEffect(() => {
    if (!key || text === undefined) {
      setState({ loading: false });
      return;
    }
    const stop = new AbortController();
    setState(({ answer }) => ({ answer, loading: true }));
    ask(text, key, stop.signal).then(
      (answer) => setState({ answer, loading: false }),
      (error: unknown) => {
        if (!stop.signal.aborted) setState({ failed: String(error), loading: false });
      },
    );
    return () => stop.abort();
  }, [text, key]);
  return state;
}

async function ask(text: string, key: string, signal: AbortSignal): Promise<Answer> {
  const began = performance.now();
  const response = await fetch(`${SERVICE_URL}/v1/${text}`, { headers: { Authorization: `Bearer ${key}` }, signal });
  const bytes = await response.arrayBuffer();
  return {
    status: response.status,
    headers: [...response.headers],
    took: performance.now() - began,
    size: bytes.byteLength,
    body: JSON.parse(new TextDecoder().decode(bytes)) as unknown,
  };
}

/** What the views read of an answer; nothing of a refusal. */
export function bodyOf({ answer }: LookupState): AnswerBody | undefined {
  if (answer?.status !== 200) return undefined;
  const body = answer.body as AnswerBody & { type?: string };
  return body.type === "Feature" ? { features: [body as unknown as RecordFeature] } : body;
}

/** Why the wire refused. */
export function problemOf({ answer }: LookupState): Problem | undefined {
  return answer && answer.status !== 200 ? (answer.body as Problem) : undefined;
}
