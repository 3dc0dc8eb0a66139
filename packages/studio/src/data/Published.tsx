import type { DataAnswer } from "@bibliotope/wire";
import { moment } from "../ui/moment.ts";
import { PublishDialog } from "./PublishDialog.tsx";
import { findVersion } from "./words.ts";

/** What was live before, and the way back to it. */
export function Published({ data, canEdit }: { data: DataAnswer; canEdit: boolean }) {
  const [now, ...before] = data.publications;
  if (!now) return null;
  const named = (versions: readonly number[]) =>
    versions
      .flatMap((id) => {
        const found = findVersion(data, id);
        return found ? [`${found.set.name} ${found.version.number}`] : [];
      })
      .join(", then ");
  return (
    <section aria-label="Publication history" className="mt-8">
      <h2 className="font-serif text-[20px] font-semibold">Publication history</h2>
      <ol className="mt-2 rounded-md border border-rule bg-page">
        {[now, ...before].map((publication, place) => (
          <li
            key={publication.id}
            className="flex flex-wrap items-baseline gap-x-4 border-t border-rule px-4 py-2 first:border-t-0"
          >
            <span className={place ? "" : "font-semibold"}>{named(publication.versions)}</span>
            <span className="text-[12.5px] text-quiet">
              {place ? "" : "live now · "}
              since {moment(publication.madeAt)}
              {publication.why ? ` · ${publication.why}` : ""}
            </span>
            {canEdit && place ? (
              <span className="ml-auto text-[13px]">
                <PublishDialog
                  data={data}
                  versions={publication.versions}
                  why={`Back to ${named(publication.versions)}`}
                  label="Restore"
                />
              </span>
            ) : null}
          </li>
        ))}
      </ol>
    </section>
  );
}
