import { browserSupportsWebAuthn, startAuthentication } from "@simplewebauthn/browser";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { useSearchParams } from "react-router";
import { wordsOfPasskey } from "../people/passkey-words.ts";
import {
  issuesOf,
  useAskSignInPasskeyMutation,
  useSignInByPasskeyMutation,
  useSignInMutation,
  wordsOf,
} from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { TextField } from "../ui/TextField.tsx";

/** Shown instead of any view while nobody is signed in. */
export default function SignInNeeded() {
  const used = useSearchParams()[0].get("link") === "used";
  const { register, handleSubmit, watch } = useForm({ defaultValues: { name: "", password: "", code: "" } });
  const [signIn, { error, isLoading }] = useSignInMutation();
  const code = watch("code");
  const needsCode = issuesOf(error).some(({ parameter }) => parameter === "code");
  const submit = handleSubmit(({ name, password }) => void signIn({ name, password, ...(code ? { code } : {}) }));
  return (
    <main className="mx-auto mt-16 w-full max-w-md px-5">
      <h1 className="font-serif text-2xl font-semibold">
        {used ? "This link has already been used" : "You are not signed in"}
      </h1>
      <p className="mt-3">
        {used ? "A sign-in link works once, within a day. " : ""}
        Open the newest link that <code className="font-mono text-[13px]">npm start</code> printed in its terminal. It
        is also in <code className="font-mono text-[13px]">.bibliotope/ready.json</code>, as “signIn”. Or sign in with a
        password or a passkey, if you have one.
      </p>
      <form onSubmit={submit} className="mt-5 grid gap-3 rounded-md border border-rule bg-page p-5">
        <TextField label="Name" autoComplete="username" required {...register("name")} />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          {...register("password")}
        />
        {needsCode || code ? (
          <TextField
            label="One-time code"
            inputMode="numeric"
            autoComplete="one-time-code"
            autoFocus
            required
            maxLength={7}
            {...register("code")}
          />
        ) : null}
        {error ? (
          <p role="alert" className={needsCode && !code ? "" : "text-madder"}>
            {wordsOf(error)}
          </p>
        ) : null}
        <p className="flex flex-wrap items-center gap-3">
          <Button strong type="submit" disabled={isLoading}>
            Sign in
          </Button>
          {browserSupportsWebAuthn() ? <PasskeyButton /> : null}
        </p>
      </form>
    </main>
  );
}

/** Signs in by a passkey of this device, or of one at hand. */
function PasskeyButton() {
  const [failed, setFailed] = useState("");
  const [ask] = useAskSignInPasskeyMutation();
  const [signIn] = useSignInByPasskeyMutation();
  const press = async () => {
    setFailed("");
    try {
      const { options } = await ask().unwrap();
      const used = await startAuthentication({ optionsJSON: options as never });
      await signIn({ used: used as never }).unwrap();
    } catch (error) {
      setFailed(wordsOfPasskey(error) ?? wordsOf(error));
    }
  };
  return (
    <>
      <Button onClick={() => void press()}>Sign in with a passkey</Button>
      {failed ? (
        <span role="alert" className="w-full text-madder">
          {failed}
        </span>
      ) : null}
    </>
  );
}
