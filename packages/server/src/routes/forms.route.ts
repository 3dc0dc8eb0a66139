import type { PublishedForms } from "../forms/published-forms.ts";
import type { Incoming } from "../http/incoming.ts";
import { HttpProblem } from "../http/problem.ts";
import { jsonReply } from "../http/reply.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";

/** A published form, for the kit. */
export function formHandlers(forms: PublishedForms) {
  return { form } satisfies Partial<Handlers>;

  function form(incoming: Incoming<"form">): Reply {
    const found = forms.find(incoming.parts.ref);
    if (!found)
      throw new HttpProblem("not-found", "No form with this ref is published. Publish it in the workbench first.");
    return jsonReply(incoming, found, performance.now());
  }
}
