import { CALLS } from "@bibliotope/wire";
import type { Router } from "express";
import type { PublishedForms } from "../forms/published-forms.ts";
import { sendAnswer } from "../http/engine.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";

/** `/v1/forms/REF`: a published form, for the kit. */
export function formRoutes(forms: PublishedForms): Router {
  const router = exactRouter();
  router.get("/forms/:ref", (request, response) => {
    const form = forms.find(request.params.ref);
    if (!form)
      throw new HttpProblem("not-found", "No form with this ref is published. Publish it in the workbench first.");
    sendAnswer(response, CALLS.form.mediaType, form, performance.now());
  });
  return router;
}
