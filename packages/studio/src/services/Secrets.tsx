import { useState } from "react";
import { useForm } from "react-hook-form";
import { useDropSecretMutation, useSecretsQuery, useSetSecretMutation } from "../state/services-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { moment } from "../ui/moment.ts";
import { TextField } from "../ui/TextField.tsx";

const NONE = { name: "", value: "" };

/** Tokens and passwords that services are called with: set here, and never shown again. */
export function Secrets({ isManager }: { isManager: boolean }) {
  const [open, setOpen] = useState(false);
  const { data: secrets = [] } = useSecretsQuery(undefined, { skip: !open, refetchOnMountOrArgChange: true });
  const [set, { error: notSet, isLoading }] = useSetSecretMutation();
  const [drop, { error: notDropped }] = useDropSecretMutation();
  const { register, handleSubmit, reset } = useForm({ defaultValues: NONE });
  const wrong = notSet ?? notDropped;
  const submit = handleSubmit((draft) =>
    set(draft)
      .unwrap()
      .then(
        () => reset(NONE),
        () => undefined,
      ),
  );
  return (
    <Dialog title="Secrets" open={open} onOpenChange={setOpen} size="large" trigger={<Button>Secrets</Button>}>
      <p className="mt-1 text-[13px] text-quiet">
        Use a secret in a header or body as <code className="font-mono">{"{secret.courier-token}"}</code>. Secrets are
        encrypted before they are stored and sent only to the service.
      </p>
      <ul className="mt-3 border-y border-rule">
        {secrets.map(({ name, setAt, services, isReadable }) => (
          <li
            key={name}
            className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule py-2 last:border-0"
          >
            <span className="font-mono text-[13px] text-plum">{name}</span>
            <span className={`flex-1 text-[12.5px] ${isReadable ? "text-quiet" : "text-madder"}`}>
              {isReadable
                ? `set ${moment(setAt)}; ${services.length ? `used by ${services.join(", ")}` : "not used"}`
                : "cannot be decrypted: it was encrypted with another key. Set it again."}
            </span>
            {isManager ? (
              <>
                <button type="button" className="underline" onClick={() => reset({ name, value: "" })}>
                  Set again<span className="sr-only"> {name}</span>
                </button>
                <button
                  type="button"
                  className="underline disabled:text-quiet disabled:no-underline"
                  disabled={services.length > 0}
                  onClick={() => void drop(name)}
                >
                  Remove<span className="sr-only"> {name}</span>
                </button>
              </>
            ) : null}
          </li>
        ))}
        {secrets.length ? null : <li className="py-2 text-quiet">None yet.</li>}
      </ul>
      {isManager ? (
        <form className="mt-4 grid grid-cols-[1fr_2fr_auto] items-end gap-3" onSubmit={submit} autoComplete="off">
          <TextField
            label="Name"
            required
            pattern="[a-z][a-z0-9\-]{0,39}"
            title="Lowercase letters, digits and -, starting with a letter"
            {...register("name")}
          />
          <TextField label="Value" type="password" autoComplete="new-password" required {...register("value")} />
          <Button strong type="submit" disabled={isLoading}>
            Set
          </Button>
        </form>
      ) : null}
      <Alert error={wrong} className="mt-3 text-madder" />
    </Dialog>
  );
}
