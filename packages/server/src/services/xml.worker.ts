import type { Service, ServiceValues } from "@bibliotope/core/service";
import { doWork } from "../jobs/do-work.ts";
import { CallFailed, type CameBack } from "./call-failed.ts";
import { readAnswer } from "./read-answer.ts";

type Read = { values: ServiceValues; failed?: undefined } | { values?: undefined; failed: Failure };
type Failure = Pick<CallFailed, "outcome" | "message">;

/** Reads answers in XML beside the process that answers lookups: a megabyte of it takes seconds. */
const work = {
  read({ service, came }: { service: Service; came: CameBack }): Read {
    try {
      return { values: readAnswer(service, came) };
    } catch (error) {
      if (!(error instanceof CallFailed)) throw error;
      const { outcome, message } = error;
      return { failed: { outcome, message } };
    }
  },
};

export type XmlWork = typeof work;

doWork(work);
