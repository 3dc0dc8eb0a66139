import type { FormDefinition } from "@bibliotope/core/form";
import { Link, useNavigate } from "react-router";
import { useFormsQuery, useMakeFormMutation } from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { moment } from "../ui/moment.ts";
import { Page } from "../ui/Page.tsx";
import { FormPicture } from "./FormPicture.tsx";
import { aboutForm } from "./outline-rows.ts";

/** What a new form begins with: enough to try it at once. */
const NEW_FORM: FormDefinition = {
  title: "New form",
  submit: "Send",
  fields: [
    { name: "find", kind: "search", label: "Find your address" },
    { name: "street", kind: "text", label: "Street and number", autofill: "address-line1" },
    { name: "town", kind: "text", label: "Town", autofill: "address-level2" },
    { name: "postcode", kind: "text", label: "Postcode", autofill: "postal-code", half: true },
    { name: "country", kind: "country", label: "Country", autofill: "country", half: true },
    { name: "place", kind: "map", label: "On the map" },
  ],
};

/** All forms of the workbench. */
export function FormList() {
  const { data: forms, error, isLoading } = useFormsQuery();
  const [make, making] = useMakeFormMutation();
  const go = useNavigate();
  const begin = async () => {
    const made = await make(NEW_FORM);
    if (made.data) void go(`/forms/${made.data.ref}/compose`);
  };
  return (
    <Page
      title="Forms"
      width="max-w-4xl"
      intro="Each form is composed here, rehearsed, published under its own address, or taken away as code."
      actions={
        <Button strong onClick={begin} disabled={making.isLoading}>
          New form
        </Button>
      }
      error={error ?? making.error}
      loading={isLoading && "Loading forms"}
    >
      {forms?.length === 0 ? <p className="mt-4 text-quiet">No forms yet. Create one with “New form”.</p> : null}
      {forms?.length ? (
        <ul className="mt-5 overflow-hidden rounded-md border border-rule bg-page">
          {forms.map((form) => (
            <li key={form.ref} className="border-rule not-first:border-t">
              <Link
                to={`/forms/${form.ref}/rehearse`}
                className="flex items-center gap-5 px-4 py-3 hover:bg-wash max-sm:flex-col max-sm:items-start max-sm:gap-2"
              >
                <span className="rounded border border-rule bg-page">
                  <FormPicture outline={form.outline} />
                </span>
                <span className="grid min-w-0 flex-1 gap-0.5">
                  <span className="font-serif text-[19px]">{form.title}</span>
                  <span>{aboutForm(form.outline)}</span>
                  <span className="text-[13px] text-quiet">
                    {form.fields} fields · saved {moment(form.savedAt)}
                  </span>
                </span>
                <span className={form.publishedVersion === null ? "text-quiet" : ""}>
                  {form.publishedVersion === null ? "not published" : `version ${form.publishedVersion} is live`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      ) : null}
    </Page>
  );
}
