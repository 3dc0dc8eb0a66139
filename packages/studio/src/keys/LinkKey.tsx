import { useState } from "react";
import { useLinkKeyQuery, useRenewLinkKeyMutation, wordsOf } from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { moment } from "../ui/moment.ts";
import { Sheet } from "../ui/Sheet.tsx";

/** What signs the links that show one place to whoever has them; it can be changed, and all links ended with it. */
export function LinkKey() {
  const { data, error } = useLinkKeyQuery(undefined, { refetchOnMountOrArgChange: true });
  const [renew, { error: notRenewed, isLoading }] = useRenewLinkKeyMutation();
  const [open, setOpen] = useState(false);
  const change = (endsOld: boolean) =>
    renew({ endsOld })
      .unwrap()
      .then(
        () => setOpen(false),
        () => undefined,
      );
  const wrong = error ?? notRenewed;
  return (
    <section aria-label="Links without a key" className="mt-8 max-w-[46rem]">
      <h2 className="font-serif text-[20px] font-semibold">Links without a key</h2>
      <p className="mt-1 text-quiet">
        A link that a server makes with <code className="font-mono">/v1/links</code> shows one place to whoever has it,
        until its day. This server signs them
        {data
          ? ` with a key made ${moment(data.madeAt)}${data.count > 1 ? `; links of ${data.count - 1} earlier ${data.count === 2 ? "one" : "ones"} go on too` : ""}.`
          : "."}
      </p>
      {wrong ? (
        <p role="alert" className="mt-2 text-madder">
          {wordsOf(wrong)}
        </p>
      ) : null}
      <div className="mt-3">
        <Sheet
          title="Sign links with another key"
          open={open}
          onOpenChange={setOpen}
          trigger={<Button>Sign with another key</Button>}
        >
          <p className="mt-1 text-quiet">
            Links that were sent go on until their day. If one fell into wrong hands, or the file with the key did, end
            them all: whoever has one is told that there is no such link.
          </p>
          <div className="mt-4 flex flex-wrap gap-3">
            <Button strong disabled={isLoading} onClick={() => void change(false)}>
              Another key, links go on
            </Button>
            <Button disabled={isLoading} onClick={() => void change(true)}>
              Another key, and end all links
            </Button>
          </div>
        </Sheet>
      </div>
    </section>
  );
}
