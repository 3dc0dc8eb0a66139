import { useState } from "react";
import { useLinkKeyQuery, useRenewLinkKeyMutation } from "../state/api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { moment } from "../ui/moment.ts";

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
    <section aria-label="Signed links" className="mt-8 max-w-[46rem]">
      <h2 className="font-serif text-[20px] font-semibold">Signed links</h2>
      <p className="mt-1 text-quiet">
        A link created with <code className="font-mono">/v1/links</code> shows one place to anyone who has it, until it
        expires. This server signs links
        {data
          ? ` with a key created ${moment(data.madeAt)}${data.count > 1 ? `; links signed with ${data.count - 1} earlier ${data.count === 2 ? "key" : "keys"} still work` : ""}.`
          : "."}
      </p>
      <Alert error={wrong} className="mt-2 text-madder" />
      <div className="mt-3">
        <Dialog
          title="Replace the signing key"
          open={open}
          onOpenChange={setOpen}
          trigger={<Button>Replace signing key</Button>}
        >
          <p className="mt-1 text-quiet">
            Links already sent work until they expire. If a link or the key file fell into the wrong hands, end them
            all: they will then show that the link does not exist.
          </p>
          <div className="mt-4 flex flex-wrap gap-3">
            <Button strong disabled={isLoading} onClick={() => void change(false)}>
              New key, keep existing links
            </Button>
            <Button disabled={isLoading} onClick={() => void change(true)}>
              New key, end all links
            </Button>
          </div>
        </Dialog>
      </div>
    </section>
  );
}
