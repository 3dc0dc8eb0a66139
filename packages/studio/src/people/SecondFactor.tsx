import type { BegunCodes, PasskeySummary } from "@bibliotope/wire";
import { browserSupportsWebAuthn, startRegistration } from "@simplewebauthn/browser";
import { useState } from "react";
import { useForm } from "react-hook-form";
import {
  useAskPasskeyMutation,
  useBeginCodesMutation,
  useConfirmCodesMutation,
  useDropCodesMutation,
  useDropPasskeyMutation,
  useKeepPasskeyMutation,
  useSecondFactorQuery,
  wordsOf,
} from "../state/api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { moment } from "../ui/moment.ts";
import { TextField } from "../ui/TextField.tsx";
import { wordsOfPasskey } from "./passkey-words.ts";

/** What is about to be changed. */
type Change = { what: "codes on" | "codes off" | "passkey" } | { what: "passkey off"; passkey: PasskeySummary };

/** One's own one-time codes and passkeys. @param hasPassword it is requested again before anything is changed */
export function SecondFactor({ hasPassword }: { hasPassword: boolean }) {
  const { data } = useSecondFactorQuery();
  const [change, setChange] = useState<Change>();
  const [begun, setBegun] = useState<BegunCodes>();
  const done = () => {
    setChange(undefined);
    setBegun(undefined);
  };
  if (!data) return null;
  return (
    <section aria-label="Second factor" className="mt-5">
      <h3 className="font-semibold">Second factor</h3>
      <ul className="mt-1 border-y border-rule text-[13px]">
        <li className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
          <span className="min-w-0 flex-1">
            One-time codes of an authenticator app
            <span className="block text-quiet">
              {data.codesSince
                ? `required with the password since ${moment(data.codesSince)}`
                : hasPassword
                  ? "off"
                  : "used with a password, which you have not set"}
            </span>
          </span>
          {hasPassword || data.codesSince ? (
            <button
              type="button"
              className="underline"
              onClick={() => setChange({ what: data.codesSince ? "codes off" : "codes on" })}
            >
              {data.codesSince ? "Turn off …" : "Set up …"}
            </button>
          ) : null}
        </li>
        {data.passkeys.map((passkey) => (
          <li key={passkey.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
            <span className="min-w-0 flex-1 break-words">
              Passkey “{passkey.name}”
              <span className="block text-quiet">
                {passkey.usedAt ? `used ${moment(passkey.usedAt)}` : `created ${moment(passkey.madeAt)}, not used yet`}
              </span>
            </span>
            <button type="button" className="underline" onClick={() => setChange({ what: "passkey off", passkey })}>
              Remove …<span className="sr-only"> {passkey.name}</span>
            </button>
          </li>
        ))}
        <li className="py-1.5">
          {browserSupportsWebAuthn() ? (
            <button type="button" className="underline" onClick={() => setChange({ what: "passkey" })}>
              Add a passkey …
            </button>
          ) : (
            <span className="text-quiet">This browser does not support passkeys.</span>
          )}
        </li>
      </ul>
      {begun ? (
        <Confirm begun={begun} done={done} />
      ) : change ? (
        <Again key={change.what} change={change} hasPassword={hasPassword} done={done} begin={setBegun} />
      ) : null}
    </section>
  );
}

const TITLES: Readonly<Record<Change["what"], string>> = {
  "codes on": "Set up one-time codes",
  "codes off": "Turn off one-time codes",
  passkey: "Add a passkey",
  "passkey off": "Remove the passkey",
};

interface AgainProps {
  change: Change;
  hasPassword: boolean;
  done: () => void;
  begin: (begun: BegunCodes) => void;
}

/** Asks for the password again, and does what is to be changed. */
function Again({ change, hasPassword, done, begin }: AgainProps) {
  const { register, handleSubmit, formState } = useForm({ defaultValues: { before: "", name: "This device" } });
  const [failed, setFailed] = useState("");
  const [beginCodes] = useBeginCodesMutation();
  const [dropCodes] = useDropCodesMutation();
  const [askPasskey] = useAskPasskeyMutation();
  const [keepPasskey] = useKeepPasskeyMutation();
  const [dropPasskey] = useDropPasskeyMutation();
  const act = async ({ before, name }: { before: string; name: string }) => {
    const again = hasPassword ? { before } : {};
    if (change.what === "codes on") return begin(await beginCodes(again).unwrap());
    if (change.what === "codes off") await dropCodes(again).unwrap();
    else if (change.what === "passkey off") await dropPasskey({ id: change.passkey.id, asks: again }).unwrap();
    else {
      const { options } = await askPasskey(again).unwrap();
      const made = await startRegistration({ optionsJSON: options as never });
      await keepPasskey({ name, made: made as never }).unwrap();
    }
    done();
  };
  const submit = handleSubmit((values) => {
    setFailed("");
    return act(values).catch((error: unknown) => setFailed(wordsOfPasskey(error) ?? wordsOf(error)));
  });
  return (
    <form onSubmit={submit} aria-label={TITLES[change.what]} className="mt-3 flex flex-wrap items-end gap-3">
      {change.what === "passkey" ? (
        <div className="w-[12rem]">
          <TextField label="Name of the passkey" required maxLength={60} {...register("name")} />
        </div>
      ) : null}
      {hasPassword ? (
        <div className="w-[12rem]">
          <TextField
            label="Confirm your password"
            type="password"
            autoComplete="current-password"
            required
            {...register("before")}
          />
        </div>
      ) : null}
      <Button type="submit" strong disabled={formState.isSubmitting}>
        {TITLES[change.what]}
      </Button>
      <Button onClick={done}>Cancel</Button>
      {failed ? (
        <p role="alert" className="w-full text-madder">
          {failed}
        </p>
      ) : null}
    </form>
  );
}

/** Shows the secret for the app, and asks for a first code. */
function Confirm({ begun, done }: { begun: BegunCodes; done: () => void }) {
  const { register, handleSubmit } = useForm({ defaultValues: { code: "" } });
  const [confirm, { error, isLoading }] = useConfirmCodesMutation();
  const submit = handleSubmit((given) =>
    confirm(given)
      .unwrap()
      .then(done, () => undefined),
  );
  return (
    <form
      onSubmit={submit}
      aria-label="Confirm one-time codes"
      className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-2"
    >
      <img
        className="row-span-2 size-[132px] rounded bg-white"
        alt="The secret as a QR code"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(begun.picture)}`}
      />
      <p className="text-[13px]">
        Scan this with an authenticator app, or enter the secret:{" "}
        <code className="block break-all font-mono">{begun.secret.match(/.{1,4}/g)?.join(" ")}</code>
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-[9rem]">
          <TextField
            label="Code shown in the app"
            inputMode="numeric"
            autoComplete="one-time-code"
            required
            maxLength={7}
            {...register("code")}
          />
        </div>
        <Button type="submit" strong disabled={isLoading}>
          Turn on one-time codes
        </Button>
        <Button onClick={done}>Cancel</Button>
      </div>
      <p className="col-span-2 text-[13px] text-quiet">
        Other sessions will end. If you lose the app, a sign-in link still works, and a manager can turn codes off.
      </p>
      <Alert error={error} className="col-span-2 text-madder" />
    </form>
  );
}
