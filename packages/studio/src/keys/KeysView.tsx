import type { KeySummary } from "@bibliotope/wire";
import { useKeysQuery } from "../state/api.ts";
import { useMayManage } from "../state/may.ts";
import { moment } from "../ui/moment.ts";
import { Page } from "../ui/Page.tsx";
import { FramedTable, RowHead } from "../ui/Table.tsx";
import { ChangeKey, MakeKey, ReplaceKey, WithdrawKey } from "./KeyDialogs.tsx";
import { LinkKey } from "./LinkKey.tsx";
import { UseView } from "./UseView.tsx";
import { KIND_WORDS, keptTo, keyStatus } from "./words.ts";

/** The door of the service: which keys there are, what each is kept to, and when it was used last. */
export function KeysView() {
  const isManager = useMayManage();
  const { data: keys, error, isLoading } = useKeysQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Page
      title="Keys"
      actions={isManager ? <MakeKey /> : null}
      intro={
        <>
          Every lookup needs a key. A web key works only on the origins it lists; a server key is refused in browsers.
          Each key can be limited to kinds of lookup, countries, a rate, and an expiry date.
          {isManager ? "" : " Only managers of this workbench can create and change keys."}
        </>
      }
      error={error}
      loading={isLoading && "Loading keys"}
    >
      {keys?.length ? (
        <FramedTable
          label="Keys"
          narrowest="min-w-[54rem]"
          className="mt-5"
          heads={["Name", "For", "Limited to", "Used", "Expires", { hidden: "Actions" }]}
        >
          {keys.map((existing) => (
            <Row key={existing.id} existing={existing} isManager={isManager} />
          ))}
        </FramedTable>
      ) : null}
      {keys?.length ? <UseView keys={keys} /> : null}
      {isManager ? <LinkKey /> : null}
      {keys?.length === 0 ? <p className="mt-4 text-quiet">No keys yet. Create one with “New key”.</p> : null}
    </Page>
  );
}

function Row({ existing: known, isManager }: { existing: KeySummary; isManager: boolean }) {
  const limits = keptTo(known);
  const isOver = keyStatus(known) === "ended";
  return (
    <tr className={`border-t border-rule align-baseline ${isOver ? "text-quiet" : ""}`}>
      <RowHead className="px-4 py-2.5 font-serif text-[16px]">{known.name}</RowHead>
      <td className="px-4">{KIND_WORDS[known.kind].name}</td>
      <td className="max-w-[24rem] px-4 py-2.5 text-[13px]">
        {limits.length ? (
          limits.map((line) => (
            <span key={line} className="block break-words">
              {line}
            </span>
          ))
        ) : (
          <span className="text-quiet">no limits</span>
        )}
      </td>
      <td className="px-4 whitespace-nowrap">{known.usedAt ? moment(known.usedAt) : "never"}</td>
      <td className={`px-4 whitespace-nowrap ${isOver ? "text-madder" : ""}`}>
        {known.endsAt ? (isOver ? `expired ${moment(known.endsAt)}` : moment(known.endsAt)) : "–"}
      </td>
      <td className="px-4">
        <span className="flex justify-end gap-3">
          {isManager ? (
            <>
              <ChangeKey existing={known} />
              <ReplaceKey existing={known} />
              <WithdrawKey existing={known} />
            </>
          ) : null}
        </span>
      </td>
    </tr>
  );
}
